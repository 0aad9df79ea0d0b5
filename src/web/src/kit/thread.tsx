import type { Grade, PickWeight } from './api'

export const gradeWords: Record<Grade, string> = {
  whole: 'held whole',
  inflected: 'held whole, in another form',
  together: 'all its words in one field',
  spread: 'its words spread over fields',
  missing: 'a word is missing',
}

const foldWords: Record<string, string> = {
  diacritics: 'letters with and without accents',
  possessive: 'a word with and without its apostrophe',
  plural: 'singular and plural',
  compound: 'one word and two',
  spelling: 'regional spellings',
}

/** Which two things a search would have to take as the same: “singular and plural”. */
export const foldInWords = (fold: string) =>
  fold
    .split('+')
    .map((f) => foldWords[f] ?? f)
    .join(', or ')

/** The line beside a term: its style says how firmly the listing holds it. */
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

/** The term with its missing words boxed and what stands there instead. */
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
            .map((n) => `It has “${n.has}” and needs “${n.needs}”: this search does not take ${foldInWords(n.fold)} as the same`)
            .join('. ')}
        >
          has {near.slice(0, 3).join(', ')}
        </small>
      )}
      {term.apart && <small className="quiet ml-2">words stand apart; this search does not combine fields</small>}
    </span>
  )
}

/** What each line means. */
export function Legend() {
  return (
    <div className="flex flex-wrap gap-x-4 gap-y-1 text-[12.5px] quiet">
      {(Object.keys(gradeWords) as Grade[]).map((g) => (
        <span key={g} className="inline-flex items-center gap-2">
          <Thread grade={g} width={30} /> {gradeWords[g]}
        </span>
      ))}
    </div>
  )
}
