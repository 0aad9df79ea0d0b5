import { api, ask, type Market, type Product } from '../kit/api'
import { useChanges } from '../kit/changes'
import { marketFor, useShop } from '../kit/shop'
import { ToastLine } from '../kit/toast'

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
