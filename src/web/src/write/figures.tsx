import { memo, useMemo } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import type { Field, PickWeight, Weighed, Weighing } from '../kit/api'
import { countedBy, wholePercent } from '../kit/demand'
import { HelpLink } from '../kit/helplink'
import { counted, full, gripOf } from '../kit/numbers'
import { PickBox } from '../kit/pickbox'
import { usePicks } from '../kit/picks'
import type { Desk } from '../kit/shop'
import { sortChanges, sortIn } from '../kit/sort'
import type { Column } from '../kit/table'
import { type TermLine, weighedLines } from '../kit/terms/line'
import { sortTerms, TermTable, useTermColumns } from '../kit/terms/termtable'
import { gradeWords, Legend, TermGaps, Thread } from '../kit/thread'
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
          <>
            Ready to publish
            {known && weighing.eligible < weighing.picks && (
              <span className="block quiet font-sans font-normal text-[13px]" data-testid="lost">
                Published now, it can be found for {full(weighing.eligible)} of {counted(weighing.picks, 'pick')}: the others lack a word.
              </span>
            )}
          </>
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

/** Every pick with what it lacks, in any order, and how the field that one is in holds it. */
export const Held = memo(function Held(p: {
  desk: Desk
  weighing: Weighing | undefined
  leadKey: string | null
  fields: Field[]
  /** The field that one is in, or was in last. */
  here: Field | undefined
  pointed: string | undefined
  point: (key: string | null) => void
}) {
  const { desk, weighing, here, pointed, point } = p
  const [params, set] = useAddress()
  const sort = useMemo(() => sortIn(params), [params])
  const unsorted = sort === null
  const label = here?.label ?? ''
  const place = here && weighing ? weighing.fields.indexOf(here.key) : -1
  const picks = usePicks(desk).data?.picks
  const own = useMemo(() => columnsOf(place, label, unsorted), [place, label, unsorted])
  const columns = useTermColumns<TermLine>({ desk, table: 'write', own, usual, fields: weighing?.fields })
  const listed = params.get('terms')
  const terms = useMemo(() => {
    const only = listed === null ? null : new Set(listed.split('|'))
    const weakest = [...(weighing?.terms ?? [])].sort((a, b) => firmness(a) - firmness(b) || (b.worth ?? -1) - (a.worth ?? -1))
    const lines = weighedLines(weakest, picks, p.leadKey)
    return sortTerms(only ? lines.filter((l) => only.has(l.key)) : lines, columns, sort)
  }, [weighing, picks, p.leadKey, columns, sort, listed])
  const one = terms.find((t) => t.key === pointed)?.weight
  const box = <PickBox desk={desk} by="pickTermsHere" leadKey={p.leadKey} />
  if (weighing?.picks === 0)
    return (
      <div>
        {box}
        <p className="quiet">
          No picks yet. Type the terms that you want to be found for, or search for some in{' '}
          <Link className="link" to={`${desk.base}/dig`}>
            Dig
          </Link>
          . Each appears here with its thread and the words it lacks.
        </p>
      </div>
    )
  return (
    <div className="grid min-h-0 backed" style={{ gridTemplateRows: 'auto auto minmax(0,1fr) auto' }}>
      {box}
      {listed === null ? (
        <Legend />
      ) : (
        <p className="text-[13.5px] mb-1" data-testid="listed">
          {counted(terms.length, 'pick')} from the found check
          {listed.split('|').length > terms.length &&
            `; ${full(listed.split('|').length - terms.length)} more are not picked, saved for later or avoided`}
          .{' '}
          <button type="button" className="link" onClick={() => set({ terms: null })}>
            Show all picks
          </button>
        </p>
      )}
      <TermTable
        desk={desk}
        name="Picks and what they lack"
        rows={terms}
        columns={columns}
        source="Write"
        at={terms.findIndex((t) => t.key === pointed)}
        rowHeight={33}
        onAt={(_, t) => point(!t || t.key === pointed ? null : t.key)}
        sort={sort}
        onSort={(next) => set(sortChanges(next))}
        empty=""
      />
      {one && weighing ? (
        <div className="text-[13px] border-t border-base-300 pt-1.5 mt-1" data-testid="gives">
          <b className="font-semibold">{one.text}</b>: grip <span className="num">{Math.round(gripOf(one.grip) ?? 0)}</span>
          <span className="flex flex-wrap gap-x-4">
            {weighing.fields.map((key, i) =>
              one.grades[i] === 'missing' ? null : (
                <span key={key} className="inline-flex items-center gap-1.5">
                  {p.fields.find((f) => f.key === key)?.label ?? key}{' '}
                  <Thread grade={one.grades[i]} width={24} title={gradeWords[one.grades[i]]} />
                  <span className="num" title="Strength, 0–100">
                    {Math.round(one.strengths[i] * 100)}
                  </span>
                </span>
              ),
            )}
            {one.missing.length > 0 && <span className="quiet">missing: {one.missing.join(', ')}</span>}
            <Link className="link" to={`${desk.base}/weigh?pick=${encodeURIComponent(one.key)}`}>
              How this is worked out
            </Link>
          </span>
        </div>
      ) : (
        <span />
      )}
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

const columnsOf = (place: number, field: string, byFirmness: boolean): Column<TermLine>[] => [
  {
    key: 'thread',
    head: <span className="sr-only">Thread</span>,
    title: 'How firmly the listing holds it',
    width: '40px',
    text: (t) => (t.weight ? gradeWords[t.weight.grade] : ''),
    cell: (t) => <Thread grade={t.weight?.grade} />,
  },
  {
    key: 'text',
    head: <b className="font-medium">{byFirmness ? 'Picks, weakest first' : 'Picks'}</b>,
    width: 'minmax(0,1fr)',
    words: true,
    value: (t) => t.text,
    cell: (t) => t.weight && <TermGaps term={t.weight} />,
  },
  ...(place < 0
    ? []
    : [
        {
          key: 'here',
          head: field,
          title: `How firmly ${field} alone holds it`,
          width: '50px',
          value: (t: TermLine) => t.weight?.strengths[place],
          text: (t: TermLine) => (t.weight ? gradeWords[t.weight.grades[place]] : ''),
          cell: ({ weight: w }: TermLine) =>
            w && <Thread grade={w.grades[place]} width={34} title={`${field}: ${gradeWords[w.grades[place]]}`} />,
        },
      ]),
]

const usual = ['volume']
