import { queryOptions } from '@tanstack/react-query'
import { api, ask } from './api'
import { restoreDrafts } from './drafts/drafts'
import { queryKey } from './queries'
import type { Desk } from './shop'

/** A listing, after what an earlier visit left unsaved is back. */
export const listingQuery = (id: number) =>
  queryOptions({
    queryKey: queryKey('listing', id),
    queryFn: async () => {
      await restoreDrafts()
      return ask(api.GET('/api/listings/{id}', { params: { path: { id } } }))
    },
  })

/** The checks of a listing in the desk's market, and what was found of each term. */
export const foundQuery = (desk: Desk) =>
  queryOptions({
    queryKey: queryKey('found', desk.listingId, desk.market.id),
    queryFn: () =>
      ask(api.GET('/api/listings/{id}/checks', { params: { path: { id: desk.listingId }, query: { marketId: desk.market.id } } })),
  })

/** The terms that the shop's listings in a market pick. */
export const ownTermsQuery = (marketId: string) =>
  queryOptions({
    queryKey: queryKey('ownterms', marketId),
    queryFn: ({ signal }) => ask(api.GET('/api/markets/{marketId}/ownterms', { params: { path: { marketId } }, signal })),
  })
