import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type Copy, type Grade, type Listing, type PickWeight, type Span, type Weighing } from '../kit/api'
import { compact, full } from '../kit/numbers'
import { draftKey, type Place, useWeighing } from '../kit/shop'
import { type Column, type Sort, sortRows, Table } from '../kit/table'
import { foldInWords, gradeWords, Legend, TermGaps, Thread } from '../kit/thread'

/** Reach and grip, opened: terms × fields as threads, each figure traced to what made it. */
export function Weigh({ place }: { place: Place }) {
  const [params, set] = useAddress()
  const weighing = useWeighing(place)
  const draft = useQueryClient().getQueryData<Copy>(draftKey(place))
  const saved = useQuery({
    queryKey: ['listing', place.listingId],
    queryFn: () => ask(api.GET('/api/listings/{id}', { params: { path: { id: place.listingId } } })),
  }).data
  const listing = useMemo(() => saved && { ...saved, copy: (draft ?? saved.copy) as Listing['copy'] }, [saved, draft])
  const columns = useMemo(() => (weighing && listing ? columnsOf(weighing, listing) : []), [weighing, listing])
  if (!weighing || !listing) return <main />
  const sort: Sort = params.get('sort')
    ? { key: params.get('sort') as string, down: params.get('dir') !== 'up' }
    : { key: 'lost', down: true }
  const rows = sortRows(weighing.terms, columns, sort)
  const at = rows.some((r) => r.key === params.get('at')) ? (params.get('at') as string) : rows[0]?.key
  const term = rows.find((r) => r.key === at)
  const known = weighing.totalVolume > 0
  const demand = weighing.terms.reduce((s, t) => s + (t.demand ?? 0), 0)
  const held = weighing.terms.reduce((s, t) => s + (t.grade === 'missing' ? 0 : (t.demand ?? 0)), 0)
  const worth = weighing.terms.reduce((s, t) => s + (t.worth ?? 0), 0)
  const gripped = weighing.terms.reduce((s, t) => s + (t.worth ?? 0) * t.grip, 0)
  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr) 372px' }}>
      <section className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto minmax(0,1fr)' }}>
        <div className="grid grid-cols-2 gap-6 mb-2 max-w-[860px]">
          <div>
            <div className="flex items-baseline gap-3">
              <span className="big" data-testid="reach">
                {known ? Math.round(weighing.reach) : '–'}
                {known && <span className="text-[24px]">%</span>}
              </span>
              <span className="head font-semibold text-[16px]">Reach</span>
            </div>
            <p className="quiet text-[13.5px] mt-1">
              The share of your picks’ searches whose every word {listing.platformName} can find in this listing: {weighing.eligible} of{' '}
              {weighing.picks} picks, {full(weighing.volume)} of {full(weighing.totalVolume)} searches a month
              {weighing.unknownVolume > 0 ? `; ${weighing.unknownVolume} of unknown volume count as 0` : ''}.{' '}
              <span title="Σ volume × fit of the picks it holds ÷ Σ volume × fit of all picks">
                Weighed by fit: {full(Math.round(held))} ÷ {full(Math.round(demand))}.
              </span>
            </p>
          </div>
          <div>
            <div className="flex items-baseline gap-3">
              <span className="big" data-testid="grip">
                {known ? Math.round(weighing.grip) : '–'}
              </span>
              <span className="head font-semibold text-[16px]">Grip</span>
            </div>
            <p className="quiet text-[13.5px] mt-1">
              Out of 100: how firmly it holds them. Whole beats scattered, a heavy field beats a light one, the front beats the back.{' '}
              <span title="Σ worth × grip ÷ Σ worth">
                {full(Math.round(gripped))} ÷ {full(Math.round(worth))} of worth.
              </span>
            </p>
          </div>
        </div>
        <div className="mb-1">
          <Legend />
          {weighing.terms.length > 0 && weighing.fields.some((_, i) => !holds(weighing, i)) && (
            <p className="quiet text-[12.5px] mt-1">
              No pick is held in{' '}
              {weighing.fields
                .filter((_, i) => !holds(weighing, i))
                .map((key) => listing.fields.find((f) => f.key === key)?.label.toLowerCase())
                .join(', ')}
              .
            </p>
          )}
        </div>
        <Table
          name="Terms by fields"
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
              No picks to weigh it for.{' '}
              <Link className="link" to={`${place.base}/dig`}>
                Dig
              </Link>{' '}
              and pick the terms this product should be found for.
            </span>
          }
        />
      </section>
      <aside className="side">{term && <Trace term={term} weighing={weighing} listing={listing} place={place} />}</aside>
    </main>
  )
}

/** Whether a field holds any term: the title always has its column. */
const holds = (weighing: Weighing, i: number) => i === 0 || weighing.terms.some((t) => t.strengths[i] > 0)

const lost = (t: PickWeight) => (t.worth === null ? null : t.worth * (1 - t.grip))

