import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { Navigate, useNavigate } from 'react-router'
import { api, ask, type Shop } from '../kit/api'
import { Door } from '../kit/door/door'
import { openDoor } from '../kit/door/open'
import { queryKey } from '../kit/queries'
import { marketFor, useShop } from '../kit/shop'
import { Rabbit, ThemeButton } from '../kit/shophead'
import { ToastLine } from '../kit/toast'
import { CountrySelect, CurrencySelect, LanguageSelect, languageOf, region, useCountries } from './countries'
import { CouldNotOpen } from './frame'
import { addPlatform, begunFrom } from './newplatform'

/** The list of all listings; with one listing alone, that; without any, the form for the first product. */
export function Start() {
  const shop = useShop()
  if (!shop.data) return shop.isError ? <CouldNotOpen shop={shop} /> : null
  const products = shop.data.products.filter((p) => !p.isPage && !p.isIdea)
  if (products.reduce((sum, p) => sum + Object.keys(p.listings).length, 0) > 1) return <Navigate to="/listings" replace />
  const product = products[0] ?? shop.data.products[0]
  return product ? (
    <Navigate to={`/${product.id}/${marketFor(product, shop.data.markets, undefined).id}/dig`} replace />
  ) : (
    <Navigate to="/new" replace />
  )
}

const another = 'another place'

type Home = { currency: string; countries: string[]; language: string }

/** Where the seller is: asked once, in a shop that no source of numbers is connected to. Null where it is known, or of no use. */
function useHome(shop: Shop | undefined): [Home | null, (home: Home) => void] {
  const [home, setHome] = useState<Home | null>(null)
  const countries = useCountries(shop !== undefined && !shop.isConnected && shop.countries.length === 0)
  useEffect(() => {
    const here = countries?.find((c) => c.code === region()) ?? countries?.find((c) => c.code === 'us')
    if (here) setHome((now) => now ?? { currency: here.currency, countries: [here.code], language: languageOf(here.code) })
  }, [countries])
  return [home, setHome]
}

function HomePart({ home, change }: { home: Home; change: (home: Home) => void }) {
  return (
    <fieldset className="mb-4">
      <legend className="sub">Where you sell from</legend>
      <div className="grid grid-cols-3 gap-3">
        <CountrySelect
          name="Country"
          value={home.countries[0] ?? ''}
          change={(c) => change({ currency: c.currency, countries: [c.code], language: languageOf(c.code) })}
        />
        <LanguageSelect name="Language you write in" value={home.language} change={(language) => change({ ...home, language })} />
        <CurrencySelect value={home.currency} change={(currency) => change({ ...home, currency })} />
      </div>
    </fieldset>
  )
}

/** The demo shop beside one's own, in a window of its own. */
function SampleShop() {
  const [opening, setOpening] = useState(false)
  const [problem, setProblem] = useState('')
  const open = async () => {
    setOpening(true)
    setProblem('')
    // Opened by the click, or the browser refuses it.
    const tab = window.open('', '_blank')
    try {
      const { address } = await ask(api.POST('/api/sample-shop'))
      if (tab) tab.location.href = address
      else window.location.href = address
    } catch (e) {
      tab?.close()
      setProblem((e as Error).message)
    }
    setOpening(false)
  }
  return (
    <p className="mt-8 pt-4 border-t border-base-300 text-[14px]">
      Just looking?{' '}
      <button type="button" className="link" onClick={open} disabled={opening}>
        {opening ? 'Opening the sample shop…' : 'Try it with sample data'}
      </button>{' '}
      <span className="quiet">A made-up shop with made-up numbers opens beside yours. Nothing of it gets into your shop.</span>
      {problem && (
        <span className="block text-accent" role="alert">
          {problem}
        </span>
      )}
    </p>
  )
}

