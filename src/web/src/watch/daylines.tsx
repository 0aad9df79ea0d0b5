import type { History } from '../kit/api'
import type { DaysLine, Pin } from '../kit/dayschart'
import { Num } from '../kit/num'
import { dayName, full, percent } from '../kit/numbers'
import type { Column } from '../kit/table'
import { measureName, signed } from './names'

/** What can be drawn by day. */
export const measures = ['views', 'clicks', 'sales', 'firstPages', 'ranks'] as const
export type Measure = (typeof measures)[number]

/** The day with so many days after the first. */
export const dateOfDay = (from: string, day: number) =>
  new Date(Date.parse(`${from}T00:00:00Z`) + day * 86_400_000).toISOString().slice(0, 10)

const Recent = 14

/** What the last two weeks say, against the two before. */
export function summaryOf(data: History, measure: Measure, name: string, chosen: number[]): string {
  if (measure === 'ranks') {
    const best = chosen
      .map((id) => data.terms.find((t) => t.id === id))
      .flatMap((t) => (t ? [{ text: t.text, rank: t.ranks.findLast((r) => r !== null) }] : []))
    return best.length === 0 ? 'Choose terms to draw' : best.map((t) => `${t.text}: ${t.rank ? full(t.rank) : 'not found'}`).join(' · ')
  }
  if (measure === 'firstPages') return `${percent(data.firstPages.findLast((s) => s !== null))} of the terms are on the first page`
  const known = data[measure].slice(0, data[measure].findLastIndex((v) => v !== null) + 1)
  const sum = (values: (number | null)[]) =>
    values.length < Recent || values.includes(null) ? null : values.reduce<number>((n, v) => n + (v ?? 0), 0)
  const [now, before] = [sum(known.slice(-Recent)), sum(known.slice(-2 * Recent, -Recent))]
  if (now === null) return `${name} by day`
  const moved = before ? `, ${signed((now / before - 1) * 100)} against the ${Recent} before` : ''
  return `${full(now)} ${name.toLowerCase()} in the last ${Recent} days${moved}`
}

/** The terms that the address names; otherwise those that are searched most of those that were found of late. */
export function chosenTerms(terms: History['terms'], named: string | null): number[] {
  if (named)
    return named
      .split('-')
      .map(Number)
      .filter((id) => terms.some((t) => t.id === id))
  const found = terms.filter((t) => t.ranks.slice(-Recent).some((r) => r))
  return (found.length > 0 ? found : terms).slice(0, 3).map((t) => t.id)
}

/** The lines of a measure. */
export function linesOf(data: History, measure: Measure, chosen: number[], name: string): DaysLine[] {
  if (measure === 'ranks')
    return chosen.flatMap((id) => {
      const term = data.terms.find((t) => t.id === id)
      return term ? [{ name: term.text, values: term.ranks.map((r) => (r ? r : null)) }] : []
    })
  return [{ name, values: measure === 'firstPages' ? data.firstPages.map((s) => (s === null ? null : s * 100)) : data[measure] }]
}

/** The columns of the table of days. */
export function columnsOf(data: History, chosen: number[], pins: (Pin & { id: number })[], nights: boolean): Column<number>[] {
  const from = data.from as string
  const count = (key: 'views' | 'clicks' | 'sales'): Column<number> => ({
    key,
    head: measureName(key, nights),
    width: '70px',
    right: true,
    cell: (d) => <Num value={data[key][d]} unit={key} shown={data[key][d] === null ? undefined : full(data[key][d])} />,
  })
  return [
    { key: 'day', head: 'Day', width: '118px', cell: (d) => dayName(dateOfDay(from, d)) },
    count('views'),
    count('clicks'),
    count('sales'),
    {
      key: 'first',
      head: 'First pages',
      width: '88px',
      right: true,
      cell: (d) => <span className="num">{percent(data.firstPages[d])}</span>,
    },
    ...chosen.slice(0, 3).flatMap((id): Column<number>[] => {
      const term = data.terms.find((t) => t.id === id)
      if (!term) return []
      return [
        {
          key: `t${id}`,
          head: term.text,
          title: `Rank for ${term.text}`,
          width: 'minmax(70px,110px)',
          right: true,
          cell: (d) => (term.ranks[d] === 0 ? <span className="quiet">Not found</span> : <Num value={term.ranks[d]} unit="rank" />),
        },
      ]
    }),
    {
      key: 'note',
      head: 'Change',
      width: 'minmax(110px,1fr)',
      cell: (d) =>
        pins
          .filter((p) => p.day === d)
          .map((p) => (
            <span key={p.id} className="block truncate" title={p.text}>
              {p.text}
            </span>
          )),
    },
  ]
}
