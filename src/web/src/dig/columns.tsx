import { Num } from '../kit/num'
import { compact, counted, fixed, noData, percent } from '../kit/numbers'
import type { Column } from '../kit/table'
import { DoubtMark } from '../kit/terms/columns'
import { likeness, type Row, saidBy } from './rows'

const termColumn: Column<Row> = {
  key: 'text',
  head: 'Term',
  width: 'minmax(140px,1fr)',
  narrow: 'minmax(0,1fr)',
  words: true,
  value: (r) => r.text,
  cell: (r) => (
    // biome-ignore lint/a11y/noStaticElementInteractions: what dragging to the pocket does, P does too
    <span draggable title={r.text} onDragStart={(e) => e.dataTransfer.setData('text/plain', r.text)}>
      {r.text}
      <DoubtMark numbers={r.numbers} />
    </span>
  ),
}

const fromColumn: Column<Row> = {
  key: 'from',
  head: 'From',
  title: 'Where the term comes from: its place among the search suggestions, how many of the top 100 sellers use it, or the shelf',
  width: '96px',
  narrow: false,
  words: true,
  value: (r) => r.typed,
  cell: (r) => (
    <span className="quiet text-[12px]" title={saidBy(r)}>
      {[
        r.typed ? `#${r.typed}` : null,
        r.related ? 'related search' : null,
        r.sellers ? counted(r.sellers.count, 'seller') : null,
        r.alike ? likeness[r.alike.likeness].short : null,
        r.mixed ? `combined` : null,
        !r.typed && !r.related && !r.sellers && !r.alike && !r.mixed ? (r.numbers.source ?? noData) : null,
      ]
        .filter(Boolean)
        .join(' · ')}
    </span>
  ),
}

const pickColumn: Column<Row> = {
  key: 'pick',
  head: '',
  width: '42px',
  cell: (r) => <span className="mark">{r.pick ? (r.pick.home === 'avoid' ? 'avoid' : 'picked') : ''}</span>,
}

const rankColumn: Column<Row> = {
  key: 'meanRank',
  head: 'Mean rank',
  title: 'Average rank of the listings that use it',
  width: '72px',
  narrow: false,
  right: true,
  value: (r) => r.sellers?.rank,
  cell: (r) => <Num value={r.sellers?.rank} shown={compact(r.sellers?.rank)} unit="on average" />,
}

/** What Dig’s table has by itself, what it shows of the terms’ numbers where nobody chose, and what comes last. */
type Kind = { table: string; own: Column<Row>[]; usual: string[]; last: Column<Row>[] }

export const everything: Kind = {
  table: 'dig',
  own: [termColumn, fromColumn],
  usual: ['volume', 'competition', 'headroom', 'months'],
  last: [pickColumn],
}

/** In a market of which only what the seller brought in is known: how many of the listings that were read use a term, and at which rank. */
export const recorded: Kind = {
  table: 'dig recorded',
  own: [termColumn, fromColumn],
  usual: ['volume', 'competition'],
  last: [
    {
      key: 'used',
      head: 'Sellers',
      title: 'How many of the listings that were read use it in their title or tags',
      width: '76px',
      narrow: false,
      right: true,
      value: (r) => r.sellers?.count,
      cell: (r) => <Num value={r.sellers?.count} shown={r.sellers ? `${r.sellers.count} of ${r.sellers.among}` : '–'} unit="listings" />,
    },
    rankColumn,
    pickColumn,
  ],
}

/** The same where a report says what the seller's own listings earned by terms. */
export const recordedWithEarnings: Kind = { ...recorded, usual: [...recorded.usual, 'clicks', 'orders'] }

export const usedBySellers: Kind = {
  table: 'dig sellers',
  own: [
    termColumn,
    {
      key: 'used',
      head: 'Sellers',
      title: 'How many of the top 100 sellers have it in their title or tags',
      width: '62px',
      narrow: false,
      right: true,
      value: (r) => r.sellers?.count,
      cell: (r) => <Num value={r.sellers?.count} unit="of the top 100 sellers" />,
    },
    {
      key: 'price',
      head: 'Avg price',
      title: 'Average price of the sellers who use it, in the market’s currency',
      width: '74px',
      narrow: false,
      right: true,
      value: (r) => r.sellers?.price,
      cell: (r) => <Num value={r.sellers?.price} shown={fixed(r.sellers?.price, 2)} />,
    },
    {
      key: 'ratings',
      head: 'Ratings',
      title: 'Average number of ratings of the sellers who use it',
      width: '62px',
      narrow: false,
      right: true,
      value: (r) => r.sellers?.ratings,
      cell: (r) => <Num value={r.sellers?.ratings} unit="ratings" />,
    },
    {
      key: 'sales',
      head: 'Sales/mo',
      title: 'Average sales per month of the sellers who use it; for stays, the share of nights booked',
      width: '70px',
      narrow: false,
      right: true,
      value: (r) => r.sellers?.sales ?? r.sellers?.occupancy,
      cell: (r) => (
        <Num
          value={r.sellers?.sales ?? r.sellers?.occupancy}
          shown={r.sellers?.occupancy ? percent(r.sellers.occupancy) : compact(r.sellers?.sales)}
        />
      ),
    },
  ],
  usual: ['volume', 'competition', 'headroom'],
  last: [pickColumn],
}
