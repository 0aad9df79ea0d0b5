import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { api, ask, type Market, type Product } from '../kit/api'
import { turnChange, useChanges } from '../kit/changes'
import { dateTimeOf } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import { marketFor, useShop } from '../kit/shop'
import { ToastLine } from '../kit/toast'

/** The address of a product that is not in the shop: where it was deleted, it can be brought back here. */
export function Gone() {
  const cache = useQueryClient()
  const product = Number(useParams().productId)
  const changes = useQuery({
    queryKey: queryKey('changes', product, 'removed'),
    queryFn: () => ask(api.GET('/api/changes', { params: { query: { product } } })),
    enabled: Number.isInteger(product),
  }).data
  const removal = changes?.find((c) => c.canUndo && c.bringsBack.includes(product))
  return (
    <main className="max-w-xl mx-auto pt-[14vh] px-6">
      <h1 className="text-[26px] font-bold mb-2">{removal ? 'This product was deleted' : 'This product or place isn’t in your shop'}</h1>
      <p className="quiet mb-5">
        {removal
          ? `${removal.what}, ${dateTimeOf(removal.at)}. Brought back, it has all its listings, picks and versions.`
          : 'The link may be old. Nothing of your shop is lost: History in the menu of your shop has what was deleted.'}
      </p>
      <p className="flex flex-wrap gap-3">
        {removal && (
          <button type="button" className="btn btn-primary" autoFocus onClick={() => turnChange(cache, 'undo', removal.id)}>
            Bring it back
          </button>
        )}
        <a className={removal ? 'btn' : 'btn btn-primary'} href="/">
          Go to my shop
        </a>
      </p>
      <ToastLine />
    </main>
  )
}

/** A product that is not listed on the platform that the address names. */
export function NotHere({ product, market }: { product: Product; market: Market }) {
  const shop = useShop().data
  const { run } = useChanges()
  const add = (from?: number) =>
    run(async () => {
      await ask(
        api.POST('/api/products/{id}/listings/{platformId}', {
          params: { path: { id: product.id, platformId: market.platformId }, query: { from } },
        }),
      )
      return { what: null }
    })
  const back = marketFor(product, shop?.markets ?? [market], market)
  const others = Object.entries(product.listings).flatMap(([platformId, id]) => {
    const name = shop?.markets.find((m) => m.platformId === platformId)?.platformName
    return name ? [{ id, name }] : []
  })
  return (
    <main className="max-w-xl mx-auto pt-[14vh] px-6">
      <h1 className="text-[26px] font-bold mb-2">
        {product.name} isn’t on {market.platformName} yet
      </h1>
      <p className="quiet mb-5">{market.about}</p>
      <p className="flex flex-wrap gap-3">
        <button type="button" className="btn btn-primary" onClick={() => add()}>
          Create listing
        </button>
        {others.map((o) => (
          <button key={o.id} type="button" className="btn" onClick={() => add(o.id)}>
            Duplicate from {o.name}
          </button>
        ))}
        {others.length > 0 && (
          <a className="btn" href={`/${product.id}/${back.id}/dig`}>
            Back to {back.platformName}
          </a>
        )}
      </p>
      <ToastLine />
    </main>
  )
}
