import type { Rival } from '../kit/api'

/** What a rival is called: its shop, or where it came from. */
export const nameOf = (r: Rival) => r.state.shop || r.source
