import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { api, ask, type Copy, type Grade, type Listing, type PickWeight, type Span, type Weighing } from '../kit/api'
import { HelpLink } from '../kit/helplink'
import { fixed, full, upTo } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { foldInWords, gradeWords, Thread } from '../kit/thread'

/** One pick's figures, with the factors and sums that the engine used. */
export function Trace({ term, weighing, listing, desk }: { term: PickWeight; weighing: Weighing; listing: Listing; desk: Desk }) {
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
            Worth {upTo(why.worth, why.worth < 10 ? 2 : 0)} <HelpLink to="grip" about="worth" />
          </div>
          <p className="quiet text-[13.5px]">
            How much it counts in the grip of all picks: its searches, its fit, and how little competition it has.
          </p>
          <p className="quiet text-[13.5px]">
            {why.assumed !== null &&
              `No search data, so it counts as ${full(why.assumed)}${why.assumed === 1 ? ', like every pick' : ', a low number among your picks with data'}. `}
            {why.volume === null ? full(why.assumed) : `${full(why.volume)} searches/mo`} × fit {term.fit} {why.fitWeight} × (0.5 + headroom{' '}
            {upTo(why.headroomUsed, 1)}
            {term.headroom === null && ' (no data: 50)'} ÷ 200)
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
