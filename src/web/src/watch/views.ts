import type { ShortcutId } from '../kit/shortcuts'

/** The views of Watch, in the order of their keys. */
export const views = [
  ['found', 'Found', 'foundView'],
  ['days', 'By day', 'daysView'],
  ['notes', 'Changes', 'notesView'],
  ['rules', 'Search rules', 'rulesView'],
] as const satisfies readonly (readonly [string, string, ShortcutId])[]

export type View = (typeof views)[number][0]
