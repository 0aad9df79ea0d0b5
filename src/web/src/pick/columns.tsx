import { Silhouette } from '../kit/charts'
import { competitionColumn, DoubtMark, headroomColumn, volumeColumn } from '../kit/columns'
import { homeName } from '../kit/names'
import { Num } from '../kit/num'
import { counted, full, gripOf } from '../kit/numbers'
import type { Column } from '../kit/table'
import { Thread } from '../kit/thread'
import { claimText, fits, homes, type Row } from './rows'

export const columns: Column<Row>[] = [
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
      <span title={r.note} className={r.under ? 'pl-4' : ''}>
        {r.text}
        {r.members.length > 1 && (
          <span className="quiet text-[12px] ml-2" title={r.members.map((m) => `${m.text}: ${full(m.numbers.volume)}`).join('\n')}>
            ▸ {counted(r.members.length, 'variant')}
          </span>
        )}
        {r.lead && <span className="mark ml-2">lead</span>}
        {r.language && <span className="quiet text-[12px] ml-2">{r.language}</span>}
        {r.claims.length > 0 && r.home !== 'avoid' && (
          <span className="doubt" title={claimText(r)}>
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
  {
    key: 'fit',
    head: 'Fit',
    title: 'How true and central it is: core, good or stretch',
    width: '50px',
    narrow: false,
    words: true,
    value: (r) => fits.findIndex((f) => f[0] === r.fit),
    cell: (r) => <span className="text-[13px]">{r.fit}</span>,
  },
  {
    key: 'home',
    head: 'Home',
    title: 'Where to use it',
    width: '74px',
    narrow: false,
    words: true,
    value: (r) => homes.findIndex((h) => h[0] === r.home),
    cell: (r) => <span className={`text-[13px] ${r.home === 'anywhere' ? 'quiet' : ''}`}>{homeName[r.home]}</span>,
  },
  volumeColumn,
  competitionColumn,
  headroomColumn,
  {
    key: 'grip',
    head: 'Grip',
    title: 'How firmly the listing holds it, 0–100',
    width: '44px',
    right: true,
    value: (r) => r.weight?.grip,
    cell: (r) => <Num value={gripOf(r.weight?.grip)} shown={Math.round(gripOf(r.weight?.grip) ?? 0).toString()} unit="of 100" />,
  },
  { key: 'months', head: 'Trend', width: '84px', narrow: false, cell: (r) => <Silhouette months={r.numbers.months} width={84} /> },
]
