import type { ShortcutId } from '../kit/shortcuts'

/** The views of Weigh, in the order of their keys. */
export const views = [
  ['fields', 'Picks by field', 'fieldsView'],
  ['rivals', 'Rivals', 'rivalsView'],
  ['buyers', 'What buyers say', 'buyersView'],
  ['top', 'Top 100', 'topView'],
  ['places', 'Platforms', 'placesView'],
] as const satisfies readonly (readonly [string, string, ShortcutId])[]

export type View = (typeof views)[number][0]

/** The view that the address names; the picks by field where it names none. */
export const viewOf = (name: string | null): View => views.find(([key]) => key === name)?.[0] ?? 'fields'
