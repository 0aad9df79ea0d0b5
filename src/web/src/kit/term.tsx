import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type ReactNode, useRef, useState } from 'react'
import { api, ask, type Measured, type Norm, type TermView } from './api'
import { Year } from './charts'
import { useKeys } from './keys'
import { compact, fixed, full, monthName } from './numbers'
import type { Place } from './shop'
import { toast } from './toast'
import { sentence, useSettled } from './words'

const shapeWords = {
  sparse: 'Too few searches to have a year',
  'one-off': 'A one-off: one short burst that no other year has',
  seasonal: 'Seasonal',
  rising: 'Rising',
  fading: 'Fading',
  steady: 'Steady all year',
}

/** Everything known of one term in one market, each figure opened to what made it. */
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
  useKeys({ c: () => setCorrecting(text) })
  return (
    <div data-testid="detail">
      <h3>{text}</h3>
      <p className="quiet text-[13.5px]">
        {volume === null ? 'Searches unknown' : `${full(volume)} searches a month`},{' '}
        {competition === null ? 'listings unknown' : `${full(competition)} listings`}.{' '}
        {view?.year && (
          <span title={view.year.howSure} data-testid="shape">
            {shapeWords[view.year.shape]}
            {view.year.shape === 'seasonal' &&
              `, highest in ${monthName(view.year.peakMonths[0] - 1)}${view.year.peakMonths.length > 1 ? ` to ${monthName(view.year.peakMonths[view.year.peakMonths.length - 1] - 1)}` : ''}`}
            {(view.year.shape === 'rising' || view.year.shape === 'fading') &&
              `, ${view.year.change12 > 0 ? 'up' : 'down'} ${Math.abs(view.year.change12).toFixed(0)}% in twelve months`}
            .{view.year.readyBy && <b className="text-base-content"> Ready by {day(view.year.readyBy)}.</b>}
          </span>
        )}
      </p>
      {actions}
      {numbers.doubts.length > 0 && (
        <div className="doubts" data-testid="doubts">
          <b>Does not sit with its neighbours:</b> {numbers.doubts.map((d) => sentence(d.why)).join(' ')}{' '}
          <button type="button" className="link" onClick={() => setCorrecting(text)}>
            Correct it <kbd>C</kbd>
          </button>
        </div>
      )}
      {correcting === text && <Correct place={place} text={text} numbers={numbers} done={() => setCorrecting(null)} />}
      {numbers.months && numbers.from && (
        <div className="mt-3">
          <Year months={numbers.months} from={numbers.from} />
          {view?.year && (
            <details className="text-[13px]">
              <summary className="link w-fit">What named the year</summary>
              <p className="quiet mt-1">
                {view.year.howSure}{' '}
                {view.year.seasonalStrength !== null &&
                  `The season explains ${(view.year.seasonalStrength * 100).toFixed(0)}% of what moves (60 needed). `}
                Along its trend it changes {view.year.change12.toFixed(0)}% in twelve months (25 needed), p{' '}
                {view.year.p < 0.001 ? '< 0.001' : view.year.p.toFixed(3)}.
              </p>
            </details>
          )}
        </div>
      )}
      {view && view.family.length > 1 && <FamilyBars view={view} here={text} dig={dig} />}
      {view?.seen && <Seen seen={view.seen} dig={dig} />}
      <Countries key={text} place={place} text={text} />
      <Figures numbers={numbers} norm={view?.norm ?? norm} />
      {view && <Readings place={place} view={view} correct={() => setCorrecting(text)} />}
    </div>
  )
}

const day = (date: string) => `${Number(date.slice(8))} ${monthName(Number(date.slice(5, 7)) - 1)}`

function FamilyBars({ view, here, dig }: { view: TermView; here: string; dig?: (text: string) => void }) {
  const top = Math.max(1, ...view.family.map((f) => f.volume ?? 0))
  return (
    <>
      <div
        className="sub"
        title="Its spellings and forms: singular and plural, one word or two, regional spellings, ways to write a number"
      >
        Its family, by what people type
      </div>
      <div className="family" data-testid="family">
        {view.family.slice(0, 8).map((f) => (
          <div key={f.key} className="contents">
            <button
              type="button"
              className={`text-left truncate cursor-pointer hover:underline ${f.text.toLowerCase() === here.toLowerCase() ? 'font-semibold' : ''}`}
              title={`Look up “${f.text}”`}
              onClick={() => dig?.(f.text)}
            >
              {f.text}
            </button>
            <span className={`bar ${f.strongest ? 'top' : ''}`} style={{ width: `${((f.volume ?? 0) / top) * 100}%` }} />
            <span className="num text-[12.5px] text-right" title={full(f.volume)}>
              {compact(f.volume)}
              {f.strongest && <span className="sr-only"> the strongest</span>}
            </span>
          </div>
        ))}
      </div>
    </>
  )
}