/** What is sold, what shoppers call it, and where. */
export function NewProduct() {
  const shop = useShop().data
  const platforms = useQuery({ queryKey: queryKey('platforms'), queryFn: () => ask(api.GET('/api/platforms')) }).data?.platforms
  const [name, setName] = useState('')
  const [what, setWhat] = useState('')
  const [where, setWhere] = useState('')
  const [place, setPlace] = useState('')
  const [like, setLike] = useState('')
  const [error, setError] = useState('')
  const navigate = useNavigate()
  const cache = useQueryClient()
  const first = (shop?.products.length ?? 0) === 0
  useEffect(() => {
    document.title = 'Add product · Tin Rabbit'
  }, [])
  const [home, setHome] = useHome(shop)
  const isSomewhere = where !== '' && (where !== another || (place.trim() !== '' && like !== ''))
  const missing = !name.trim() || !isSomewhere
  const [importTo, setImportTo] = useState<string>()
  const marketId = importTo ?? shop?.markets[0]?.id
  /** Saves where the seller is, and makes the place where it is a new one. */
  const settle = async () => {
    if (home) await ask(api.PUT('/api/shop', { body: home }))
    const nearest = where === another && platforms?.find((p) => p.id === like)
    if (!nearest) return where
    const { id } = await addPlatform(begunFrom(nearest, place.trim(), false), nearest.id)
    setWhere(id)
    return id
  }
  const bring = async () => {
    setError('')
    try {
      const platform = await settle()
      await cache.invalidateQueries()
      const fresh = await ask(api.GET('/api/shop'))
      setImportTo(fresh.markets.find((m) => m.platformId === platform)?.id)
      openDoor({ done: () => navigate('/') })
    } catch (e) {
      setError((e as Error).message)
    }
  }
  const add = async () => {
    setError('')
    try {
      const platform = await settle()
      const facts = { what: what.trim(), materials: [], colours: [], sizes: [], audiences: [], occasions: [] }
      const product = await ask(
        api.POST('/api/products', {
          body: { name: name.trim(), facts, pictures: null, platforms: [platform], picks: null, isIdea: false },
        }),
      )
      await cache.invalidateQueries()
      const fresh = await ask(api.GET('/api/shop'))
      const market = fresh.markets.find((m) => m.platformId === platform)
      navigate(`/${product.id}/${market?.id}/dig${what.trim() ? `?term=${encodeURIComponent(what.trim())}` : ''}`)
    } catch (e) {
      setError((e as Error).message)
    }
  }
  return (
    <div className="h-dvh overflow-auto">
      <main className="max-w-2xl mx-auto pt-[7vh] pb-10 px-6">
        <div className="flex items-center gap-2 head font-bold text-[22px] mb-6">
          <Rabbit /> Tin Rabbit <span className="ml-auto" />
          {!first && (
            <a className="link text-[14px] font-normal font-sans" href="/">
              Cancel
            </a>
          )}
          <ThemeButton />
        </div>
        <h1 className="text-[30px] font-bold leading-tight mb-2">{first ? 'Add your first product' : 'Add a product'}</h1>
        <p className="quiet mb-6">
          Find out what shoppers search for, pick the terms that fit, and write a listing that is found for them.
        </p>
        <form
          onSubmit={(e) => {
            e.preventDefault()
            if (!missing) add()
          }}
        >
          {home && <HomePart home={home} change={setHome} />}
          <label className="block mb-4">
            <span className="sub block">Product name</span>
            <input
              autoFocus
              className="input w-full"
              value={name}
              onChange={(e) => setName(e.target.value)}
              placeholder="e.g. Linen notebook, A5"
              maxLength={120}
              required
            />
          </label>
          <label className="block mb-4">
            <span className="sub block">What shoppers call it (used for your first search)</span>
            <input
              className="input w-full"
              value={what}
              onChange={(e) => setWhat(e.target.value)}
              placeholder="e.g. notebook"
              maxLength={120}
            />
          </label>
          <fieldset className="mb-5">
            <legend className="sub">Where you sell it</legend>
            {shop && !shop.isConnected && (
              <p className="quiet text-[13.5px]">
                These are templates: the rules of made-up places, one of each kind. For your own marketplace choose Another place.
              </p>
            )}
            {platforms?.map((p) => (
              <label key={p.id} className="flex gap-2.5 items-baseline py-1.5 cursor-pointer">
                <input
                  type="radio"
                  name="where"
                  className="radio radio-sm radio-primary self-start mt-0.5"
                  checked={where === p.id}
                  onChange={() => setWhere(p.id)}
                />
                <span>
                  <b className="font-semibold">{p.name}</b> <span className="quiet text-[13.5px]">{p.about}</span>
                </span>
              </label>
            ))}
            <label className="flex gap-2.5 items-baseline py-1.5 cursor-pointer">
              <input
                type="radio"
                name="where"
                className="radio radio-sm radio-primary self-start mt-0.5"
                checked={where === another}
                onChange={() => setWhere(another)}
              />
              <span>
                <b className="font-semibold">Another place</b>{' '}
                <span className="quiet text-[13.5px]">Start from the one above that is most like it, then enter its own limits.</span>
              </span>
            </label>
            {where === another && (
              <div className="grid grid-cols-2 gap-3 ml-8 mt-1">
                <label className="text-[14px]">
                  Its name
                  <input
                    className="input input-sm w-full mt-1"
                    value={place}
                    onChange={(e) => setPlace(e.target.value)}
                    placeholder="e.g. Paper Lane"
                    maxLength={60}
                    required
                  />
                </label>
                <label className="text-[14px]">
                  Most like
                  <select className="select select-sm w-full mt-1" value={like} onChange={(e) => setLike(e.target.value)} required>
                    <option value="">Choose…</option>
                    {platforms?.map((p) => (
                      <option key={p.id} value={p.id}>
                        {p.name}
                      </option>
                    ))}
                  </select>
                </label>
              </div>
            )}
          </fieldset>
          {error && (
            <p className="text-accent mb-3" role="alert">
              {error}
            </p>
          )}
          <button type="submit" className="btn btn-primary" disabled={missing}>
            {what.trim() ? `Add product and search for “${what.trim()}”` : 'Add product'}
          </button>
          <p className="mt-4 text-[14px]">
            <span className="quiet">Selling already?</span>{' '}
            <button type="button" className="link disabled:opacity-60" disabled={!isSomewhere} onClick={bring}>
              Import your listings…
            </button>{' '}
            <span className="quiet">
              The marketplace’s own export (CSV, XLSX), saved pages, or one copied listing.{!isSomewhere && ' Choose the place first.'}
            </span>
          </p>
        </form>
        {first && shop && !shop.isConnected && <SampleShop />}
      </main>
      <ToastLine />
      {marketId !== undefined && <Door place={{ marketId, screen: 'listings' }} />}
    </div>
  )
}
