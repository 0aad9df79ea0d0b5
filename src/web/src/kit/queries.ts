import type { QueryClient } from '@tanstack/react-query'

// The queries whose answers hold numbers of terms: a correction, a paste, an import or an undo makes all of them stale.
const withNumbers = [
  'alike',
  'check',
  'dig',
  'grid',
  'ideas',
  'imports',
  'language',
  'picks',
  'reading',
  'shelf',
  'sources',
  'takes',
  'term',
  'trail',
  'weave',
  'weigh',
]

/** Makes everything that shows numbers ask again. */
export const refreshNumbers = (cache: QueryClient) => Promise.all(withNumbers.map((key) => cache.invalidateQueries({ queryKey: [key] })))

/** Makes everything ask again that a change to picks or facts concerns. */
export const refreshPicks = (cache: QueryClient) =>
  Promise.all(['picks', 'weigh', 'trail', 'ideas', 'grid', 'alike', 'changes'].map((key) => cache.invalidateQueries({ queryKey: [key] })))
