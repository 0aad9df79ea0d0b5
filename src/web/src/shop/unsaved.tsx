import { useSyncExternalStore } from 'react'
import { Link } from 'react-router'
import { stuckDrafts } from '../kit/drafts/drafts'
import { marketFor, useDesk, useShop } from '../kit/shop'

/** Shows on every screen that a text is not saved, and links to it. */
export function Unsaved() {
  const stuck = useSyncExternalStore(stuckDrafts.subscribe, stuckDrafts.snapshot)
  const shop = useShop().data
  const desk = useDesk()
  if (stuck.length === 0 || !shop) return null
  const { kind, id } = stuck[0]
  const product = shop.products.find((p) => (kind === 'pictures' ? p.id === id : Object.values(p.listings).includes(id)))
  const platform = product && Object.entries(product.listings).find(([, l]) => l === id)?.[0]
  const market =
    shop.markets.find((m) => m.platformId === platform && m.country === desk?.market.country) ??
    shop.markets.find((m) => m.platformId === platform)
  const to = product ? `/${product.id}/${(market ?? marketFor(product, shop.markets, desk?.market)).id}/write` : '/'
  return (
    <Link className="pill alert" to={to} data-testid="unsaved" title="Kept in this browser until it is saved">
      {stuck.length === 1 ? '1 text not saved' : `${stuck.length} texts not saved`}
    </Link>
  )
}
