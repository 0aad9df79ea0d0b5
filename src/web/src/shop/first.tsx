import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Navigate, useNavigate } from 'react-router'
import { api, ask } from '../kit/api'
import { marketFor, useShop } from '../kit/shop'
import { CouldNotOpen, Rabbit, ThemeButton } from './frame'

/** Where one was last, or the first product, or the place to name it. */
export function Start() {
  const shop = useShop()
  if (!shop.data) return shop.isError ? <CouldNotOpen shop={shop} /> : null
  const product = shop.data.products[0]
  const last = localStorage.getItem('last')
  const [, id, market] = last?.split(/[/?]/) ?? []
  if (last && shop.data.products.some((p) => String(p.id) === id) && shop.data.markets.some((m) => m.id === market))
    return <Navigate to={last} replace />
  return product ? (
    <Navigate to={`/${product.id}/${marketFor(product, shop.data.markets, undefined).id}/dig`} replace />
  ) : (
    <Navigate to="/new" replace />
  )
}

/** An empty shop begins with what is sold. */
export function NewProduct() {
  const shop = useShop().data
  const [name, setName] = useState('')
  const [what, setWhat] = useState('')
  const [error, setError] = useState('')
  const navigate = useNavigate()
  const cache = useQueryClient()
  const add = async () => {
    try {
      const facts = { what: what.trim(), materials: [], colours: [], sizes: [], audiences: [], occasions: [] }
      const product = await ask(api.POST('/api/products', { body: { name, facts, pictures: null } }))
      await cache.invalidateQueries({ queryKey: ['shop'] })
      navigate(`/${product.id}/${shop?.markets[0].id}/dig${what.trim() ? `?term=${encodeURIComponent(what.trim())}` : ''}`)
    } catch (e) {
      setError((e as Error).message)
    }
  }
  return (
    <main className="max-w-xl mx-auto pt-[14vh] px-6">
      <div className="flex items-center gap-2 head font-bold text-[22px] mb-6">
        <Rabbit /> Tin Rabbit <span className="ml-auto" />
        <ThemeButton />
      </div>
      <h1 className="text-[30px] font-bold leading-tight mb-2">{shop?.products.length ? 'Another product' : 'What do you sell first?'}</h1>
      <p className="quiet mb-6">
        Look up what shoppers type for it, keep the terms worth having, write its listing so that they find it, and copy it out.
      </p>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          add()
        }}
      >
        <label className="block mb-4">
          <span className="sub block">Its name in your shop</span>
          <input
            autoFocus
            className="input w-full"
            value={name}
            onChange={(e) => setName(e.target.value)}
            placeholder="Wren nest box, cedar"
            maxLength={120}
          />
        </label>
        <label className="block mb-5">
          <span className="sub block">What a shopper would call it</span>
          <input className="input w-full" value={what} onChange={(e) => setWhat(e.target.value)} placeholder="nest box" maxLength={120} />
          <span className="quiet text-[13px]">A broad word is a good place to start digging.</span>
        </label>
        {error && <p className="text-accent mb-3">{error}</p>}
        <button type="submit" className="btn btn-primary" disabled={!name.trim()}>
          Start digging
        </button>
      </form>
    </main>
  )
}
