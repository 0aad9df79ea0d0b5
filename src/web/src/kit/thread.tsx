import type { Grade, PickWeight } from './api'

export const gradeWords: Record<Grade, string> = {
  whole: 'Exact phrase',
  inflected: 'Exact, other form',
  together: 'All words in one field',
  spread: 'Words in several fields',
  missing: 'Word missing',
}

const foldWords: Record<string, string> = {
  diacritics: 'accents',
  possessive: 'possessives',
  plural: 'singular and plural',
  compound: 'one word or two',
  spelling: 'British and American spelling',
}

/** What a search would have to treat as equal: “singular and plural”. */
export const foldInWords = (fold: string) =>
  fold
    .split('+')
    .map((f) => foldWords[f] ?? f)
    .join(', or ')

/** The line beside a term: its style shows how firmly the listing holds it. */
export function Thread({ grade, width = 40, title }: { grade: Grade | undefined; width?: number; title?: string }) {
  if (!grade) return <span style={{ width, display: 'inline-block' }} />
  const line = { y1: 6, y2: 6, stroke: 'var(--color-primary)', strokeWidth: 2.5 }
  const label = title ?? gradeWords[grade]
  return (
    <svg width={width} height={12} role="img" aria-label={label} className="shrink-0">
      <title>{label}</title>
      {grade === 'missing' ? (
        <>
          <line {...line} x1={1} x2={width * 0.34} strokeDasharray="2.5 5" />
          <line {...line} x1={width * 0.68} x2={width - 1} strokeDasharray="2.5 5" />
        </>
      ) : (
        <line {...line} x1={1} x2={width - 1} strokeDasharray={grade === 'together' ? '8 5' : grade === 'spread' ? '2.5 5' : undefined} />
      )}
      {grade === 'inflected' && (
        <circle cx={width - 6} cy={6} r={3.6} fill="var(--color-base-200)" stroke="var(--color-primary)" strokeWidth={2} />
      )}
    </svg>
  )
}

/** The term with its missing words boxed, and the form that the listing has instead. */
export function TermGaps({ term }: { term: PickWeight }) {
  const missing = new Set(term.missing)
  const near = [...new Set(term.near.map((n) => `“${n.has}”`))]
  return (
    <span>
      {missing.size === 0
        ? term.text
        : term.text.split(/(\s+|-)/).map((part, i) =>
            missing.has(part.toLowerCase().replace(/[’ʼ‘]/g, "'").normalize('NFKC')) ? (
              // biome-ignore lint/suspicious/noArrayIndexKey: the parts of one text never move
              <span key={i} className="gap-word">
                {part}
              </span>
            ) : (
              part
            ),
          )}
      {near.length > 0 && (
        <small
          className="quiet ml-2"
          title={term.near
            .map((n) => `The listing has “${n.has}” and needs “${n.needs}”: this search doesn’t treat ${foldInWords(n.fold)} as equal`)
            .join('. ')}
        >
          has {near.slice(0, 3).join(', ')}
        </small>
      )}
      {term.apart && <small className="quiet ml-2">words in separate fields; this search doesn’t combine fields</small>}
    </span>
  )
}

/** What each thread means. */
export function Legend() {
  return (
    <div className="flex flex-wrap gap-x-4 gap-y-1 text-[12.5px] quiet" data-testid="legend">
      {(Object.keys(gradeWords) as Grade[]).map((g) => (
        <span key={g} className="inline-flex items-center gap-2">
          <Thread grade={g} width={30} /> {gradeWords[g]}
        </span>
      ))}
    </div>
  )
}
