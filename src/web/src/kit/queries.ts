import type { QueryClient } from '@tanstack/react-query'

/** What can change under a screen: each makes the queries that show it stale. */
type Subject =
  /** Terms, readings and what follows from them. */
  | 'numbers'
  /** Readings that were made in the background: no screen asks the market again because of them. */
  | 'measured'
  | 'pages'
  | 'picks'
  | 'listing'
  | 'takes'
  | 'versions'
  | 'filters'
  | 'backups'
  | 'platforms'
  | 'products'
  | 'trail'
  /** Which results are like a product. */
  | 'likeness'
  | 'rivals'
  | 'reviews'
  | 'watch'

/** Every kind of question that screens ask the server, with what makes its answer stale. All but the digs are also asked again after an undo. */
const staleAfter = {
  alike: ['numbers', 'picks'],
  backups: ['backups'],
  buyers: ['reviews', 'picks', 'rivals'],
  changes: ['picks'],
  check: ['numbers', 'measured'],
  compare: [],
  countries: [],
  dig: ['numbers'],
  filters: ['filters'],
  found: ['watch', 'picks', 'numbers', 'measured', 'listing'],
  grid: ['numbers', 'picks'],
  history: ['watch'],
  ideas: ['numbers', 'measured', 'picks'],
  journal: ['watch', 'versions'],
  imports: ['numbers', 'measured'],
  leads: ['numbers', 'measured', 'picks', 'pages', 'listing'],
  language: ['numbers'],
  likeness: ['likeness'],
  languages: [],
  listing: ['listing'],
  lookups: ['numbers', 'picks', 'trail'],
  listings: ['platforms', 'products', 'pages', 'listing'],
  measuring: ['numbers', 'picks', 'platforms'],
  movers: ['watch'],
  moves: ['numbers', 'measured', 'picks'],
  next: ['numbers', 'measured', 'picks', 'listing', 'versions', 'watch', 'pages'],
  notechanges: [],
  noteranks: ['watch'],
  ownterms: ['numbers', 'picks', 'listing', 'watch', 'products', 'pages'],
  picks: ['numbers', 'measured', 'picks'],
  pagepreview: ['pages'],
  pages: ['pages', 'listing'],
  pictures: ['pages', 'picks'],
  platforms: ['platforms'],
  placed: ['numbers', 'measured', 'picks', 'listing'],
  places: ['numbers', 'measured', 'picks'],
  reading: ['numbers'],
  rivals: ['numbers', 'measured', 'picks', 'rivals'],
  rules: ['watch', 'platforms'],
  sample: ['numbers', 'watch'],
  sent: ['versions', 'watch'],
  session: [],
  several: [],
  shelf: ['numbers', 'measured'],
  shop: ['platforms', 'products', 'pages'],
  site: ['pages'],
  suggestions: [],
  takes: ['numbers', 'measured', 'takes'],
  term: ['numbers', 'measured'],
  top: ['numbers', 'measured', 'picks'],
  trail: ['numbers', 'measured', 'picks', 'trail'],
  versions: ['versions'],
  watch: ['watch', 'versions', 'listing'],
  weave: ['numbers', 'measured'],
  words: ['numbers', 'measured', 'picks', 'listing'],
  weigh: ['numbers', 'measured', 'picks'],
} satisfies Record<string, Subject[]>

/** The key of a question, which names its kind first. */
export const queryKey = (kind: keyof typeof staleAfter, ...about: unknown[]) => [kind, ...about]

/** Makes everything ask again that shows what has changed. */
export const refresh = (cache: QueryClient, ...changed: Subject[]): Promise<unknown> => {
  const kinds = new Set(Object.entries(staleAfter).flatMap(([kind, after]) => (after.some((a) => changed.includes(a)) ? [kind] : [])))
  return cache.invalidateQueries({ predicate: (q) => kinds.has(q.queryKey[0] as string) })
}

/** Makes everything ask again but the digs: each would ask the market some thirty times, and no change alters what it says. */
export const refreshAll = (cache: QueryClient): Promise<unknown> => cache.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'dig' })
