import { useQuery, useQueryClient } from '@tanstack/react-query'
import { api, ask, type Listing } from '../kit/api'
import { useChanges } from '../kit/changes'
import { messages } from '../kit/messages'
import { queryKey, refresh } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { toast } from '../kit/toast'

/** A listing among its rivals, and what can be done with them. */
export function useRivals(desk: Desk, listing: Listing) {
  const cache = useQueryClient()
  const { run, attempt } = useChanges()
  const marketId = desk.market.id
  const path = { id: desk.listingId }
  const query = useQuery({
    queryKey: queryKey('rivals', desk.listingId, marketId, listing.copy),
    queryFn: ({ signal }) =>
      ask(api.POST('/api/listings/{id}/rivals/compare', { params: { path }, body: { marketId, fields: listing.copy }, signal })),
    placeholderData: (before) => before,
  })
  const stale = () => refresh(cache, 'rivals', 'reviews')
  const add = (ids: string[]) =>
    run(() => ask(api.POST('/api/listings/{id}/rivals', { params: { path }, body: { marketId, ids } })), undefined, stale)
  const remove = (rivalId: number) =>
    run(() => ask(api.DELETE('/api/listings/{id}/rivals/{rivalId}', { params: { path: { ...path, rivalId } } })), undefined, stale)
  const lookUp = async () => {
    try {
      const done = await ask(api.POST('/api/listings/{id}/rivals/refresh', { params: { path }, body: { marketId } }))
      toast(messages.refreshed(done.seen, done.changed, done.gone))
      await stale()
    } catch (e) {
      toast((e as Error).message)
    }
  }
  return { query, add, remove, lookUp, stale, attempt }
}
