import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type ReactNode, useRef, useState } from 'react'
import { api, ask, type Measured, type Norm, type TermView } from './api'
import { BoxPlot, publishBy, Year } from './charts'
import { HelpLink } from './helplink'
import { Key } from './key'
import { messages } from './messages'
import { Num } from './num'
import { compact, counted, dateOf, fixed, full, money, monthName, noData, percent } from './numbers'
import { refreshNumbers } from './queries'
import type { Place } from './shop'
import { useShortcuts } from './shortcuts'
import { toast } from './toast'
import { useSettled } from './words'

const shapeWords = {
  sparse: 'Too few searches to show a pattern',
  'one-off': 'One-off: a short burst in one year only',
  seasonal: 'Seasonal',
  rising: 'Rising',
  fading: 'Fading',
  steady: 'Steady all year',
}

/** Everything known about one term in one market, with how each figure is worked out. */
export function TermDetail({
  place,
  text,
  numbers: first,
  norm,
  dig,
  actions,
}: {
  place: Place
  text: string
  numbers: Measured
  norm: Norm | undefined
  dig?: (text: string) => void
  actions?: ReactNode
}) {
  const { market } = place
  const settled = useSettled(text)
  const view = useQuery({
    queryKey: ['term', market.id, text.toLowerCase()],
    queryFn: () => ask(api.GET('/api/markets/{marketId}/term', { params: { path: { marketId: market.id }, query: { text } } })),
    enabled: settled === text,
    staleTime: 60_000,
  }).data
  const [correcting, setCorrecting] = useState<string | null>(null)
  const numbers = view?.numbers ?? first
  const { volume, competition } = numbers
  useShortcuts({ correct: () => setCorrecting(text) })
  return (
    <div data-testid="detail">
      <h3>{text}</h3>
      <p className="quiet text-[13.5px]">
        {volume === null && competition === null
          ? 'No market data for this term. Correct it, paste your own numbers or import a file.'
          : `${volume === null ? 'No search data' : `${full(volume)} searches/mo`}, ${competition === null ? 'no data on competing listings' : counted(competition, 'competing listing')}.`}{' '}
        {view?.year && (
          <span title={view.year.howSure} data-testid="shape">
            {shapeWords[view.year.shape]}
            {view.year.shape === 'seasonal' &&
              `, peak in ${monthName(view.year.peakMonths[0] - 1)}${view.year.peakMonths.length > 1 ? ` to ${monthName(view.year.peakMonths[view.year.peakMonths.length - 1] - 1)}` : ''}`}
            {(view.year.shape === 'rising' || view.year.shape === 'fading') &&
              `, ${view.year.change12 > 0 ? 'up' : 'down'} ${fixed(Math.abs(view.year.change12), 0)}% in 12 months`}
            .{view.year.readyBy && <b className="text-base-content"> {publishBy(view.year.readyBy)}</b>}
          </span>
        )}
      </p>
      {actions}
      {numbers.doubts.length > 0 && (
        <div className="doubts" data-testid="doubts">
          <b>These numbers look wrong.</b> {numbers.doubts.map((d) => d.why).join(' ')}{' '}
          <button type="button" className="link" onClick={() => setCorrecting(text)}>
            Correct <Key of="correct" />
          </button>
        </div>
      )}
      {correcting === text && <Correct place={place} text={text} numbers={numbers} done={() => setCorrecting(null)} />}
      {numbers.months && numbers.from && (
        <div className="mt-3">
          <Year months={numbers.months} from={numbers.from} />
          {view?.year && (
            <details className="text-[13px]">
              <summary className="link w-fit">How this is worked out</summary>
              <p className="quiet mt-1">
                {view.year.howSure}{' '}
                {view.year.seasonalStrength !== null &&
                  `The season explains ${percent(view.year.seasonalStrength)} of the variation (60% needed). `}
                The trend is {fixed(view.year.change12, 0)}% in 12 months (25% needed), p{' '}
                {view.year.p < 0.001 ? '< 0.001' : fixed(view.year.p, 3)}.{' '}
                <HelpLink to="the-shape-of-a-year" about="the pattern of a year" />
              </p>
            </details>
          )}
        </div>
      )}
      {view && view.family.length > 1 && <FamilyBars view={view} here={text} dig={dig} />}
      {view?.seen && <Seen seen={view.seen} currency={market.currency} dig={dig} />}
      <Countries key={text} place={place} text={text} />
      <Figures numbers={numbers} norm={view?.norm ?? norm} currency={market.currency} />
      {view && <Readings place={place} view={view} correct={() => setCorrecting(text)} />}
    </div>
  )
}

