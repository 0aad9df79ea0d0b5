import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type Copy, type Grade, type Listing, type PickWeight, type Span, type Weighing } from '../kit/api'
import { unsavedCopy } from '../kit/drafts/drafts'
import { HelpLink } from '../kit/helplink'
import { Num } from '../kit/num'
import { counted, fixed, full, gripOf, upTo, withoutData } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { type Column, type Sort, sortRows, Table } from '../kit/table'
import { foldInWords, gradeWords, Legend, TermGaps, Thread } from '../kit/thread'
import { isHeadline, useWeighing } from '../kit/weighing'

/** Reach and grip explained: picks × fields as threads, and how each figure is worked out. */
export function Weigh({ desk }: { desk: Desk }) {
  const [params, set] = useAddress()
  const weighing = useWeighing(desk)
  const draft = unsavedCopy(desk.listingId)
  const saved = useQuery({
    queryKey: queryKey('listing', desk.listingId),
    queryFn: () => ask(api.GET('/api/listings/{id}', { params: { path: { id: desk.listingId } } })),
  }).data
  const listing = useMemo(() => saved && { ...saved, copy: (draft ?? saved.copy) as Listing['copy'] }, [saved, draft])
  const columns = useMemo(() => (weighing && listing ? columnsOf(weighing, listing) : []), [weighing, listing])
  const required = useQuery({
    queryKey: queryKey('check', desk.listingId, desk.market.id, listing?.copy),
    enabled: listing !== undefined,
    queryFn: () =>
      ask(
        api.POST('/api/listings/{id}/check', {
          params: { path: { id: desk.listingId } },
          body: { marketId: desk.market.id, fields: listing?.copy ?? null },
        }),
      ),
  }).data?.findings.filter((f) => f.level === 'must' && !f.aside).length
  if (!weighing || !listing) return <main />
  const sort: Sort = params.get('sort')
    ? { key: params.get('sort') as string, down: params.get('dir') !== 'up' }
    : { key: 'lost', down: true }
  const rows = sortRows(weighing.terms, columns, sort)
  const at = rows.some((r) => r.key === params.get('at')) ? (params.get('at') as string) : rows[0]?.key
  const term = rows.find((r) => r.key === at)
  const known = weighing.totalVolume > 0
  const { sums } = weighing
  const big = isHeadline(weighing, required) ? 'big' : 'big less'
  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr) 372px' }}>
      <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto minmax(0,1fr)' }}>
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
          onAt={(_, t) => set({ at: t?.key ?? null })}
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
      <aside className="side">{term && <Trace term={term} weighing={weighing} listing={listing} desk={desk} />}</aside>
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

