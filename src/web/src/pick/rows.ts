import type { Pick, PickWeight } from '../kit/api'
import type { ShortcutId } from '../kit/shortcuts'

export type Row = Pick & {
  pick: Pick
  weight?: PickWeight
  lead: boolean
  /** Its spelling variants, the most searched first, where the table shows them as one row; otherwise itself. */
  members: Pick[]
  /** Whether it is listed under its group's row. */
  under: boolean
}

export const sides: [string, string, ShortcutId | null][] = [
  ['term', 'Pick', null],
  ['facts', 'Facts', 'facts'],
  ['ideas', 'Ideas', 'ideas'],
  ['language', 'Language', 'language'],
]

const names = new Intl.DisplayNames('en', { type: 'language' })

export const nameOf = (language: string) => names.of(language) ?? language

/** One row for each group of variants, at the place of its first; the others under it where it is open. */
export function folded(rows: Row[], opened: ReadonlySet<string>): Row[] {
  const byFamily = Map.groupBy(rows, (r) => `${r.language} ${r.family}`)
  return [...byFamily.values()].flatMap((members) => {
    if (members.length === 1) return members
    const strongest = members.reduce((best, r) => ((r.numbers.volume ?? -1) > (best.numbers.volume ?? -1) ? r : best))
    const open = opened.has(strongest.family)
    const others = members.filter((m) => m !== strongest)
    return [
      { ...strongest, members: open ? [strongest] : [strongest, ...others] },
      ...(open ? others.map((m) => ({ ...m, under: true })) : []),
    ]
  })
}

/** Which words of a pick the facts lack. */
export const claimText = (row: Row) => row.claims.map((c) => `“${c.word}” isn’t in this product’s facts (${c.facet}).`).join(' ')
