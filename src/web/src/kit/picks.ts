import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, ask, type Facts, type Fit, type Home, messageOf, type Pick } from './api'
import { type Changed, useChanges } from './changes'
import { messages } from './messages'
import type { SavedText } from './notsaved'
import { queryKey, refresh } from './queries'
import { changeKnownProduct, type Desk, knownProduct } from './shop'
import { toast } from './toast'
import { inTurn } from './turn'

export const usePicks = (desk: Desk) =>
  useQuery({
    queryKey: queryKey('picks', desk.product.id, desk.market.id),
    queryFn: () =>
      ask(api.GET('/api/products/{id}/picks', { params: { path: { id: desk.product.id }, query: { marketId: desk.market.id } } })),
    placeholderData: keepPreviousData,
  })

export type Change = { source?: string; saidBy?: string[]; language?: string; fit?: Fit; home?: Home; note?: string }

/** Everything that can be done to picks; each says what it did and can be undone. */
export function usePickActions(desk: Desk) {
  const cache = useQueryClient()
  const path = { id: desk.product.id }
  const changes = useChanges(desk.product.id)
  const does = (call: () => Promise<Changed>) => changes.run(call, undefined, (c) => refresh(c, 'picks'))
  /** Undoes the last change; with its id, that one. */
  const { undo } = changes
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
  const avoid = (text: string, picked: Pick | undefined, source: string) =>
    picked?.home === 'avoid' ? drop([text]) : change([text], { source, home: 'avoid' })
  const know = (facts: Facts, revision: number) => changeKnownProduct(cache, desk.product.id, { facts, revision })
  /** Saves one line of the facts; what another window changed in other lines stays. */
  const fact = <K extends keyof Facts>(key: K, value: Facts[K]): Promise<SavedText> =>
    inTurn(async () => {
      for (;;) {
        const product = knownProduct(cache, desk.product.id) ?? desk.product
        const before = product.facts as Facts
        const next = { ...before, [key]: value }
        try {
          const { data, error, response } = await api.PUT('/api/products/{id}/facts', {
            params: { path },
            body: { facts: next, revision: product.revision },
          })
          if (data) {
            know(next, data.revision ?? product.revision)
            if (data.what) toast(data.what, () => undo(data.id))
            refresh(cache, 'picks')
            return {}
          }
          if (response.status !== 409) return { problem: messageOf(error, response.status) }
          const theirs = error as unknown as { facts: Facts; revision: number }
          know(theirs.facts, theirs.revision)
          if (JSON.stringify(theirs.facts[key]) !== JSON.stringify(before[key])) return { theirs: theirs.facts[key] }
        } catch {
          return { problem: messages.unreachable }
        }
      }
    })
  /** Saves a pick's note, unless another window changed it after this revision. */
  const note = (text: string, words: string, noteRevision: number): Promise<SavedText> =>
    inTurn(async () => {
      try {
        const { data, error, response } = await api.POST('/api/products/{id}/picks', {
          params: { path },
          body: { texts: [text], source: null, fit: null, home: null, note: words, saidBy: null, language: null, noteRevision },
        })
        if (response.status === 409) {
          const theirs = error as unknown as { note: string; noteRevision: number }
          return { theirs: theirs.note, revision: theirs.noteRevision }
        }
        if (!data) return { problem: messageOf(error, response.status) }
        if (data.what) toast(data.what, () => undo(data.id))
        await refresh(cache, 'picks')
        return {}
      } catch {
        return { problem: messages.unreachable }
      }
    })
  return { change, drop, order, undo, toggle, avoid, fact, note }
}
