import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, ask, type Fit, type Home, type Pick } from './api'
import { type Changed, turnHere, useChanges } from './changes'
import { queryKey, refresh } from './queries'
import type { Desk } from './shop'

/** A product's picks; none without a product. */
export const usePicks = (desk: Desk | undefined) => {
  const [id, marketId] = [desk?.product.id ?? 0, desk?.market.id ?? '']
  return useQuery({
    queryKey: queryKey('picks', id, marketId),
    queryFn: () => ask(api.GET('/api/products/{id}/picks', { params: { path: { id }, query: { marketId } } })),
    placeholderData: keepPreviousData,
    enabled: desk !== undefined,
  })
}

export type Change = { source?: string; saidBy?: string[]; language?: string; fit?: Fit; home?: Home; note?: string }

/** Everything that can be done to picks; each says what it did and can be undone. */
export function usePickActions(desk: Desk) {
  const path = { id: desk.product.id }
  const changes = useChanges()
  const does = (call: () => Promise<Changed>) => changes.run(call, undefined, (c) => refresh(c, 'picks'))
  const cache = useQueryClient()
  /** Undoes the last change of this product's picks. */
  const undo = () => turnHere(cache, 'undo', { screen: 'pick', product: desk.product.id })
  const change = (texts: string[], change: Change) =>
    does(() =>
      ask(
        api.POST('/api/products/{id}/picks', {
          params: { path },
          body: {
            texts,
            source: change.source ?? null,
            fit: change.fit ?? null,
            home: change.home ?? null,
            note: change.note ?? null,
            saidBy: change.saidBy ?? null,
            language: change.language ?? null,
            noteRevision: null,
          },
        }),
      ),
    )
  const drop = (texts: string[]) => does(() => ask(api.POST('/api/products/{id}/picks/drop', { params: { path }, body: { texts } })))
  const order = (keys: string[]) => does(() => ask(api.PUT('/api/products/{id}/picks/order', { params: { path }, body: { keys } })))

  /** Picks a term, or drops it when it is picked already. */
  const toggle = (text: string, picked: Pick | undefined, source: string, saidBy = '') =>
    picked && picked.home !== 'avoid' ? drop([text]) : change([text], { source, saidBy: [saidBy], home: picked ? 'anywhere' : undefined })
  return { change, drop, order, undo, toggle }
}
