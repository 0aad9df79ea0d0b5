import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask, type TermView } from './api'
import { BoxPlot } from './charts'
import { Num } from './num'
import { compact, counted, fixed, full, money, noData, percent } from './numbers'
import { queryKey } from './queries'
import type { Desk } from './shop'

export function FamilyBars({ view, here, dig }: { view: TermView; here: string; dig?: (text: string) => void }) {
  const top = Math.max(1, ...view.family.map((f) => f.volume ?? 0))
  return (
    <>
      <div className="sub" title="Singular and plural, one word or two, British and American spelling, ways to write a number">
        Spelling variants
      </div>
      <div className="family" data-testid="family">
        {view.family.slice(0, 8).map((f) => (
          <div key={f.key} className="contents">
            <button
              type="button"
              className={`text-left truncate cursor-pointer hover:underline ${f.text.toLowerCase() === here.toLowerCase() ? 'font-semibold' : ''}`}
              title={`Search for “${f.text}”`}
              onClick={() => dig?.(f.text)}
            >
              {f.text}
            </button>
            <span className={`bar ${f.strongest ? 'top' : ''}`} style={{ width: `${((f.volume ?? 0) / top) * 100}%` }} />
            <span className="text-[12.5px] text-right">
              <Num value={f.volume} unit="searches/mo" />
              {f.strongest && <span className="sr-only"> the most searched</span>}
            </span>
          </div>
        ))}
      </div>
    </>
  )
}

export function Seen({ seen, currency, dig }: { seen: NonNullable<TermView['seen']>; currency: string; dig?: (text: string) => void }) {
  const [low, lower, middle, upper, high] = seen.prices.map((p) => money(p, currency, false))
  return (
    <>
      <div className="sub">Search results</div>
      {seen.looked === 0 ? (
        <p className="quiet text-[13.5px]">No results.</p>
      ) : (
        <div data-testid="seen">
          <p className="quiet text-[13.5px]">
            {counted(seen.found, 'result')}. Top {seen.looked}: {low}–{high} including shipping (middle half {lower}–{upper}),{' '}
            {percent(seen.shippingIncluded)} free shipping, {fixed(seen.stars, 1)} stars on average, median{' '}
            {counted(Math.round(seen.ratings), 'rating')}, {counted(Math.round(seen.photos), 'photo')} on average,{' '}
            {seen.sales !== null
              ? `median ${counted(Math.round(seen.sales), 'sale')}/mo`
              : `${percent(seen.occupancy)} of nights booked on average`}
            .
          </p>
          <BoxPlot values={seen.prices} label={`Prices from ${low} to ${high}, median ${middle}, middle half ${lower} to ${upper}`} />
          <details className="text-[13px]">
            <summary className="link w-fit">
              {seen.first.length === 1 ? 'Top result: is it like yours?' : `Top ${seen.first.length} results: are they like yours?`}
            </summary>
            <ol className="mt-1">
              {seen.first.map((r, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: results are in the market's order
                <li key={i} className="border-b border-base-300 py-1">
                  {r.title}
                  <span className="quiet block num text-[12px]">
                    {money(r.price, currency)} {r.shipping > 0 ? `+ ${money(r.shipping, currency)} shipping` : 'free shipping'} ·{' '}
                    {fixed(r.rating, 1)} stars ({compact(r.ratings)}) · {counted(r.photos, 'photo')}
                  </span>
                </li>
              ))}
            </ol>
          </details>
          <div className="sub">{seen.looked === 1 ? 'Words in the top listing' : `Words in the top ${seen.looked} listings`}</div>
          <p className="text-[13.5px] leading-relaxed">
            {seen.words.map((w, i) => (
              <span key={w.text}>
                {i > 0 && <span className="quiet"> · </span>}
                <button
                  type="button"
                  className="cursor-pointer hover:underline"
                  title={`Search for “${w.text}”`}
                  onClick={() => dig?.(w.text)}
                >
                  {w.text} <span className="num quiet text-[12px]">{w.count}</span>
                </button>
              </span>
            ))}
          </p>
        </div>
      )}
    </>
  )
}

/** The same term in each country and on the web, with the spelling that is typed there. */
export function Countries({ desk, text }: { desk: Desk; text: string }) {
  const [open, setOpen] = useState(localStorage.getItem('countries') === 'open')
  const views = useQuery({
    queryKey: queryKey('term', 'countries', desk.market.id, text.toLowerCase()),
    queryFn: () => ask(api.GET('/api/markets/{marketId}/countries', { params: { path: { marketId: desk.market.id }, query: { text } } })),
    enabled: open,
    staleTime: 60_000,
  }).data
  const toggle = () => {
    localStorage.setItem('countries', open ? '' : 'open')
    setOpen(!open)
  }
  return (
    <div className="mt-3">
      <button type="button" className="link text-[13.5px]" aria-expanded={open} onClick={toggle}>
        {open ? '▾' : '▸'} Other countries and web search
      </button>
      {open && views && (
        <table className="plain" data-testid="countries">
          <thead>
            <tr>
              <th>Country</th>
              <th className="r">Searches/mo</th>
              <th className="r">Most searched form</th>
            </tr>
          </thead>
          <tbody>
            {views.map((c) => (
              <tr key={c.marketId} className={c.marketId === desk.market.id ? 'font-semibold' : ''}>
                <td title={c.countryName}>
                  {c.web ? 'Web, ' : ''}
                  {c.country.toUpperCase()}
                </td>
                <td
                  className="r"
                  title={c.own.competition === null ? undefined : `${full(c.own.competition)} competing ${c.web ? 'pages' : 'listings'}`}
                >
                  <Num value={c.own.volume} unit="searches/mo" />
                </td>
                <td className="r">
                  {c.spelling === null ? (
                    <span className="quiet">{noData}</span>
                  ) : (
                    <>
                      {c.spelling} <Num value={c.best?.volume} unit="searches/mo" />
                    </>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  )
}
