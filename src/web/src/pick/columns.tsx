import { counted, full } from '../kit/numbers'
import type { Column } from '../kit/table'
import { DoubtMark } from '../kit/terms/columns'
import { Thread } from '../kit/thread'
import { claimText, type Row } from './rows'

/** What the table of picks has by itself. */
export const own: Column<Row>[] = [
  {
    key: 'grade',
    head: <span className="sr-only">Thread</span>,
    title: 'How firmly the listing holds it',
    width: '40px',
    cell: (r) => (r.home === 'avoid' ? null : <Thread grade={r.weight?.grade} width={36} />),
  },
  {
    key: 'text',
    head: 'Pick',
    width: 'minmax(160px,1fr)',
    narrow: 'minmax(0,1fr)',
    words: true,
    value: (r) => r.text,
    cell: (r) => (
      <span title={r.note || r.text} className={`flex items-baseline min-w-0 ${r.under ? 'pl-4' : ''}`}>
        <span className="truncate shrink-0 max-w-[calc(100%-2.6rem)]">{r.text}</span>
        {r.members.length > 1 && (
          <span className="quiet text-[12px] ml-2" title={r.members.map((m) => `${m.text}: ${full(m.numbers.volume)}`).join('\n')}>
            ▸ {counted(r.members.length, 'variant')}
          </span>
        )}
        {r.lead && <span className="mark ml-2 shrink-0">lead</span>}
        {r.language && <span className="quiet text-[12px] ml-2">{r.language}</span>}
        {r.claims.length > 0 && r.home !== 'avoid' && (
          <span className="doubt truncate" title={claimText(r)}>
            not in facts: {r.claims.map((c) => c.word).join(', ')}
          </span>
        )}
        {r.avoidedFor && (
          <span className="text-accent text-[12px] ml-2" title={r.avoidedFor}>
            on the avoid list
          </span>
        )}
        <DoubtMark numbers={r.numbers} />
        {r.note && <span className="quiet text-[12px] ml-2">{r.note}</span>}
      </span>
    ),
  },
]

export const usual = ['fit', 'home', 'volume', 'competition', 'headroom', 'grip', 'months']
