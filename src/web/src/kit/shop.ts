import { keepPreviousData, type QueryClient, useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo } from 'react'
import { useParams } from 'react-router'
import {
  api,
  ask,
  type Copy,
  type Facts,
  type Fit,
  type Home,
  type Market,
  messageOf,
  opened,
  type Pick,
  type Product,
  type Shop,
  type Weighed,
  type Weighing,
} from './api'
import { type Changed, useChanges } from './changes'
import { messages } from './messages'
import type { SavedText } from './notsaved'
import { refreshPicks } from './queries'
import { toast } from './toast'
import { inTurn } from './turn'

export const useShop = () => useQuery({ queryKey: ['shop'], queryFn: () => ask(api.GET('/api/shop')), staleTime: Infinity })

/** What the seller works on: a product in one market, with its listing there. */
export type Desk = { product: Product; market: Market; listingId: number; base: string }

/** The market to go to for a product: the same where it has a listing there, else one of its own in the same country. */
export function marketFor(product: Product, markets: Market[], now: Market | undefined): Market {
  const own = markets.filter((m) => product.listings[m.platformId] !== undefined)
  return own.find((m) => m.id === now?.id) ?? own.find((m) => m.country === now?.country) ?? own[0] ?? markets[0]
}

/** The product and market that the address names; without a listing there, listingId is undefined. */
export function useDesk(): (Omit<Desk, 'listingId'> & { listingId: number | undefined }) | undefined {
  const { productId, marketId } = useParams()
  const shop = useShop().data
  const product = shop?.products.find((p) => String(p.id) === productId)
  const market = shop?.markets.find((m) => m.id === marketId)
  return useMemo(
    () => product && market && { product, market, listingId: product.listings[market.platformId], base: `/${product.id}/${market.id}` },
    [product, market],
  )
}

export const picksKey = (desk: Desk) => ['picks', desk.product.id, desk.market.id]
export const weighKey = (desk: Desk) => ['weigh', desk.listingId, desk.market.id]
export const draftKey = (desk: Desk) => ['draft', desk.listingId]

export const usePicks = (desk: Desk) =>
  useQuery({
    queryKey: picksKey(desk),
    queryFn: () =>
      ask(api.GET('/api/products/{id}/picks', { params: { path: { id: desk.product.id }, query: { marketId: desk.market.id } } })),
    placeholderData: keepPreviousData,
  })

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
    queryFn: ({ signal }) => weigh(cache, desk, cache.getQueryData<Copy>(draftKey(desk)) ?? null, signal),
    placeholderData: keepPreviousData,
    structuralSharing: false,
  }).data
  return useMemo(() => weighed && picks && opened(weighed, picks), [weighed, picks])
}

/** Whether reach and grip are a headline: not over a listing that the platform refuses, nor where most picks have no data. */
export const isHeadline = (weighing: Weighing, required: number | null | undefined) =>
  required === 0 && weighing.totalVolume > 0 && weighing.unknownVolume * 2 <= weighing.picks

export type Change = { source?: string; saidBy?: string[]; language?: string; fit?: Fit; home?: Home; note?: string }

/** Everything that can be done to picks; each says what it did and can be undone. */
export function usePickActions(desk: Desk) {
  const cache = useQueryClient()
  const path = { id: desk.product.id }
  const changes = useChanges(desk.product.id)
  const does = (call: () => Promise<Changed>) => changes.run(call, undefined, refreshPicks)
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
  const know = (facts: Facts, revision: number) =>
    cache.setQueryData<Shop>(
      ['shop'],
      (s) => s && { ...s, products: s.products.map((p) => (p.id === desk.product.id ? { ...p, facts, revision } : p)) },
    )
  /** Saves one line of the facts; what another window changed in other lines stays. */
  const fact = <K extends keyof Facts>(key: K, value: Facts[K]): Promise<SavedText> =>
    inTurn(async () => {
      for (;;) {
        const product = cache.getQueryData<Shop>(['shop'])?.products.find((p) => p.id === desk.product.id) ?? desk.product
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
            refreshPicks(cache)
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
        await cache.invalidateQueries({ queryKey: ['picks'] })
        return {}
      } catch {
        return { problem: messages.unreachable }
      }
    })
  return { change, drop, order, undo, toggle, avoid, fact, note }
}
