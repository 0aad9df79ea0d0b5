import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type Listing, type PickWeight, type Weighing } from '../kit/api'
import { listingDraft, useDraftView } from '../kit/drafts/drafts'
import { useSteps } from '../kit/drafts/steps'
import { HelpLink } from '../kit/helplink'
import { Num } from '../kit/num'
import { counted, full, gripOf, withoutData } from '../kit/numbers'
import { OpenListing } from '../kit/openlisting'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { keysOf, useShortcuts } from '../kit/shortcuts'
import { type Column, type Sort, sortRows, Table } from '../kit/table'
import { gradeWords, Legend, TermGaps, Thread } from '../kit/thread'
import { isHeadline, useWeighing, weighKey } from '../kit/weighing'
import { GripBar } from './gripbar'
import { Moves } from './moves'
import { Trace } from './trace'

/** Reach and grip explained: picks × fields as threads, and how each figure is worked out. */
export function Weigh({ desk }: { desk: Desk }) {
  return <OpenListing desk={desk}>{(listing) => <Scores key={listing.id} desk={desk} saved={listing} />}</OpenListing>
}

function Scores({ desk, saved }: { desk: Desk; saved: Listing }) {
  const [params, set] = useAddress()
  const cache = useQueryClient()
  const weighing = useWeighing(desk)
  const [draft] = useState(() => listingDraft(saved.id, saved.copy, saved.revision))
  const saving = useDraftView(draft)
  const steps = useSteps(draft)
  useShortcuts({ undo: steps.undoLast, movesPanel: () => set({ side: 'moves' }), pickPanel: () => set({ side: 'pick' }) })
  const copy = saving.value
  const listing = useMemo(() => ({ ...saved, copy: copy as Listing['copy'] }), [saved, copy])
  // A move changes the text: the scores are asked for again.
  const weighed = useRef(copy)
  useEffect(() => {
    if (weighed.current === copy) return
    weighed.current = copy
    cache.invalidateQueries({ queryKey: weighKey(desk) })
  }, [cache, copy, desk])
  const columns = useMemo(() => (weighing ? columnsOf(weighing, listing) : []), [weighing, listing])
  const required = useQuery({
    queryKey: queryKey('check', desk.listingId, desk.market.id, copy),
    placeholderData: (before) => before,
    queryFn: () =>
      ask(
        api.POST('/api/listings/{id}/check', {
          params: { path: { id: desk.listingId } },
          body: { marketId: desk.market.id, fields: copy },
        }),
      ),
  }).data?.findings.filter((f) => f.level === 'must' && !f.aside).length
  if (!weighing) return <main />
  const sort: Sort = params.get('sort')
    ? { key: params.get('sort') as string, down: params.get('dir') !== 'up' }
    : { key: 'lost', down: true }
  const rows = sortRows(weighing.terms, columns, sort)
  const at = rows.some((r) => r.key === params.get('at')) ? (params.get('at') as string) : rows[0]?.key
  const term = rows.find((r) => r.key === at)
  const side = params.get('side') ?? (params.get('at') ? 'pick' : 'moves')
  const known = weighing.totalVolume > 0
  const { sums } = weighing
  const big = isHeadline(weighing, required) ? 'big' : 'big less'
  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr) 372px' }}>
      <section
        className="sheet !overflow-hidden grid"
        style={{ gridTemplateRows: known ? 'auto auto auto minmax(0,1fr)' : 'auto auto minmax(0,1fr)' }}
      >
        <div className="grid grid-cols-2 gap-6 mb-2 max-w-[860px]">
          {required !== undefined && required > 0 && (
            <p className="publish col-span-2 !mb-0">
              <Link className="text-accent" to={`${desk.base}/write?side=findings`}>
                {counted(required, 'required fix', 'required fixes')}
              </Link>
            </p>
          )}
          <div>
            <div className="flex items-baseline gap-3">
              <span className={big} data-testid="reach">
                {known ? (
                  <>
                    {Math.round(weighing.reach)}
                    <span className="text-[24px]">%</span>
                  </>
                ) : (
                  <span className="text-[20px]">No data</span>
                )}
              </span>
              <span className="head font-semibold text-[16px]">Reach</span>
              <HelpLink to="reach" about="reach" />
            </div>
            <p className="quiet text-[13.5px] mt-1">
              The share of your picks’ searches that can find this listing: {weighing.eligible} of {counted(weighing.picks, 'pick')},{' '}
              {full(weighing.volume)} of {full(weighing.totalVolume)} searches/mo{withoutData(weighing.unknownVolume)}. Weighted by fit:{' '}
              {full(sums.eligibleDemand)} ÷ {full(sums.demand)}.
            </p>
          </div>
          <div>
            <div className="flex items-baseline gap-3">
              <span className={big} data-testid="grip">
                {known ? Math.round(weighing.grip) : <span className="text-[20px]">No data</span>}
              </span>
              <span className="head font-semibold text-[16px]">Grip</span>
              <HelpLink to="grip" about="grip" />
            </div>
            <p className="quiet text-[13.5px] mt-1">
              0–100: how firmly the listing holds them. Exact phrases, important fields and early words count more. Worth held:{' '}
              {full(sums.gripped)} ÷ {full(sums.worth)}.
            </p>
          </div>
        </div>
        {known && <GripBar weighing={weighing} listing={listing} />}
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
          onSort={(s) => set({ sort: s?.key ?? null, dir: s && !s.down ? 'up' : null })}
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
      </section>
      <aside className="side !overflow-hidden grid" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }}>
        <nav className="side-tabs" aria-label="Panels">
          {(
            [
              ['moves', 'Moves', 'movesPanel'],
              ['pick', 'Pick', 'pickPanel'],
            ] as const
          ).map(([key, name, id]) => (
            <button key={key} type="button" title={keysOf(id)[0]} aria-pressed={side === key} onClick={() => set({ side: key })}>
              {name}
            </button>
          ))}
        </nav>
        {side === 'moves' ? (
          <Moves desk={desk} listing={listing} saving={saving} steps={steps} />
        ) : (
          <div className="side-part">{term && <Trace term={term} weighing={weighing} listing={listing} desk={desk} />}</div>
        )}
      </aside>
    </main>
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
      title: 'Worth × (100 − grip) ÷ 100: what the listing could still gain',
      width: '94px',
      right: true,
      value: lost,
      cell: (t) => <Num value={lost(t)} unit="searches/mo × fit × (0.5 + headroom ÷ 200)" />,
    },
  ]
}
