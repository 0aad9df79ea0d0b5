import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask, type TermView } from './api'
import { BoxPlot } from './charts'
import { Num } from './num'
import { counted, fixed, full, money, noData, percent } from './numbers'
import { queryKey } from './queries'
import { ResultCards } from './results'
import type { Desk } from './shop'
import { seenOn, ToBring } from './tobring'

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

/** What a search finds: how much, at which prices, and the first listings with their pictures’ alt texts. */
export function Seen({ seen, desk, term, dig }: { seen: TermView['seen']; desk: Desk; term: string; dig?: (text: string) => void }) {
  const { market } = desk
  const { currency } = market
  if (seen === null)
    return (
      <>
        <div className="sub">Search results</div>
        <ToBring market={market} term={term} what="No results of this term known here." plain />
      </>
    )
  const [low, lower, middle, upper, high] = seen.prices.map((p) => money(p, currency, false))
  const said = [
    seen.prices.length > 0 ? `${low}–${high} including shipping (middle half ${lower}–${upper})` : null,
    seen.shippingIncluded === null ? null : `${percent(seen.shippingIncluded)} free shipping`,
    seen.stars === null ? null : `${fixed(seen.stars, 1)} stars on average`,
    seen.ratings === null ? null : `median ${counted(Math.round(seen.ratings), 'rating')}`,
    seen.photos === null ? null : `${counted(Math.round(seen.photos), 'photo')} on average`,
    seen.sales === null ? null : `median ${counted(Math.round(seen.sales), 'sale')}/mo`,
    seen.occupancy === null ? null : `${percent(seen.occupancy)} of nights booked on average`,
  ].filter(Boolean)
  return (
    <>
      <div className="sub">Search results</div>
      {seen.looked === 0 ? (
        <p className="quiet text-[13.5px]">No results.</p>
      ) : (
        <div data-testid="seen">
          <p className="quiet text-[13.5px]">
            {seen.found === null ? 'Results in all: no data' : counted(seen.found, 'result')}. Top {seen.looked}
            {seen.ads > 0 ? ` (${counted(seen.ads, 'ad')} left out)` : ''}: {said.join(', ')}.
          </p>
          {seen.seen && <p className="quiet text-[13px]">{seenOn(seen.seen)}.</p>}
          {seen.prices.length > 0 && (
            <BoxPlot values={seen.prices} label={`Prices from ${low} to ${high}, median ${middle}, middle half ${lower} to ${upper}`} />
          )}
          <ResultCards desk={desk} term={term} results={seen.first} />
          {seen.related.length > 0 && (
            <>
              <div className="sub">Related searches</div>
              <Words words={seen.related.map((text) => ({ text }))} dig={dig} />
            </>
          )}
          <div className="sub">{seen.looked === 1 ? 'Words in the top listing' : `Words in the top ${seen.looked} listings`}</div>
          <Words words={seen.words} dig={dig} />
        </div>
      )}
    </>
  )
}

function Words({ words, dig }: { words: { text: string; count?: number }[]; dig?: (text: string) => void }) {
  return (
    <p className="text-[13.5px] leading-relaxed">
      {words.map((w, i) => (
        <span key={w.text}>
          {i > 0 && <span className="quiet"> · </span>}
          <button type="button" className="cursor-pointer hover:underline" title={`Search for “${w.text}”`} onClick={() => dig?.(w.text)}>
            {w.text} {w.count !== undefined && <span className="num quiet text-[12px]">{w.count}</span>}
          </button>
        </span>
      ))}
    </p>
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
