import { api, ask } from './api'

/** Asks the market for the numbers of terms; each stays on the shelf. */
export const measure = (marketId: string, texts: string[], signal?: AbortSignal) =>
  ask(api.POST('/api/markets/{marketId}/measure', { params: { path: { marketId } }, body: { texts }, signal }))
