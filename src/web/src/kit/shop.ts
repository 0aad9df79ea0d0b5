import { type QueryClient, useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { useParams } from 'react-router'
import { api, ask, type Market, type Product, type Shop } from './api'
import { queryKey } from './queries'

export const useShop = () => useQuery({ queryKey: queryKey('shop'), queryFn: () => ask(api.GET('/api/shop')), staleTime: Infinity })

/** Whether a source of numbers is connected: without one nobody can be asked, and nothing is said to be missing there. */
export const useConnected = () => useShop().data?.isConnected ?? true

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

const last = 'last'

/** Where a listing was worked on last. */
export const lastPlace = {
  path: () => localStorage.getItem(last),
  keep: (path: string) => localStorage.setItem(last, path),
  forget: () => localStorage.removeItem(last),
}

/** The listing that was worked on last, for screens about the shop as a whole. */
export function useLastDesk(): Desk | undefined {
  const shop = useShop().data
  const [, productId, marketId] = lastPlace.path()?.split('/') ?? []
  const product = shop?.products.find((p) => String(p.id) === productId)
  const market = shop?.markets.find((m) => m.id === marketId)
  const listingId = market && product?.listings[market.platformId]
  return useMemo(
    () => (product && market && listingId !== undefined ? { product, market, listingId, base: `/${product.id}/${market.id}` } : undefined),
    [product, market, listingId],
  )
}

/** A product as it is known here; undefined until the shop is loaded. */
export const knownProduct = (cache: QueryClient, id: number) =>
  cache.getQueryData<Shop>(queryKey('shop'))?.products.find((p) => p.id === id)

/** Changes what is known here of a product, without asking for the whole shop. */
export const changeKnownProduct = (cache: QueryClient, id: number, change: Partial<Product>) =>
  cache.setQueryData<Shop>(queryKey('shop'), (s) => s && { ...s, products: s.products.map((p) => (p.id === id ? { ...p, ...change } : p)) })
