import { useSyncExternalStore } from 'react'
import { Link } from 'react-router'
import type { Market, Shop } from './api'
import type { DraftId } from './drafts/draft'
import { stuckDrafts } from './drafts/drafts'
import { marketFor, useDesk, useShop } from './shop'

// The screen on which a text is written.
function placeOf({ kind, id }: { kind: string; id: DraftId }, shop: Shop, here: Market | undefined): string {
  if (kind === 'profile') return `/platforms?id=${id}`
  if (kind === 'site') return '/pages?view=site'
  const ofListing = kind === 'listing'
  const productId = Number.parseInt(String(id), 10)
  const product = shop.products.find((p) => (ofListing ? Object.values(p.listings).includes(productId) : p.id === productId))
  if (!product) return '/'
  const platform = ofListing ? Object.entries(product.listings).find(([, l]) => l === productId)?.[0] : undefined
  const market =
    shop.markets.find((m) => m.platformId === platform && m.country === here?.country) ??
    shop.markets.find((m) => m.platformId === platform) ??
    marketFor(product, shop.markets, here)
  const screen = kind === 'facts' ? 'pick?side=facts' : kind === 'note' ? 'pick' : 'write'
  return `/${product.id}/${market.id}/${screen}`
}

/** Shows on every screen that a text is not saved, and links to it. */
export function Unsaved() {
  const stuck = useSyncExternalStore(stuckDrafts.subscribe, stuckDrafts.snapshot)
  const shop = useShop().data
  const desk = useDesk()
  if (stuck.length === 0 || !shop) return null
  return (
    <Link
      className="pill alert"
      to={placeOf(stuck[0], shop, desk?.market)}
      data-testid="unsaved"
      title="Kept in this browser until it is saved"
    >
      {stuck.length === 1 ? '1 text not saved' : `${stuck.length} texts not saved`}
    </Link>
  )
}