/** One pick's figures, with the factors and sums that the engine used. */
function Trace({ term, weighing, listing, desk }: { term: PickWeight; weighing: Weighing; listing: Listing; desk: Desk }) {
  const label = (key: string) => listing.fields.find((f) => f.key === key)?.label ?? key
  const why = useQuery({
    queryKey: queryKey('weigh', 'explain', desk.listingId, desk.market.id, term.key, listing.copy),
    queryFn: () =>
      ask(
        api.POST('/api/listings/{id}/weigh/explain', {
          params: { path: { id: desk.listingId } },
          body: { marketId: desk.market.id, key: term.key, fields: listing.copy },
        }),
      ),
    placeholderData: (before) => before,
  }).data
  return (
    <div data-testid="trace">
      <h3>{term.text}</h3>
      <p className="inline-flex items-center gap-3 text-[14px]">
        <Thread grade={term.grade} /> {gradeWords[term.grade]}
      </p>
      {term.grade === 'missing' && (
        <p className="text-[14px] my-2">
          {term.missing.length > 0 ? (
            <>
              In no searched field:{' '}
              {term.missing.map((w) => (
                <span key={w} className="gap-word mr-1">
                  {w}
                </span>
              ))}
            </>
          ) : term.apart ? (
            `All its words are there, but in different fields, and ${listing.platformName} doesn’t combine fields.`
          ) : (
            'It has only words that this search ignores, and the exact phrase isn’t there.'
          )}
        </p>
      )}
      {term.near.map((n) => (
        <p key={`${n.needs} ${n.has} ${n.fold}`} className="text-[14px] my-1">
          The listing has “{n.has}” and needs “{n.needs}”: {listing.platformName}’s search doesn’t treat {foldInWords(n.fold)} as equal.
        </p>
      ))}
      {why?.key === term.key && (
        <>
          <div className="sub">
            Grip {upTo(why.grip, 1)} <HelpLink to="grip" about="grip" />
          </div>
          {why.spreadFactor !== null && why.spreadMean !== null ? (
            <p className="quiet text-[13.5px]">
              {why.spreadFactor} × {upTo(why.spreadMean, 3)}, the average over its words of the highest weight among fields with the word, ×
              100.
            </p>
          ) : why.fields.length === 0 ? (
            <p className="quiet text-[13.5px]">No field contains it.</p>
          ) : (
            <>
              <table className="plain">
                <thead>
                  <tr>
                    <th>Field</th>
                    <th className="r">Weight × match × position</th>
                    <th className="r">Strength</th>
                  </tr>
                </thead>
                <tbody>
                  {why.fields.map((f) => (
                    <tr key={f.field}>
                      <td title={gradeWords[f.grade]}>{label(f.field)}</td>
                      <td
                        className="r num text-[12.5px]"
                        title={f.token === null ? undefined : `Starts at word ${f.token + 1} of ${f.tokens}`}
                      >
                        {upTo(f.weight, 3)} × {upTo(f.factor, 3)} × {upTo(f.front, 3)}
                      </td>
                      <td className="r num">{fixed(f.strength, 3)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
              <p className="quiet text-[13px] mt-1 num">(1 − {why.fields.map((f) => `(1 − ${fixed(f.strength, 3)})`).join(' × ')}) × 100</p>
            </>
          )}
          <div className="sub">
            Worth {why.worth === null ? '' : full(why.worth)} <HelpLink to="grip" about="worth" />
          </div>
          <p className="quiet text-[13.5px]">
            {why.volume === null
              ? 'No search data, so it counts as 0 in the sums.'
              : `${full(why.volume)} searches/mo × fit ${term.fit} ${why.fitWeight} × (0.5 + headroom ${upTo(why.headroomUsed, 1)}${term.headroom === null ? ' (no data: 50)' : ''} ÷ 200)`}
          </p>
        </>
      )}
      {term.spans.length > 0 && <div className="sub">Where it appears</div>}
      {[...Map.groupBy(term.spans, (s) => `${s.field}/${s.item}`)].map(([key, spans]) => (
        <Excerpt key={key} spans={spans} listing={listing} grade={term.grades[weighing.fields.indexOf(spans[0].field)]} all={term.grade} />
      ))}
      <p className="mt-4">
        <Link className="pill" to={`${desk.base}/write?at=${encodeURIComponent(term.key)}`}>
          Show in Write
        </Link>
      </p>
    </div>
  )
}

function textOf(copy: Copy, span: Span): string {
  const value = copy[span.field]
  if (typeof value === 'string') return value
  if (Array.isArray(value)) return value[span.item] ?? value.join(' ')
  return Object.values(value ?? {}).flat()[span.item] ?? ''
}

function Excerpt({ spans, listing, grade, all }: { spans: Span[]; listing: Listing; grade: Grade; all: Grade }) {
  const text = textOf(listing.copy, spans[0])
  const from = Math.max(0, spans[0].start - 30)
  const to = Math.min(text.length, spans[spans.length - 1].start + spans[spans.length - 1].length + 30)
  const parts: React.ReactNode[] = []
  let at = from
  for (const s of spans) {
    parts.push(text.slice(at, s.start))
    parts.push(
      <span key={s.start} className={grade === 'missing' ? all : grade}>
        {text.slice(s.start, s.start + s.length)}
      </span>,
    )
    at = s.start + s.length
  }
  parts.push(text.slice(at, to))
  return (
    <p className="text-[14px] leading-loose">
      <span className="quiet text-[12.5px] mr-2">
        {listing.fields.find((f) => f.key === spans[0].field)?.label}
        {Array.isArray(listing.copy[spans[0].field]) ? ` ${spans[0].item + 1}` : ''}
      </span>
      <span className="under !text-inherit">
        {from > 0 && '…'}
        {parts}
        {to < text.length && '…'}
      </span>
    </p>
  )
}
