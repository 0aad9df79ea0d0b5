import { useMemo } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import type { Listing, PickWeight, Weighing } from '../kit/api'
import { Num } from '../kit/num'
import { gripOf } from '../kit/numbers'
import type { Desk } from '../kit/shop'
import { sortChanges, sortIn } from '../kit/sort'
import { type Column, sortRows, Table } from '../kit/table'
import { gradeWords, Legend, TermGaps, Thread } from '../kit/thread'

/** The picks in the order of the table, and the one that one is on. */
export function usePickRows(weighing: Weighing | undefined, listing: Listing) {
  const [params] = useAddress()
  const columns = useMemo(() => (weighing ? columnsOf(weighing, listing) : []), [weighing, listing])
  const sort = sortIn(params, { key: 'lost', down: true })
  const rows = sortRows(weighing?.terms ?? [], columns, sort)
  const at = rows.some((r) => r.key === params.get('at')) ? (params.get('at') as string) : rows[0]?.key
  return { columns, sort, rows, at, term: rows.find((r) => r.key === at) }
}

/** Picks × fields as threads. */
export function PicksByField(p: { desk: Desk; weighing: Weighing; listing: Listing; picks: ReturnType<typeof usePickRows> }) {
  const [, set] = useAddress()
  const { desk, weighing, listing } = p
  const { rows, columns, sort, at } = p.picks
  return (
    <>
      <div className="mb-1">
        <Legend />
        {weighing.terms.length > 0 && weighing.fields.some((_, i) => !holds(weighing, i)) && (
          <p className="quiet text-[12.5px] mt-1">
            No match:{' '}
            {weighing.fields
              .filter((_, i) => !holds(weighing, i))
              .map((key) => listing.fields.find((f) => f.key === key)?.label.toLowerCase())
              .join(', ')}
            .
          </p>
        )}
      </div>
      <Table
        name="Picks by field"
        rows={rows}
        columns={columns}
        id={(t) => t.key}
        at={rows.findIndex((t) => t.key === at)}
        rowHeight={34}
        onAt={(_, t) => set({ at: t?.key ?? null, side: 'pick' })}
        sort={sort}
        onSort={(s) => set(sortChanges(s))}
        empty={
          <span className="quiet">
            No picks yet. Search for terms in{' '}
            <Link className="link" to={`${desk.base}/dig`}>
              Dig
            </Link>{' '}
            and pick those this product should be found for.
          </span>
        }
      />
    </>
  )
}

/** Whether a field holds any pick: the title always has its column. */
const holds = (weighing: Weighing, i: number) => i === 0 || weighing.terms.some((t) => t.strengths[i] > 0)

const lost = (t: PickWeight) => (t.worth === null ? null : t.worth * (1 - t.grip))

function columnsOf(weighing: Weighing, listing: Listing): Column<PickWeight>[] {
  const label = (key: string) => listing.fields.find((f) => f.key === key)?.label ?? key
  return [
    { key: 'text', head: 'Pick', width: 'minmax(170px,1fr)', words: true, value: (t) => t.text, cell: (t) => <TermGaps term={t} /> },
    {
      key: 'all',
      head: 'Listing',
      title: 'How firmly the listing as a whole holds it',
      width: '58px',
      cell: (t) => <Thread grade={t.grade} />,
    },
    ...weighing.fields.flatMap((key, i): Column<PickWeight>[] =>
      holds(weighing, i)
        ? [
            {
              key: `f-${key}`,
              head: label(key),
              title: `Weight ${listing.fields.find((f) => f.key === key)?.weight}`,
              // Wide enough for its heading.
              width: `minmax(${Math.max(64, label(key).length * 7 + 8)}px,0.3fr)`,
              value: (t) => t.strengths[i],
              cell: (t) =>
                t.grades[i] === 'missing' ? (
                  <span className="sr-only">No match</span>
                ) : (
                  <Thread grade={t.grades[i]} title={`${gradeWords[t.grades[i]]}, strength ${Math.round(t.strengths[i] * 100)}`} />
                ),
            },
          ]
        : [],
    ),
    {
      key: 'volume',
      head: 'Searches/mo',
      width: '86px',
      right: true,
      value: (t) => t.volume,
      cell: (t) => <Num value={t.volume} unit="searches/mo" />,
    },
    {
      key: 'grip',
      head: 'Grip',
      title: 'How firmly the listing holds it, 0–100',
      width: '44px',
      right: true,
      value: (t) => t.grip,
      cell: (t) => <Num value={gripOf(t.grip)} shown={`${Math.round(gripOf(t.grip) ?? 0)}`} unit="of 100" />,
    },
    {
      key: 'lost',
      head: 'Potential gain',
      title:
        'What the listing could still gain: the pick’s worth × (100 − grip) ÷ 100. Worth is demand × weight of fit × (0.5 + headroom ÷ 200).',
      width: '94px',
      right: true,
      value: lost,
      cell: (t) => <Num value={lost(t)} unit="of worth: demand × weight of fit × (0.5 + headroom ÷ 200)" />,
    },
  ]
}
