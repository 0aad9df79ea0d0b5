import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { api, ask, type HeadroomSteps, type Measured, type Norm, type TermView } from './api'
import { useChanges } from './changes'
import { HelpLink } from './helplink'
import { Key } from './key'
import { messages } from './messages'
import { Num } from './num'
import { compact, counted, dateOf, fixed, full, money, noData } from './numbers'
import { refresh } from './queries'
import type { Desk } from './shop'
import { toast } from './toast'

const supplies = { competition: 'competing listings', exactTitles: 'exact-title matches' } as const

const earnings = [
  ['clicks', 'Clicks'],
  ['orders', 'Orders'],
  ['sales', 'Sales'],
] as const

export function Figures(p: {
  desk: Desk
  numbers: Measured
  norm: Norm | undefined
  steps: HeadroomSteps | null | undefined
  currency: string
}) {
  const { desk, numbers, norm, steps, currency } = p
  const { volume, headroom } = numbers
  const chosen = norm?.supply ?? 'competition'
  const supplied = chosen === 'exactTitles' ? numbers.titlesHolding : numbers.competition
  const { run } = useChanges()
  const choose = (supply: keyof typeof supplies) =>
    run(() => ask(api.PUT('/api/markets/{marketId}/supply', { params: { path: { marketId: desk.market.id } }, body: { supply } })))
  return (
    <>
      <div className="sub">Numbers</div>
      <table className="plain">
        <tbody>
          <tr title={`${supplies[chosen]} compared with the terms on this market’s shelf, by thirds`}>
            <td>Competition</td>
            <td className="r">{numbers.band ?? noData}</td>
          </tr>
          <tr>
            <td className="whitespace-nowrap">Exact-title matches</td>
            <td className="r num">{full(numbers.titlesHolding)}</td>
          </tr>
          {numbers.popularity !== null && (
            <tr>
              <td title="Its rank among the terms that are searched for there">Popularity rank</td>
              <td className="r num">{full(numbers.popularity)}</td>
            </tr>
          )}
          {earnings
            .filter(([key]) => numbers[key] !== null && numbers[key] !== undefined)
            .map(([key, name]) => (
              <tr key={key} title="Of your own listings after a search for it, in the time that the imported file covers">
                <td>{name}</td>
                <td className="r num">{key === 'sales' ? money(numbers[key], currency) : full(numbers[key])}</td>
              </tr>
            ))}
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
          Competition on this shelf: low up to {compact(norm.lowTo)} {supplies[chosen]}, medium up to {compact(norm.mediumTo)}.
        </p>
      )}
      <details className="text-[13px] mt-1" data-testid="headroom">
        <summary className="link w-fit">How this is worked out</summary>
        {!steps || !norm ? (
          <p className="quiet mt-1">Headroom needs searches, {supplies[chosen]} and a shelf to compare with. One of these has no data.</p>
        ) : (
          <p className="quiet mt-1">
            log10(searches ÷ {supplies[chosen]}) = log10({full(volume)} ÷ {full(Math.max(1, supplied ?? 1))}) ={' '}
            <b className="num">{fixed(steps.ratio, 2)}</b>. Typical for the {full(norm.readings)} terms on this shelf:{' '}
            <b className="num">{fixed(steps.centre, 2)}</b>. 50 + 25 × ({fixed(steps.ratio, 2)} − {fixed(steps.centre, 2)}), limited to
            0–100, is <b className="num">{fixed(steps.position, 1)}</b>; times {fixed(steps.evidence, 3)}, because few searches are weak
            evidence: <b className="num">{fixed(headroom, 1)}</b>.
          </p>
        )}
        <label className="quiet flex gap-2 items-baseline mt-1">
          Supply in this market:
          <select
            className="select select-xs w-44"
            aria-label="Supply in this market"
            value={chosen}
            onChange={(e) => choose(e.target.value as keyof typeof supplies)}
          >
            {Object.entries(supplies).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        </label>
      </details>
    </>
  )
}

/** What stays of an earlier reading is named with where it came from. */
const keptNames: Record<TermView['numbers']['kept'][number]['field'], string> = {
  volume: 'Searches',
  competition: 'Competing listings',
  titlesHolding: 'Titles that hold it',
  clickCost: 'CPC',
  popularity: 'Popularity rank',
  clicks: 'Clicks',
  orders: 'Orders',
  sales: 'Sales',
  months: 'Searches by month',
}

export function Readings({ desk, view, correct }: { desk: Desk; view: TermView; correct: () => void }) {
  const { numbers } = view
  const use = useReadings(desk)
  return (
    <div className="quiet text-[12.5px] mt-3">
      {numbers.source
        ? `Source: ${numbers.source}, ${desk.market.platformName}, ${desk.market.countryName}, ${numbers.takenAt ? dateOf(numbers.takenAt) : ''}. `
        : `No data for ${desk.market.platformName}, ${desk.market.countryName}. `}
      {numbers.kept.map((k) => `${keptNames[k.field]} from ${k.source}, ${dateOf(k.takenAt)}. `).join('')}
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
function useReadings(desk: Desk) {
  const cache = useQueryClient()
  const marketId = desk.market.id
  const after = () => refresh(cache, 'numbers')
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

export function Correct({ desk, text, numbers, done }: { desk: Desk; text: string; numbers: Measured; done: () => void }) {
  const { correct } = useReadings(desk)
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
