import { useQuery } from '@tanstack/react-query'
import { useCallback, useDeferredValue, useMemo, useState } from 'react'
import { useAddress } from '../kit/address'
import { api, ask } from '../kit/api'
import { DaysChart, type DaysLine, type Pin } from '../kit/dayschart'
import { openDoor } from '../kit/door/open'
import { Key } from '../kit/key'
import { Num } from '../kit/num'
import { counted, dayName, full, percent } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import { useShortcuts } from '../kit/shortcuts'
import { Table } from '../kit/table'
import { ViewFrame } from '../kit/viewframe'
import { chosenTerms, columnsOf, dateOfDay, linesOf, type Measure, measures, summaryOf } from './daylines'
import type { ViewProps } from './frame'
import { measureName } from './names'
import { TermChoice } from './termchoice'
import { useNotes } from './usenotes'

const Height = 250
const Narrowest = 7

/** Views, clicks, sales and ranks by day, with the changes as pins. */
export function DaysView({ desk, watch, head }: ViewProps) {
  const [params, set] = useAddress()
  const path = { id: desk.listingId }
  const query = useQuery({
    queryKey: queryKey('history', desk.listingId, desk.market.id),
    queryFn: () => ask(api.GET('/api/listings/{id}/history', { params: { path, query: { marketId: desk.market.id } } })),
  })
  const notes = useNotes(desk, false)
  const data = query.data
  const { nights } = watch
  const measure = measures.find((m) => m === params.get('measure')) ?? 'views'
  const name = (m: Measure) => (m === 'firstPages' ? 'First pages' : m === 'ranks' ? 'Ranks' : measureName(m, watch.nights))
  const days = data?.days ?? 0
  const [range, setRange] = useState<[number, number] | null>(null)
  const shown: [number, number] = range ?? [0, Math.max(0, days - 1)]
  const [on, setOn] = useState<number | null>(null)
  // The last day that is over: today's figures come tomorrow.
  const lastKnown = data
    ? Math.max(
        data.views.findLastIndex((v) => v !== null),
        0,
      ) || days - 1
    : 0
  const at = Math.min(Math.max(0, days - 1), on ?? lastKnown)
  const terms = data?.terms ?? []
  const named = params.get('terms')
  const chosen = useMemo(() => chosenTerms(data?.terms ?? [], named), [data, named])
  const title = name(measure)
  const lines = useMemo<DaysLine[]>(() => (data ? linesOf(data, measure, chosen, title) : []), [data, measure, chosen, title])
  const pins = useMemo<(Pin & { id: number })[]>(
    () =>
      data?.from
        ? (notes.query.data?.notes ?? [])
            .map((n) => ({
              id: n.id,
              day: Math.floor((Date.parse(n.at) - Date.parse(`${data.from}T00:00:00Z`)) / 86_400_000),
              text: n.text,
            }))
            .filter((n) => n.day >= 0 && n.day < days)
            .sort((a, b) => a.day - b.day)
        : [],
    [data?.from, days, notes.query.data],
  )
  const show = (first: number, last: number) => {
    const wide = Math.min(days - 1, Math.max(Narrowest, last - first))
    const start = Math.min(Math.max(0, first), Math.max(0, days - 1 - wide))
    setRange(wide >= days - 1 ? null : [start, start + wide])
  }
  const wide = shown[1] - shown[0]
  const goTo = (day: number) => {
    const to = Math.min(days - 1, Math.max(0, day))
    setOn(to)
    if (to < shown[0]) show(to, to + wide)
    else if (to > shown[1]) show(to - wide, to)
  }
  useShortcuts({
    nextMeasure: () => set({ measure: measures[(measures.indexOf(measure) + 1) % measures.length] }),
    dayBefore: () => goTo(at - 1),
    dayAfter: () => goTo(at + 1),
    panBack: () => show(shown[0] - Math.ceil(wide / 4), shown[1] - Math.ceil(wide / 4)),
    panOn: () => show(shown[0] + Math.ceil(wide / 4), shown[1] + Math.ceil(wide / 4)),
    zoomIn: () => show(Math.round(at - wide / 4), Math.round(at + wide / 4)),
    zoomOut: () => show(Math.round(at - wide), Math.round(at + wide)),
    zoomAll: () => setRange(null),
    nextPin: () => goTo(pins.find((p) => p.day > at)?.day ?? at),
    previousPin: () => goTo(pins.findLast((p) => p.day < at)?.day ?? at),
  })
  const [first, to] = shown
  // The chart moves at once; the table follows when there is time.
  const [tableFirst, tableLast] = [useDeferredValue(first), useDeferredValue(to)]
  const rows = useMemo(
    () => Array.from({ length: tableLast - tableFirst + 1 }, (_, i) => tableLast - i).filter((d) => d >= 0 && d < days),
    [tableFirst, tableLast, days],
  )
  const columns = useMemo(() => (data?.from ? columnsOf(data, chosen, pins, nights) : []), [data, chosen, pins, nights])
  const choose = useCallback((ids: number[]) => set({ measure: 'ranks', terms: ids.join('-') || '0' }), [set])
  const top = (
    <>
      {data?.from && <h1 className="text-[20px] font-bold leading-tight mb-2">{summaryOf(data, measure, name(measure), chosen)}</h1>}
      <div className="flex flex-wrap gap-1 items-center mb-1" role="group" aria-label="Measure">
        {measures.map((m) => (
          <button key={m} type="button" className="choice" aria-pressed={m === measure} onClick={() => set({ measure: m })}>
            {name(m)}
          </button>
        ))}
        <Key of="nextMeasure" />
        <span className="ml-auto flex gap-2 items-center">
          <button type="button" className="pill" onClick={() => openDoor()}>
            Import figures <Key of="door" />
          </button>
          {days > 0 && (
            <a className="pill" href={`/api/listings/${desk.listingId}/figures/export.csv?marketId=${desk.market.id}`}>
              Export
            </a>
          )}
        </span>
      </div>
      {data?.from ? (
        <>
          <DaysChart
            name={`${name(measure)} by day, from ${dayName(dateOfDay(data.from, shown[0]))} to ${dayName(dateOfDay(data.from, shown[1]))}. The table below has every number.`}
            from={data.from}
            days={days}
            lines={lines}
            pins={pins}
            range={shown}
            onRange={([a, b]) => show(a, b)}
            at={at}
            onAt={setOn}
            isRank={measure === 'ranks'}
            height={Height}
          />
          <p className="quiet text-[13px]">
            Drag to zoom. <kbd>←</kbd> <kbd>→</kbd> day, <kbd>+</kbd> <kbd>−</kbd> zoom, <kbd>Shift ←</kbd> <kbd>Shift →</kbd> move,{' '}
            <Key of="zoomAll" /> all, <kbd>,</kbd> <kbd>.</kbd> changes
            {measure === 'ranks' && '. Gaps: not found'}
          </p>
        </>
      ) : (
        <p className="quiet text-[14px] py-8" role={query.isError ? 'alert' : undefined}>
          {query.isPending
            ? 'Loading…'
            : query.isError
              ? query.error.message
              : watch.isConnected
                ? 'Nothing is known of any day yet. After the listing is sent, its figures and ranks are collected once a day; import a file with the columns date, views, clicks and sales for the days before.'
                : 'Nothing is known of any day yet. Paste or drop the statistics that your marketplace shows (V): days with views, clicks and sales, of one listing or of several.'}
        </p>
      )}
    </>
  )
  const notesOfDay = data?.from
    ? (notes.query.data?.notes ?? []).filter((n) => n.at.slice(0, 10) === dateOfDay(data.from as string, at))
    : []
  const side = data?.from && (
    <>
      <section aria-live="polite" data-testid="read-out">
        <h3 className="!mt-0">{dayName(dateOfDay(data.from, at))}</h3>
        <table className="plain text-[14px]">
          <tbody>
            {(['views', 'clicks', 'sales'] as const).map((m) => (
              <tr key={m}>
                <td>{name(m)}</td>
                <td className="text-right">
                  <Num value={data[m][at]} unit={name(m).toLowerCase()} shown={data[m][at] === null ? undefined : full(data[m][at])} />
                </td>
              </tr>
            ))}
            <tr>
              <td>Terms on the first page</td>
              <td className="text-right num">{percent(data.firstPages[at])}</td>
            </tr>
          </tbody>
        </table>
        {notesOfDay.map((n) => (
          <p key={n.id} className="text-[14px] mt-1">
            <span className="mark">{pins.findIndex((pin) => pin.id === n.id) + 1}</span> {n.text}{' '}
            <button type="button" className="link" onClick={() => set({ view: 'notes', at: String(n.id) })}>
              Did it help?
            </button>
          </p>
        ))}
      </section>
      <TermChoice terms={terms} chosen={chosen} at={at} choose={choose} />
      {data.sources.length > 0 && (
        <p className="quiet text-[13px] mt-3">
          Figures from {data.sources.join(', ')}. {counted(days, 'day')}.
        </p>
      )}
    </>
  )
  const table = useMemo(
    () => (
      <Table
        name="Figures by day"
        rows={rows}
        columns={columns}
        id={String}
        at={rows.indexOf(at)}
        rowHeight={28}
        onAt={(_, d) => d !== undefined && setOn(d)}
        empty=""
      />
    ),
    [rows, columns, at],
  )
  return (
    <ViewFrame name="days" head={head} top={top} side={side}>
      {table}
    </ViewFrame>
  )
}
