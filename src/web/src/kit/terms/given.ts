import type { Fit, Home } from '../api'
import type { ShortcutId } from '../shortcuts'

/** The fits that a seller gives, in their order, each with its key. */
export const fits: readonly (readonly [Fit, ShortcutId])[] = [
  ['core', 'fitCore'],
  ['good', 'fitGood'],
  ['stretch', 'fitStretch'],
]

/** The homes, in their order, each with its key. */
export const homes: readonly (readonly [Home, ShortcutId])[] = [
  ['anywhere', 'homeAnywhere'],
  ['title', 'homeTitle'],
  ['tags', 'homeTags'],
  ['bullets', 'homeBullets'],
  ['backend', 'homeBackend'],
  ['description', 'homeBody'],
  ['later', 'homeLater'],
  ['avoid', 'avoid'],
]

/** The place of a home or a fit in its order. */
export const orderOf = <T>(given: readonly (readonly [T, ShortcutId])[], one: T) => given.findIndex(([g]) => g === one)
