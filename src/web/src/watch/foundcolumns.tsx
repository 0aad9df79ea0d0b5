import type { FoundTerm } from '../kit/api'
import { Num } from '../kit/num'
import { full } from '../kit/numbers'
import type { Column } from '../kit/table'
import type { TermLine } from '../kit/terms/line'

const place = (t: { found: boolean | null; rank: number | null } | null) =>
  t === null || t.found === null ? null : !t.found ? Number.POSITIVE_INFINITY : t.rank

/** A term that was checked, as a row. */
export type FoundLine = TermLine & { seen: FoundTerm }

export const own: Column<FoundLine>[] = [
  {
    key: 'term',
    head: 'Term',
    width: 'minmax(140px,1fr)',
    narrow: 'minmax(0,1fr)',
    words: true,
    value: (t) => t.text,
    cell: (t) => (
      <span className="block truncate" title={t.text}>
        {t.text}
      </span>
    ),
  },
  {
    key: 'pick',
    head: 'Pick',
    width: '40px',
    narrow: false,
    value: (t) => (t.seen.isPick ? 1 : 0),
    cell: (t) => t.seen.isPick && '✓',
  },
]

export const usual = ['volume']

export const last: Column<FoundLine>[] = [
  {
    key: 'rank',
    head: 'Rank',
    title: 'The position among the search results',
    width: '92px',
    right: true,
    value: (t) => place(t.seen),
    text: ({ seen: t }) => (t.found === null ? '' : !t.found ? 'Not found' : `${t.rank ?? 'Found'}`),
    cell: ({ seen: t }) => (
      <span className="num">
        {t.found === null ? <span className="quiet">Not checked</span> : !t.found ? <b>Not found</b> : (t.rank ?? 'Found')}
      </span>
    ),
  },
  {
    key: 'page',
    head: 'Page',
    width: '46px',
    narrow: false,
    right: true,
    value: (t) => t.seen.page,
    cell: (t) => <Num value={t.seen.page} unit="page of results" />,
  },
  {
    key: 'before',
    head: 'Before',
    title: 'What the check before found',
    width: '84px',
    narrow: false,
    right: true,
    value: ({ seen: t }) => place(t.before && { found: t.before.found, rank: t.before.rank }),
    text: ({ seen: t }) => (t.before === null ? '' : !t.before.found ? 'Not found' : `${t.before.rank ?? 'Found'}`),
    cell: ({ seen: t }) => (
      <span className="num quiet">{t.before === null ? '' : !t.before.found ? 'Not found' : (t.before.rank ?? 'Found')}</span>
    ),
  },
  {
    key: 'change',
    head: 'Change',
    width: '146px',
    narrow: false,
    value: ({ seen: t }) =>
      t.flip === 'appeared' ? 1000 : t.flip === 'disappeared' ? -1000 : t.rank && t.before?.rank ? t.before.rank - t.rank : null,
    cell: ({ seen: t }) => (
      <span className="flex gap-2 items-baseline">
        <Moved term={t} />
        {t.isUnexpected && (
          <span className="mark" title="Not what the profile predicts">
            Unexpected
          </span>
        )}
      </span>
    ),
  },
  {
    key: 'results',
    head: 'Results',
    title: 'How many listings the search finds',
    width: '64px',
    narrow: false,
    right: true,
    value: (t) => t.seen.results,
    cell: (t) => <Num value={t.seen.results} unit="results" />,
  },
]

function Moved({ term }: { term: FoundTerm }) {
  if (term.flip === 'appeared') return <b className="mark">Now found</b>
  if (term.flip === 'disappeared') return <b className="mark">No longer</b>
  const moved = term.rank && term.before?.rank ? term.before.rank - term.rank : 0
  if (moved === 0) return <span className="quiet" />
  return (
    <span className="num">
      <span aria-hidden="true">{moved > 0 ? '▲' : '▼'}</span>
      <span className="sr-only">{moved > 0 ? 'up' : 'down'}</span> {full(Math.abs(moved))}
    </span>
  )
}
