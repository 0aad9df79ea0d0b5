import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, ask, messageOf } from '../kit/api'
import { useChanges } from '../kit/changes'
import { NameDialog } from '../kit/dialog'
import { Menu } from '../kit/menu'
import { messages } from '../kit/messages'
import { refresh } from '../kit/queries'
import { type Desk, lastPlace, marketFor, useShop } from '../kit/shop'

/** What can be done with the product and the listing that are open. */
export function DeskMenu({ desk }: { desk: Desk }) {
  const cache = useQueryClient()
  const shop = useShop().data
  const navigate = useNavigate()
  const { run } = useChanges()
  const [asked, setAsked] = useState<'rename' | 'duplicate' | null>(null)
  const { product, market } = desk
  const path = { id: product.id }
  const rename = (name: string) =>
    run(async () => {
      const { data, error, response } = await api.PUT('/api/products/{id}/name', {
        params: { path },
        body: { name, revision: product.revision },
      })
      if (!data) throw new Error(response.status === 409 ? messages.renamedElsewhere : messageOf(error, response.status))
      return { what: messages.renamed(name) }
    })
  const duplicate = (name: string) =>
    run(async () => {
      const copy = await ask(api.POST('/api/products/{id}/duplicate', { params: { path }, body: { name } }))
      await refresh(cache, 'products')
      navigate(`/${copy.id}/${market.id}/write`)
      return { what: messages.duplicated(product.name) }
    })
  const removeListing = () =>
    run(
      () => ask(api.DELETE('/api/listings/{id}', { params: { path: { id: desk.listingId } } })),
      () => {
        const left = { ...product, listings: Object.fromEntries(Object.entries(product.listings).filter(([p]) => p !== market.platformId)) }
        if (Object.keys(left.listings).length > 0) navigate(`/${product.id}/${marketFor(left, shop?.markets ?? [], market).id}/dig`)
      },
    )
  const removeProduct = () =>
    run(
      () => ask(api.DELETE('/api/products/{id}', { params: { path } })),
      () => {
        lastPlace.forget()
        navigate('/')
      },
    )
  const missing = (shop?.markets ?? []).filter((m) => product.listings[m.platformId] === undefined && m.country === market.country)
  return (
    <>
      <Menu
        label="Product and listing actions"
        items={[
          { heading: product.name },
          { label: 'Rename product…', run: () => setAsked('rename') },
          { label: 'Duplicate product…', run: () => setAsked('duplicate') },
          { label: 'Delete product', run: removeProduct },
          { heading: `Listing on ${market.platformName}` },
          ...missing.map((m) => ({ label: `Add to ${m.platformName}…`, run: () => navigate(`/${product.id}/${m.id}/write`) })),
          { label: 'Delete listing', run: removeListing },
        ]}
      />
      {asked === 'rename' && (
        <NameDialog
          title="Rename product"
          label="Product name"
          value={product.name}
          action="Rename"
          done={rename}
          close={() => setAsked(null)}
        />
      )}
      {asked === 'duplicate' && (
        <NameDialog
          title="Duplicate product"
          label="Name of the copy"
          value={`${product.name} (copy)`}
          action="Duplicate"
          done={duplicate}
          close={() => setAsked(null)}
        />
      )}
    </>
  )
}
