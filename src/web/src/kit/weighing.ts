import { keepPreviousData, type QueryClient, useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api, ask, type Copy, opened, type Weighed, type Weighing } from './api'
import { unsavedCopy } from './drafts/drafts'
import { usePicks } from './picks'
import { queryKey } from './queries'
import type { Desk } from './shop'

export const weighKey = (desk: Desk) => queryKey('weigh', desk.listingId, desk.market.id)

/**
 * Asks what a listing holds of the picks, of this draft or of what is saved. The server says what changed since the answer before;
 * the rest is taken from that, object for object, so that only what changed is drawn anew.
 */
export async function weigh(cache: QueryClient, desk: Desk, fields: Copy | null, signal?: AbortSignal): Promise<Weighed> {
  const before = cache.getQueryData<Weighed>(weighKey(desk))
  const now = await ask(
    api.POST('/api/listings/{id}/weigh', {
      params: { path: { id: desk.listingId } },
      body: { marketId: desk.market.id, fields: fields, since: before?.id ?? null },
      signal,
    }),
  )
  if (!before || now.since !== before.id) return now
  const changed = new Map(now.terms.map((t) => [t.key, t]))
  return { ...now, terms: changed.size === 0 ? before.terms : before.terms.map((t) => changed.get(t.key) ?? t) }
}

/** What the listing holds of the picks: of the draft where one is being written, otherwise of what is saved. */
export function useWeighing(desk: Desk): Weighing | undefined {
  const cache = useQueryClient()
  const picks = usePicks(desk).data?.picks
  const weighed = useQuery({
    queryKey: weighKey(desk),
    queryFn: ({ signal }) => weigh(cache, desk, unsavedCopy(desk.listingId), signal),
    placeholderData: keepPreviousData,
    structuralSharing: false,
  }).data
  return useMemo(() => weighed && picks && opened(weighed, picks), [weighed, picks])
}

/** Whether reach and grip are a headline: not over a listing that the platform refuses. */
export const isHeadline = (weighing: Weighing, required: number | null | undefined) => required === 0 && weighing.picks > 0