function Seen({ seen, dig }: { seen: NonNullable<TermView['seen']>; dig?: (text: string) => void }) {
  const [low, lower, , upper, high] = seen.prices.map((p) => p.toFixed(0))
  return (
    <>
      <div className="sub">What a shopper sees</div>
      {seen.looked === 0 ? (
        <p className="quiet text-[13.5px]">No listing is found.</p>
      ) : (
        <div data-testid="seen">
          <p className="quiet text-[13.5px]">
            {full(seen.found)} found; of the first {seen.looked}, {low} to {high} with shipping, half between {lower} and {upper};{' '}
            {Math.round(seen.shippingIncluded * 100)}% ship free; {seen.stars.toFixed(1)} stars over {full(Math.round(seen.ratings))}{' '}
            ratings at the middle; {seen.photos.toFixed(0)} photos each;{' '}
            {seen.sales !== null
              ? `${full(Math.round(seen.sales))} sales a month at the middle`
              : `${Math.round((seen.occupancy ?? 0) * 100)}% of nights taken`}
            .
          </p>
          <details className="text-[13px]">
            <summary className="link w-fit">The first {seen.first.length}, as a shopper has them: the same kind of thing?</summary>
            <ol className="mt-1">
              {seen.first.map((r, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: results are in the market's order
                <li key={i} className="border-b border-base-300 py-1">
                  {r.title}
                  <span className="quiet block num text-[12px]">
                    {r.price.toFixed(2)} {r.shipping > 0 ? `+ ${r.shipping.toFixed(2)}` : 'ships free'} · {r.rating.toFixed(1)} (
                    {compact(r.ratings)}) · {r.photos} photos
                  </span>
                </li>
              ))}
            </ol>
          </details>
          <div className="sub">Words of the first hundred</div>
          <p className="text-[13.5px] leading-relaxed">
            {seen.words.map((w, i) => (
              <span key={w.text}>
                {i > 0 && <span className="quiet"> · </span>}
                <button
                  type="button"
                  className="cursor-pointer hover:underline"
                  title={`Look up “${w.text}”`}
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
  const turn = () => {
    localStorage.setItem('countries', open ? '' : 'open')
    setOpen(!open)
  }
  return (
    <div className="mt-3">
      <button type="button" className="link text-[13.5px]" aria-expanded={open} onClick={turn}>
        {open ? '▾' : '▸'} In other countries, and on the web
      </button>
      {open && views && (
        <table className="plain" data-testid="countries">
          <thead>
            <tr>
              <th>where</th>
              <th className="r">a month</th>
              <th className="r" title="The form typed most there">
                typed there as
              </th>
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
                  className="r num"
                  title={`${full(c.own.volume)} searches a month, ${full(c.own.competition)} ${c.web ? 'pages' : 'listings'}`}
                >
                  {compact(c.own.volume)}
                </td>
                <td className="r">
                  {c.spelling === null ? (
                    <span className="quiet">nobody</span>
                  ) : (
                    <>
                      {c.spelling} <span className="num text-[12.5px]">{compact(c.best?.volume)}</span>
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

function Figures({ numbers, norm }: { numbers: Measured; norm: Norm | undefined }) {
  const { volume, competition, headroom } = numbers
  const ratio = volume && competition !== null ? Math.log10(volume / Math.max(1, competition)) : null
  return (
    <>
      <div className="sub">Numbers</div>
      <table className="plain">
        <tbody>
          <tr title="Competing listings against the market’s shelf, by thirds">
            <td>Competition</td>
            <td className="r">{numbers.band ?? 'unknown'}</td>
          </tr>
          <tr>
            <td className="whitespace-nowrap">Titles holding the phrase</td>
            <td className="r num">{full(numbers.titlesHolding)}</td>
          </tr>
          <tr>
            <td>Click cost</td>
            <td className="r num">{numbers.clickCost === null ? 'unknown' : numbers.clickCost.toFixed(2)}</td>
          </tr>
          <tr>
            <td>Headroom</td>
            <td className="r num">{fixed(headroom, 1)}</td>
          </tr>
        </tbody>
      </table>
      {norm?.lowTo !== null && norm?.lowTo !== undefined && (
        <p className="quiet text-[12.5px] mt-1">
          On this shelf, low competition goes to {compact(norm.lowTo)} listings, medium to {compact(norm.mediumTo)}.
        </p>
      )}
      <details className="text-[13px] mt-1" data-testid="headroom">
        <summary className="link w-fit">What made the headroom</summary>
        {headroom === null || ratio === null || norm?.centre === null || norm === undefined ? (
          <p className="quiet mt-1">It needs searches, listings and a shelf to compare with. Something of that is unknown here.</p>
        ) : (
          <p className="quiet mt-1">
            Searches ÷ listings is {full(volume)} ÷ {full(Math.max(1, competition ?? 1))}, its log10{' '}
            <b className="num">{ratio.toFixed(2)}</b>. Typical on this shelf of {full(norm.readings)} terms:{' '}
            <b className="num">{norm.centre.toFixed(2)}</b>. 50 + 25 × ({ratio.toFixed(2)} − {norm.centre.toFixed(2)}), kept within 0 and
            100, gives <b className="num">{Math.min(100, Math.max(0, 50 + 25 * (ratio - norm.centre))).toFixed(1)}</b>; times{' '}
            {(1 - Math.exp(-(volume ?? 0) / 200)).toFixed(3)}, because few searches prove little:{' '}
            <b className="num">{headroom.toFixed(1)}</b>.
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
        ? `${place.market.platformName}, ${place.market.countryName}: ${numbers.source}, ${numbers.takenAt?.slice(0, 10)}. ${numbers.source === 'stand-in market' ? 'Simulated. ' : ''}`
        : `Nobody has measured it in ${place.market.platformName}, ${place.market.countryName}. `}
      <button type="button" className="link" onClick={correct}>
        Correct <kbd>C</kbd>
      </button>
      {view.readings.length > 1 && (
        <details>
          <summary className="link w-fit">{view.readings.length - 1} older, kept</summary>
          <table className="plain" data-testid="readings">
            <tbody>
              {view.readings.slice(1).map((r) => (
                <tr key={r.id}>
                  <td>
                    {r.source}, {r.takenAt.slice(0, 10)}
                  </td>
                  <td className="r num" title={`${full(r.volume)} searches a month, ${full(r.competition)} listings`}>
                    {compact(r.volume)} / {compact(r.competition)}
                  </td>
                  <td className="r">
                    <button type="button" className="link" onClick={() => use.again(r.id, view.text)}>
                      Use it
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

/** Puts readings right, and back. */
function useReadings(place: Place) {
  const cache = useQueryClient()
  const marketId = place.market.id
  const after = () =>
    Promise.all(['term', 'shelf', 'dig', 'picks', 'weigh', 'grid'].map((key) => cache.invalidateQueries({ queryKey: [key] })))
  const again = async (readingId: number, text: string) => {
    try {
      await ask(api.POST('/api/markets/{marketId}/readings/{readingId}/use', { params: { path: { marketId, readingId } } }))
      await after()
      toast(`The other reading of “${text}” counts now; both are kept`)
    } catch (e) {
      toast((e as Error).message)
    }
  }
  const correct = async (text: string, values: Record<'volume' | 'competition' | 'titlesHolding' | 'clickCost', number | null>) => {
    const before = cache.getQueryData<TermView>(['term', marketId, text.toLowerCase()])?.readings.find((r) => r.counts)
    await ask(api.POST('/api/markets/{marketId}/correct', { params: { path: { marketId } }, body: { text, ...values } }))
    await after()
    toast(`“${text}” corrected by hand; the old reading is kept`, before ? () => again(before.id, text) : undefined)
  }
  return { again, correct }
}

function Correct({ place, text, numbers, done }: { place: Place; text: string; numbers: Measured; done: () => void }) {
  const { correct } = useReadings(place)
  const [error, setError] = useState('')
  const form = useRef<HTMLFormElement>(null)
  const fields = [
    ['volume', 'Searches a month', numbers.volume],
    ['competition', 'Listings', numbers.competition],
    ['titlesHolding', 'Titles holding it', numbers.titlesHolding],
    ['clickCost', 'Click cost', numbers.clickCost],
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
    if (wrong) return setError(`${wrong[1]}: this is a number, or nothing where it is unknown.`)
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
            placeholder="unknown"
            defaultValue={value ?? ''}
          />
        </label>
      ))}
      {error && <p className="text-accent text-[13px]">{error}</p>}
      <p className="flex gap-2 mt-1.5">
        <button type="submit" className="btn btn-xs btn-primary">
          Keep <kbd className="!text-inherit !bg-transparent">Enter</kbd>
        </button>
        <button type="button" className="btn btn-xs" onClick={done}>
          Leave it <kbd>Esc</kbd>
        </button>
      </p>
    </form>
  )
}