function FamilyBars({ view, here, dig }: { view: TermView; here: string; dig?: (text: string) => void }) {
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

function Seen({ seen, currency, dig }: { seen: NonNullable<TermView['seen']>; currency: string; dig?: (text: string) => void }) {
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
function Countries({ place, text }: { place: Place; text: string }) {
  const [open, setOpen] = useState(localStorage.getItem('countries') === 'open')
  const views = useQuery({
    queryKey: ['term', 'countries', place.market.id, text.toLowerCase()],
    queryFn: () => ask(api.GET('/api/markets/{marketId}/countries', { params: { path: { marketId: place.market.id }, query: { text } } })),
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
              <tr key={c.marketId} className={c.marketId === place.market.id ? 'font-semibold' : ''}>
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

function Figures({ numbers, norm, currency }: { numbers: Measured; norm: Norm | undefined; currency: string }) {
  const { volume, competition, headroom } = numbers
  const ratio = volume && competition !== null ? Math.log10(volume / Math.max(1, competition)) : null
  return (
    <>
      <div className="sub">Numbers</div>
      <table className="plain">
        <tbody>
          <tr title="Competing listings compared with the terms on this market’s shelf, by thirds">
            <td>Competition</td>
            <td className="r">{numbers.band ?? noData}</td>
          </tr>
          <tr>
            <td className="whitespace-nowrap">Exact-title matches</td>
            <td className="r num">{full(numbers.titlesHolding)}</td>
          </tr>
          <tr>
            <td>Cost per click (CPC)</td>
            <td className="r num">{money(numbers.clickCost, currency)}</td>
          </tr>
          <tr>
            <td>
              Headroom <HelpLink to="headroom" about="headroom" />
            </td>
            <td className="r num">{fixed(headroom, 1)}</td>
          </tr>
        </tbody>
      </table>
      {norm?.lowTo !== null && norm?.lowTo !== undefined && (
        <p className="quiet text-[12.5px] mt-1">
          Competition on this shelf: low up to {compact(norm.lowTo)} listings, medium up to {compact(norm.mediumTo)}.
        </p>
      )}
      <details className="text-[13px] mt-1" data-testid="headroom">
        <summary className="link w-fit">How this is worked out</summary>
        {headroom === null || ratio === null || norm?.centre === null || norm === undefined ? (
          <p className="quiet mt-1">Headroom needs searches, competing listings and a shelf to compare with. One of these has no data.</p>
        ) : (
          <p className="quiet mt-1">
            log10(searches ÷ competing listings) = log10({full(volume)} ÷ {full(Math.max(1, competition ?? 1))}) ={' '}
            <b className="num">{fixed(ratio, 2)}</b>. Typical for the {full(norm.readings)} terms on this shelf:{' '}
            <b className="num">{fixed(norm.centre, 2)}</b>. 50 + 25 × ({fixed(ratio, 2)} − {fixed(norm.centre, 2)}), limited to 0–100, is{' '}
            <b className="num">{fixed(Math.min(100, Math.max(0, 50 + 25 * (ratio - norm.centre))), 1)}</b>; times{' '}
            {fixed(1 - Math.exp(-(volume ?? 0) / 200), 3)}, because few searches are weak evidence:{' '}
            <b className="num">{fixed(headroom, 1)}</b>.
          </p>
        )}
      </details>
    </>
  )
}

function Readings({ place, view, correct }: { place: Place; view: TermView; correct: () => void }) {
  const { numbers } = view
  const use = useReadings(place)
  return (
    <div className="quiet text-[12.5px] mt-3">
      {numbers.source
        ? `Source: ${numbers.source}, ${place.market.platformName}, ${place.market.countryName}, ${numbers.takenAt ? dateOf(numbers.takenAt) : ''}. `
        : `No data for ${place.market.platformName}, ${place.market.countryName}. `}
      <button type="button" className="link" onClick={correct}>
        Correct <Key of="correct" />
      </button>
      {view.readings.length > 1 && (
        <details>
          <summary className="link w-fit">{counted(view.readings.length - 1, 'other reading')}</summary>
          <table className="plain" data-testid="readings">
            <tbody>
              {view.readings.slice(1).map((r) => (
                <tr key={r.id}>
                  <td>
                    {r.source}, {dateOf(r.takenAt)}
                  </td>
                  <td className="r">
                    <Num value={r.volume} unit="searches/mo" /> / <Num value={r.competition} unit="competing listings" />
                  </td>
                  <td className="r">
                    <button type="button" className="link" onClick={() => use.again(r.id, view.text)}>
                      Use
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
    </div>
  )
}

/** Corrects readings, and goes back to earlier ones. */
function useReadings(place: Place) {
  const cache = useQueryClient()
  const marketId = place.market.id
  const after = () => refreshNumbers(cache)
  const again = async (readingId: number, text: string) => {
    try {
      await ask(api.POST('/api/markets/{marketId}/readings/{readingId}/use', { params: { path: { marketId, readingId } } }))
      await after()
      toast(messages.otherReading(text))
    } catch (e) {
      toast((e as Error).message)
    }
  }
  const correct = async (text: string, values: Record<'volume' | 'competition' | 'titlesHolding' | 'clickCost', number | null>) => {
    const before = cache.getQueryData<TermView>(['term', marketId, text.toLowerCase()])?.readings.find((r) => r.counts)
    await ask(api.POST('/api/markets/{marketId}/correct', { params: { path: { marketId } }, body: { text, ...values } }))
    await after()
    toast(messages.corrected(text), before ? () => again(before.id, text) : undefined)
  }
  return { again, correct }
}

function Correct({ place, text, numbers, done }: { place: Place; text: string; numbers: Measured; done: () => void }) {
  const { correct } = useReadings(place)
  const [error, setError] = useState('')
  const form = useRef<HTMLFormElement>(null)
  const fields = [
    ['volume', 'Searches/mo', numbers.volume],
    ['competition', 'Competing listings', numbers.competition],
    ['titlesHolding', 'Exact-title matches', numbers.titlesHolding],
    ['clickCost', 'Cost per click (CPC)', numbers.clickCost],
  ] as const
  const save = async () => {
    const data = new FormData(form.current as HTMLFormElement)
    const value = (key: string) => {
      const typed = String(data.get(key) ?? '')
        .replaceAll(',', '')
        .trim()
      return typed === '' ? null : Number(typed)
    }
    const values = {
      volume: value('volume'),
      competition: value('competition'),
      titlesHolding: value('titlesHolding'),
      clickCost: value('clickCost'),
    }
    const wrong = fields.find(([key]) => Number.isNaN(values[key] as number))
    if (wrong) return setError(messages.enterNumber(wrong[1]))
    try {
      await correct(text, values)
      done()
    } catch (e) {
      setError((e as Error).message)
    }
  }
  return (
    <form
      ref={form}
      className="my-2 p-2 rounded border border-(--tin-2) bg-(--paper)"
      data-testid="correct"
      onSubmit={(e) => {
        e.preventDefault()
        save()
      }}
      onKeyDown={(e) => e.key === 'Escape' && done()}
    >
      {fields.map(([key, name, value], i) => (
        <label key={key} className="flex justify-between text-[13.5px] py-0.5">
          {name}
          <input
            autoFocus={i === 0}
            name={key}
            className="inline-input num w-24 text-right"
            placeholder="no data"
            defaultValue={value ?? ''}
          />
        </label>
      ))}
      {error && (
        <p className="text-accent text-[13px]" role="alert">
          {error}
        </p>
      )}
      <p className="flex gap-2 mt-1.5">
        <button type="submit" className="btn btn-xs btn-primary">
          Save <kbd className="!text-inherit !bg-transparent">Enter</kbd>
        </button>
        <button type="button" className="btn btn-xs" onClick={done}>
          Cancel <kbd>Esc</kbd>
        </button>
      </p>
    </form>
  )
}
