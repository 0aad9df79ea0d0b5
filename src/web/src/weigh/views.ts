import type { ShortcutId } from '../kit/shortcuts'

/** The views of Weigh, in the order of their keys. */
export const views = [
  ['fields', 'Picks by field', 'fieldsView'],
  ['rivals', 'Rivals', 'rivalsView'],
  ['buyers', 'What buyers say', 'buyersView'],
  ['top', 'Top 100', 'topView'],
  ['places', 'Platforms', 'placesView'],
] as const satisfies readonly (readonly [string, string, ShortcutId])[]
