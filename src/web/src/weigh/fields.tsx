import { useMemo } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import type { Listing, Weighing } from '../kit/api'
import { Num } from '../kit/num'
import { usePicks } from '../kit/picks'
import type { Desk } from '../kit/shop'
import { sortChanges, sortIn } from '../kit/sort'
import type { Column } from '../kit/table'
import { type TermLine, weighedLines } from '../kit/terms/line'
import { sortTerms, TermTable, useTermColumns } from '../kit/terms/termtable'
import { gradeWords, Legend, TermGaps, Thread } from '../kit/thread'

/** The picks in the order of the table, and the one that one is on. */
export function usePickRows(desk: Desk, weighing: Weighing | undefined, listing: Listing) {
  const [params] = useAddress()
  const picks = usePicks(desk).data?.picks
  const fields = weighing?.fields
  // The title always has its column; another field where it holds a pick.
  const shown = fields?.filter((_, i) => holds(weighing, i)).join(' ') ?? ''
  const usual = useMemo(() => [...shown.split(' ').map((f) => `f-${f}`), 'volume', 'grip'], [shown])
  const columns = useTermColumns<TermLine>({ desk, table: `fields ${listing.platformId}`, own, usual, last, fields })
  const sort = sortIn(params, { key: 'lost', down: true })
  const lines = useMemo(() => weighedLines(weighing?.terms, picks, listing.leadKey), [weighing, picks, listing.leadKey])
  const rows = sortTerms(lines, columns, sort)
  const at = rows.some((r) => r.key === params.get('at')) ? (params.get('at') as string) : rows[0]?.key
  return { columns, sort, rows, at, term: rows.find((r) => r.key === at)?.weight }
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
      <TermTable
        desk={desk}
        name="Picks by field"
        rows={rows}
        columns={columns}
        source="Weigh"
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
const holds = (weighing: Weighing | undefined, i: number) => i === 0 || !!weighing?.terms.some((t) => t.strengths[i] > 0)

const lost = ({ weight: t }: TermLine) => (!t || t.worth === null ? null : t.worth * (1 - t.grip))

const own: Column<TermLine>[] = [
  {
    key: 'text',
    head: 'Pick',
    width: 'minmax(170px,1fr)',
    words: true,
    value: (t) => t.text,
    cell: (t) => t.weight && <TermGaps term={t.weight} />,
  },
  {
    key: 'all',
    head: 'Listing',
    title: 'How firmly the listing as a whole holds it',
    width: '58px',
    text: (t) => (t.weight ? gradeWords[t.weight.grade] : ''),
    cell: (t) => <Thread grade={t.weight?.grade} />,
  },
]

const last: Column<TermLine>[] = [
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
