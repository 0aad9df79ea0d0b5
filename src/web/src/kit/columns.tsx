import type { Measured } from './api'
import { HeadroomBar } from './charts'
import { Num } from './num'
import { compact } from './numbers'
import type { Column } from './table'

type Numbered = { numbers: Measured }

/** Searches a month. */
export const volumeColumn: Column<Numbered> = {
  key: 'volume',
  head: 'Searches/mo',
  title: 'Searches per month in this market',
  width: '86px',
  right: true,
  value: (r) => r.numbers.volume,
  cell: (r) => <Num value={r.numbers.volume} unit="searches/mo" />,
}

/** Competing listings with their band. */
export const competitionColumn: Column<Numbered> = {
  key: 'competition',
  head: 'Competing',
  title: 'Competing listings; low, medium or high compared with the terms on this market’s shelf',
  width: '104px',
  narrow: false,
  right: true,
  value: (r) => r.numbers.competition,
  cell: (r) =>
    r.numbers.competition === null ? (
      <Num value={null} />
    ) : (
      <>
        <span className="quiet text-[12px]">{r.numbers.band} </span>
        <Num value={r.numbers.competition} unit="competing listings" shown={compact(r.numbers.competition)} />
      </>
    ),
}

/** Demand against supply. */
export const headroomColumn: Column<Numbered> = {
  key: 'headroom',
  head: 'Headroom',
  title: 'Demand compared with supply, 0–100; 50 is typical for this market',
  width: '92px',
  narrow: false,
  right: true,
  value: (r) => r.numbers.headroom,
  cell: (r) => <HeadroomBar value={r.numbers.headroom} />,
}

/** A mark behind a term whose numbers look wrong, with the reasons. */
export function DoubtMark({ numbers }: Numbered) {
  if (numbers.doubts.length === 0) return null
  return (
    <span className="doubt" title={numbers.doubts.map((d) => d.why).join(' ')}>
      check numbers
    </span>
  )
}