function columnsOf(weighing: Weighing, listing: Listing): Column<PickWeight>[] {
  return [
    { key: 'text', head: 'Term', width: 'minmax(170px,1fr)', words: true, value: (t) => t.text, cell: (t) => <TermGaps term={t} /> },
    {
      key: 'all',
      head: 'listing',
      title: 'How firmly the listing as a whole holds it',
      width: '58px',
      cell: (t) => <Thread grade={t.grade} />,
    },
    ...weighing.fields.flatMap((key, i): Column<PickWeight>[] =>
      holds(weighing, i)
        ? [
            {
              key: `f-${key}`,
              head: listing.fields.find((f) => f.key === key)?.label ?? key,
              title: `Weight ${listing.fields.find((f) => f.key === key)?.weight}`,
              width: 'minmax(64px,96px)',
              value: (t) => t.strengths[i],
              cell: (t) =>
                t.grades[i] === 'missing' ? (
                  <span className="quiet">·</span>
                ) : (
                  <Thread grade={t.grades[i]} title={`${gradeWords[t.grades[i]]}: strength ${t.strengths[i].toFixed(2)}`} />
                ),
            },
          ]
        : [],
    ),
    {
      key: 'volume',
      head: 'a month',
      width: '58px',
      right: true,
      value: (t) => t.volume,
      cell: (t) => (
        <span className="num text-[13px]" title={full(t.volume)}>
          {compact(t.volume)}
        </span>
      ),
    },
    {
      key: 'grip',
      head: 'grip',
      width: '40px',
      right: true,
      value: (t) => t.grip,
      cell: (t) => <span className="num text-[13px]">{t.grip.toFixed(2)}</span>,
    },
    {
      key: 'lost',
      head: 'lost',
      title: 'Worth × (1 − grip): what firmer holding could still bring',
      width: '52px',
      right: true,
      value: lost,
      cell: (t) => (
        <span className="num text-[13px]" title={full(lost(t))}>
          {compact(lost(t))}
        </span>
      ),
    },
  ]
}

const factor: Record<Grade, number> = { whole: 1, inflected: 0.85, together: 0.6, spread: 0, missing: 0 }

/** One term's figure, traced to fields and words. */
function Trace({ term, weighing, listing, place }: { term: PickWeight; weighing: Weighing; listing: Listing; place: Place }) {
  const holding = weighing.fields
    .map((key, i) => ({ field: listing.fields.find((f) => f.key === key), grade: term.grades[i], strength: term.strengths[i] }))
    .filter((f) => f.strength > 0)
  const fit = { core: 1, good: 0.7, stretch: 0.4 }[term.fit]
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
              Nowhere in a searched field:{' '}
              {term.missing.map((w) => (
                <span key={w} className="gap-word mr-1">
                  {w}
                </span>
              ))}
            </>
          ) : term.apart ? (
            `All its words stand, but in different fields, and ${listing.platformName} does not combine them.`
          ) : (
            'Only words that this search ignores, and they do not stand as typed.'
          )}
        </p>
      )}
      {term.near.map((n) => (
        <p key={`${n.needs} ${n.has} ${n.fold}`} className="text-[14px] my-1">
          It has “{n.has}” and needs “{n.needs}”: {listing.platformName}’s search does not take {foldInWords(n.fold)} as the same.
        </p>
      ))}
      <div className="sub">Grip {term.grip.toFixed(3)}</div>
      {term.grade === 'spread' ? (
        <p className="quiet text-[13.5px]">
          0.35 × the mean over its words of the highest weight among fields holding the word, {(term.grip / 0.35).toFixed(3)}.
        </p>
      ) : holding.length === 0 ? (
        <p className="quiet text-[13.5px]">Nothing holds it, so 0.</p>
      ) : (
        <>
          <table className="plain">
            <thead>
              <tr>
                <th>Field</th>
                <th className="r">weight × grade × front</th>
                <th className="r">strength</th>
              </tr>
            </thead>
            <tbody>
              {holding.map(({ field, grade, strength }) => {
                const weight = field?.weight ?? 0
                const front = strength / (weight * factor[grade])
                // The best occurrence may be an inflected one further forward than a whole one.
                const [f, ahead] = grade === 'whole' && front < 0.7 ? [0.85, strength / (weight * 0.85)] : [factor[grade], front]
                return (
                  <tr key={field?.key}>
                    <td>{field?.label}</td>
                    <td className="r num text-[12.5px]">
                      {weight} × {f} × {ahead.toFixed(3).replace(/\.?0+$/, '')}
                    </td>
                    <td className="r num">{strength.toFixed(3)}</td>
                  </tr>
                )
              })}
            </tbody>
          </table>
          <p className="quiet text-[13px] mt-1 num">1 − {holding.map((h) => `(1 − ${h.strength.toFixed(3)})`).join(' × ')}</p>
        </>
      )}
      <div className="sub">Worth {term.worth === null ? 'unknown' : full(Math.round(term.worth))}</div>
      <p className="quiet text-[13.5px]">
        {term.volume === null
          ? 'Its searches are unknown, so it counts as 0 in the sums.'
          : `${full(term.volume)} searches × fit ${term.fit} ${fit} × (0.5 + headroom ${term.headroom === null ? '50 (unknown)' : term.headroom.toFixed(1)} ÷ 200)`}
      </p>
      {term.spans.length > 0 && <div className="sub">Where it stands</div>}
      {[...Map.groupBy(term.spans, (s) => `${s.field}/${s.item}`)].map(([key, spans]) => (
        <Excerpt key={key} spans={spans} listing={listing} grade={term.grades[weighing.fields.indexOf(spans[0].field)]} all={term.grade} />
      ))}
      <p className="mt-4">
        <Link className="pill" to={`${place.base}/write?at=${encodeURIComponent(term.key)}`}>
          Show it in Write
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
  const text = textOf(listing.copy as Copy, spans[0])
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
        {Array.isArray((listing.copy as Copy)[spans[0].field]) ? ` ${spans[0].item + 1}` : ''}
      </span>
      <span className="under !text-inherit">
        {from > 0 && '…'}
        {parts}
        {to < text.length && '…'}
      </span>
    </p>
  )
}
