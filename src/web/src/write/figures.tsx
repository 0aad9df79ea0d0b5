import { memo, useMemo } from 'react'
import { Link } from 'react-router'
import type { PickWeight, Weighed, Weighing } from '../kit/api'
import { countedBy, wholePercent } from '../kit/demand'
import { HelpLink } from '../kit/helplink'
import { Num } from '../kit/num'
import { counted, full } from '../kit/numbers'
import type { Desk } from '../kit/shop'
import { type Column, Table } from '../kit/table'
import { Legend, TermGaps, Thread } from '../kit/thread'
import { isHeadline } from '../kit/weighing'

/** Whether the listing can be published; then reach and grip. */
export const Figures = memo(function Figures({
  desk,
  began,
  weighing,
  required,
  show,
}: {
  desk: Desk
  began: Weighed | null
  weighing: Weighing | undefined
  /** How many required findings there are; null while that is not known. */
  required: number | null
  show: () => void
}) {
  const known = weighing !== undefined && weighing.picks > 0
  const big = weighing && isHeadline(weighing, required) ? 'big' : 'big less'
  return (
    <div className="mb-2">
      <p className="publish" data-testid="publishable" role="status">
        {required === null ? (
          <span className="quiet">Checking…</span>
        ) : required === 0 ? (
          'Ready to publish'
        ) : (
          <button type="button" className="text-accent cursor-pointer" onClick={show}>
            {counted(required, 'required fix', 'required fixes')}
          </button>
        )}
      </p>
      <div className="grid grid-cols-2 gap-3">
        <div>
          <div className={big} data-testid="reach">
            {known ? (
              <>
                {wholePercent(weighing.reach)}
                <span className="text-[0.55em]">%</span>
              </>
            ) : (
              <span className="text-[16px]">No picks</span>
            )}
          </div>
          <p className="quiet text-[13px] mt-1 leading-snug">
            <b className="text-base-content">Reach.</b> {weighing?.eligible ?? 0} of {counted(weighing?.picks ?? 0, 'pick')}
            {known && weighing.basis !== 'counted' && `; ${full(weighing.volume)} of ${full(weighing.totalVolume)} searches/mo`}.{' '}
            {weighing && <span data-testid="counted-by">{countedBy(weighing)}</span>}
            <HelpLink to="reach" about="reach" />
          </p>
        </div>
        <div>
          <div className={big} data-testid="grip">
            {known ? Math.round(weighing.grip) : <span className="text-[16px]">No picks</span>}
          </div>
          <p className="quiet text-[13px] mt-1 leading-snug">
            <b className="text-base-content">Grip</b>, 0–100: how firmly the listing holds them. {since(began, weighing)}{' '}
            <Link className="link" to={`${desk.base}/weigh`}>
              How this is worked out
            </Link>
          </p>
        </div>
      </div>
    </div>
  )
})

/** Every pick with what it lacks. */
export const Held = memo(function Held({
  desk,
  weighing,
  pointed,
  point,
}: {
  desk: Desk
  weighing: Weighing | undefined
  pointed: string | undefined
  point: (key: string | null) => void
}) {
  const terms = useMemo(
    () => [...(weighing?.terms ?? [])].sort((a, b) => firmness(a) - firmness(b) || (b.worth ?? -1) - (a.worth ?? -1)),
    [weighing],
  )
  if (weighing?.picks === 0)
    return (
      <p className="quiet">
        No picks yet. Search for terms in{' '}
        <Link className="link" to={`${desk.base}/dig`}>
          Dig
        </Link>{' '}
        and pick some; each appears here with its thread and the words it lacks.
      </p>
    )
  return (
    <div className="grid min-h-0 backed" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }}>
      <Legend />
      <Table
        name="Picks and what they lack"
        rows={terms}
        columns={columns}
        id={(t) => t.key}
        at={terms.findIndex((t) => t.key === pointed)}
        rowHeight={33}
        onAt={(_, t) => point(!t || t.key === pointed ? null : t.key)}
        empty=""
      />
    </div>
  )
})

const firm = { missing: 0, spread: 1, together: 2, inflected: 3, whole: 4 }

const firmness = (t: PickWeight) => firm[t.grade]

function since(began: Weighed | null, now: Weighed | undefined) {
  if (!began || !now) return ''
  const by = Math.round((now.grip - began.grip) * 10) / 10
  return by === 0 ? '' : `${by > 0 ? '+' : '−'}${Math.abs(by)} since you opened it.`
}

const columns: Column<PickWeight>[] = [
  { key: 'thread', head: <span className="sr-only">Thread</span>, width: '40px', cell: (t) => <Thread grade={t.grade} /> },
  {
    key: 'text',
    head: <b className="font-medium">Picks, weakest first</b>,
    width: 'minmax(0,1fr)',
    cell: (t) => <TermGaps term={t} />,
  },
  {
    key: 'volume',
    head: 'Searches/mo',
    width: '84px',
    right: true,
    cell: (t) => <Num value={t.volume} unit="searches/mo" />,
  },
]
