import type { Alike, Dug, Grid, Pick, ShelfOrder } from '../kit/api'
import type { Limits } from '../kit/shelfquery'
import type { Rows } from '../kit/table'
import { withoutMarks, wordsOf } from '../kit/words'

export type Row = Omit<Dug, 'typed' | 'related' | 'sellers'> & {
  typed?: number | null
  related?: number | null
  sellers?: Dug['sellers']
  /** Why it is a related word. */
  alike?: { likeness: keyof typeof likeness; word: string; part: string }
  /** Which word of which facet the term was combined with. */
  mixed?: string
  pick?: Pick
}

export const sources = [
  ['typed', 'Search suggestions', 'What the market’s search box suggests for the term, and for the term with each letter after it'],
  ['used', 'Used by sellers', 'Words and tags in the top 100 listings'],
  ['related', 'Related searches', 'Searches that the results page offers beside its results'],
  ['alike', 'Related words', 'Synonyms and near words, in the meanings that shoppers use here'],
  ['rare', 'Other meanings', 'Related words of meanings that nobody searches for in this market'],
  ['mixed', 'Combinations', 'The term with materials, styles, colours, sizes, audiences and occasions; the product’s facts first'],
  ['shelf', 'My shelf', 'All terms saved for this market'],
] as const

export type Source = (typeof sources)[number][0]

/** The numbers of a term that nobody has measured. */
export const unknownNumbers: Dug['numbers'] = {
  volume: null,
  volumeBelow: null,
  competition: null,
  titlesHolding: null,
  clickCost: null,
  popularity: null,
  headroom: null,
  band: null,
  months: null,
  from: null,
  source: null,
  takenAt: null,
  kept: [],
  doubts: [],
}

export const orders: Record<string, ShelfOrder> = {
  text: 'text',
  volume: 'volume',
  competition: 'competition',
  headroom: 'headroom',
  titles: 'titlesHolding',
  cost: 'clickCost',
}

/** Where a term comes from, in words. */
export const saidBy = (r: Row) =>
  [
    r.typed ? `Suggested #${r.typed}` : null,
    r.related ? `Related search #${r.related}` : null,
    r.sellers ? `${r.sellers.count} of the top ${r.sellers.among} sellers` : null,
    r.alike ? `${likeness[r.alike.likeness].sentence} “${r.alike.word}” (${r.alike.part})` : null,
    r.mixed ? `combined with ${r.mixed}` : null,
    !r.typed && !r.related && !r.sellers && !r.alike && !r.mixed && r.numbers.source ? `From ${r.numbers.source}` : null,
  ]
    .filter(Boolean)
    .join(' · ')

const MostShown = 2000

export function shownRows(rows: Rows<Row>): Row[] {
  const some: Row[] = []
  for (let i = 0; i < Math.min(rows.length, MostShown); i++) {
    const r = rows.at(i)
    if (r) some.push(r)
  }
  return some
}

/** A cell of the grid as a row: for the panel beside it, and for the keys. */
export function cellRow(grid: Grid | undefined, key: string | null, byPick: ReadonlyMap<string, Pick>): Row | undefined {
  for (const f of grid?.facets ?? [])
    for (const r of f.rows)
      for (const c of r.cells)
        if (c.key === key) return { text: c.text, key: c.key, numbers: c.numbers, mixed: `${r.word} (${f.facet})`, pick: byPick.get(c.key) }
}

/** All rows of the sources that are on, each once, with everything known about it. */
export function gather(
  from: ReadonlySet<Source>,
  dug: ReadonlyMap<string, Dug> | undefined,
  head: string | undefined,
  alike: Alike[] | undefined,
  grid: Grid | undefined,
): Map<string, Row> {
  const rows = new Map<string, Row>()
  const add = (row: Row) => {
    const known = rows.get(row.key)
    rows.set(row.key, known ? { ...row, ...known, alike: known.alike ?? row.alike, mixed: known.mixed ?? row.mixed } : row)
  }
  for (const r of dug?.values() ?? [])
    if (r.key === head || (from.has('typed') && r.typed) || (from.has('used') && r.sellers) || (from.has('related') && r.related)) add(r)
  // Related words come by meaning, the one that fits the product first; of those, what shoppers search for comes first.
  const ofAlike = (alike ?? []).flatMap((a) => a.alike.map((t) => ({ a, t })))
  ofAlike.sort((x, y) => Number(y.t.numbers.volume !== null) - Number(x.t.numbers.volume !== null))
  for (const { a, t } of ofAlike)
    if (from.has(t.isUsed ? 'alike' : 'rare'))
      add({ text: t.term, key: t.key, numbers: t.numbers, alike: { likeness: t.likeness, word: a.word, part: t.part } })
  if (from.has('mixed'))
    for (const f of grid?.facets ?? [])
      for (const r of f.rows)
        for (const c of r.cells)
          if (c.numbers.volume !== null) add({ text: c.text, key: c.key, numbers: c.numbers, mixed: `${r.word} (${f.facet})` })
  return rows
}

/** How related words are related: in a column, and in a sentence before the other word. */
export const likeness = {
  same: { short: 'synonym', sentence: 'synonym of' },
  similar: { short: 'similar', sentence: 'similar to' },
  broader: { short: 'broader', sentence: 'broader than' },
  narrower: { short: 'narrower', sentence: 'narrower than' },
  beside: { short: 'same kind', sentence: 'of the same kind as' },
}

/**
 * Whether a row passes the filters, as the server decides it for the shelf (ShelfColumns): every word typed is part of the term, with
 * its accents or without them, and no word typed after a minus is.
 */
export const passing = (l: Limits) => {
  const typed = l.has.split(/\s+/).filter(Boolean)
  const isExcluded = (w: string) => w.length > 1 && w.startsWith('-')
  const without = typed.filter(isExcluded).flatMap((w) => wordsOf(w.slice(1)))
  const words = typed.filter((w) => !isExcluded(w)).flatMap(wordsOf)
  const least = (value: number | null, bound: number | null) => bound === null || (value !== null && value >= bound)
  const most = (value: number | null, bound: number | null) => bound === null || (value !== null && value <= bound)
  return ({ key, numbers: n }: Row) => {
    const text = `${key}\n${withoutMarks(key)}`
    return (
      words.every((w) => text.includes(w)) &&
      !without.some((w) => text.includes(w)) &&
      least(n.volume, l.volume) &&
      most(n.competition, l.competition) &&
      least(n.headroom, l.headroom) &&
      most(n.titlesHolding, l.titles) &&
      most(n.clickCost, l.cost) &&
      (!l.source || n.source === l.source)
    )
  }
}
