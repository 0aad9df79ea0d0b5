import type { Measured } from './api'
import { HeadroomBar } from './charts'
import { compact, full } from './numbers'
import type { Column } from './table'
import { sentence } from './words'

type Numbered = { numbers: Measured }

/** Searches a month. */
export const volumeColumn: Column<Numbered> = {
  key: 'volume',
  head: 'a month',
  title: 'Searches a month in this market',
  width: '64px',
  right: true,
  value: (r) => r.numbers.volume,
  cell: (r) => (
    <span className="num text-[13px]" title={full(r.numbers.volume)}>
      {compact(r.numbers.volume)}
    </span>
  ),
}

/** Competing listings with their band. */
export const competitionColumn: Column<Numbered> = {
  key: 'competition',
  head: 'listings',
  title: 'Competing listings, and the third of this market’s shelf they fall in',
  width: '102px',
  right: true,
  value: (r) => r.numbers.competition,
  cell: (r) => (
    <span title={full(r.numbers.competition)}>
      <span className="quiet text-[12px]">{r.numbers.band} </span>
      <span className="num text-[13px]">{compact(r.numbers.competition)}</span>
    </span>
  ),
}

/** Demand against supply. */
export const headroomColumn: Column<Numbered> = {
  key: 'headroom',
  head: 'headroom',
  title: 'Demand against supply, 0 to 100; 50 is typical for this market',
  width: '84px',
  right: true,
  value: (r) => r.numbers.headroom,
  cell: (r) => <HeadroomBar value={r.numbers.headroom} />,
}

/** A mark behind a term whose numbers do not sit with their neighbours, with the reasons. */
export function DoubtMark({ numbers }: Numbered) {
  if (numbers.doubts.length === 0) return null
  return (
    <span className="doubt" title={numbers.doubts.map((d) => sentence(d.why)).join(' ')}>
      does not sit
    </span>
  )
}
