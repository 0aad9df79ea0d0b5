import type { Alike, Dug, Grid, Pick, PickWeight, ShelfOrder } from '../kit/api'
import type { Rows } from '../kit/table'

export type Row = Omit<Dug, 'typed' | 'related' | 'sellers'> & {
  typed?: number | null
  related?: number | null
  sellers?: Dug['sellers']
  /** Why it is a related word. */
  alike?: { likeness: keyof typeof likeness; word: string; part: string }
  /** Which word of which facet the term was combined with. */
  mixed?: string
  pick?: Pick
  weight?: PickWeight
  lead?: boolean
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

export const orders: Record<string, ShelfOrder> = {
  text: 'text',
  volume: 'volume',
  competition: 'competition',
  headroom: 'headroom',
  titles: 'titlesHolding',
  cost: 'clickCost',
  lastMonth: 'lastMonth',
  change3: 'change3',
  change12: 'change12',
  shape: 'shape',
  web: 'webVolume',
  clicks: 'clicks',
  orders: 'orders',
  sales: 'sales',
  volumeBand: 'volume',
  titlesBand: 'titlesHolding',
  headroomBand: 'headroom',
  costBand: 'clickCost',
  webBand: 'webVolume',
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
