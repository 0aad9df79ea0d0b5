import { useQuery } from '@tanstack/react-query'
import { api, ask, type Effect, type NoteKind } from '../kit/api'
import { useChanges } from '../kit/changes'
import { queryKey, refresh } from '../kit/queries'
import type { Desk } from '../kit/shop'

export type NewNote = { text: string; kinds: NoteKind[]; day: string; about: 'listing' | 'product' | 'shop'; term: string }

/** What a note's filters are. */
export type NoteFilter = {
  has?: string
  kind?: NoteKind
  productId?: number
  listingId?: number
  marketId?: string
  measure?: Effect['measure']
  effects?: boolean
  pooled?: boolean
}

/** The journal, as far as it passes a filter, and what each kind of change did. */
export const useJournal = (filter: NoteFilter) =>
  useQuery({
    queryKey: queryKey('journal', filter),
    queryFn: () => ask(api.GET('/api/notes', { params: { query: filter } })),
    placeholderData: (before) => before,
  })

/** The change notes of a listing in a market, with those of its product and of the shop; what happened after them only where it is needed. */
export function useNotes(desk: Desk, effects = true) {
  const { run, attempt } = useChanges()
  const query = useJournal({ listingId: desk.listingId, marketId: desk.market.id, effects })
  const stale = (cache: Parameters<typeof refresh>[0]) => refresh(cache, 'watch')
  /** The problem; null once it is saved. */
  const add = (n: NewNote) =>
    attempt(
      () =>
        ask(
          api.POST('/api/notes', {
            body: {
              text: n.text,
              kinds: n.kinds,
              day: n.day,
              productId: n.about === 'shop' ? null : desk.product.id,
              listingId: n.about === 'listing' ? desk.listingId : null,
              marketId: n.about === 'listing' ? desk.market.id : null,
              term: n.term || null,
            },
          }),
        ),
      stale,
    )
  const save = (note: number, revision: number, n: NewNote) =>
    attempt(
      () =>
        ask(
          api.PUT('/api/notes/{note}', {
            params: { path: { note } },
            body: { text: n.text, kinds: n.kinds, day: n.day, term: n.term || null, revision },
          }),
        ),
      stale,
    )
  const remove = (note: number) => run(() => ask(api.DELETE('/api/notes/{note}', { params: { path: { note } } })), undefined, stale)
  return { query, add, save, remove }
}
