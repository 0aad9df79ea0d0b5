import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState, useSyncExternalStore } from 'react'
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { api, ask, type Market, type Product } from '../kit/api'
import { stuckDrafts } from '../kit/drafts'
import { useKeys } from '../kit/keys'
import { Pocket } from '../kit/pocket'
import { marketFor, type Place, usePickActions, usePlace, useShop } from '../kit/shop'
import { ToastLine, toast } from '../kit/toast'
import { FindAnything } from './find'
import { KeySheet } from './keysheet'

const steps = [
  ['dig', 'Dig'],
  ['pick', 'Pick'],
  ['write', 'Write'],
  ['weigh', 'Weigh'],
] as const

export function Rabbit() {
  return (
    <svg width="26" height="28" viewBox="0 0 26 28" fill="none" stroke="var(--color-secondary)" strokeWidth="2" aria-hidden="true">
      <path d="M6 12C4 5 5 1.5 7 1.5S10 6 10.5 11M15.5 11C16 6 17 1.5 19 1.5S22 5 20 12" />
      <rect x="3.5" y="11" width="17" height="15.5" rx="3" fill="var(--color-base-100)" />
      <path d="M20.5 14.5h2a2.5 2.5 0 0 1 0 8h-2M3.5 14.5h17" />
    </svg>
  )
}

export function ThemeButton() {
  const [theme, setTheme] = useState(document.documentElement.dataset.theme)
  const turn = () => {
    const next = theme === 'enamel' ? 'night-tin' : 'enamel'
    document.documentElement.dataset.theme = next
    localStorage.setItem('theme', next)
    setTheme(next)
  }
  return (
    <button
      type="button"
      className="pill"
      onClick={turn}
      title={theme === 'enamel' ? 'Dark tin' : 'Cream enamel'}
      aria-label="Change between day and night"
    >
      {theme === 'enamel' ? '☾' : '☀'}
    </button>
  )
}

/** The head, the work, the pocket. */
export function Frame() {
  const place = usePlace()
  const shop = useShop()
  if (shop.isError && !shop.data) return <CouldNotOpen shop={shop} />
  if (!shop.data) return null
  if (!place)
    return (
      <main className="p-10">
        This product or market is not in your shop.{' '}
        <a className="link" href="/">
          Go to my shop
        </a>
      </main>
    )
  if (place.listingId === undefined) return <NotHere product={place.product} market={place.market} />
  return <Framed place={place as Place} />
}

/** The head of what is about the shop as a whole, with the way back to the work. */
export function ShopHead({ name }: { name: string }) {
  const shop = useShop().data
  const back = localStorage.getItem('last') ?? '/'
  useEffect(() => {
    document.title = `${name} · Tin Rabbit`
  }, [name])
  return (
    <header className="topbar">
      <Link to={back} className="flex items-center gap-2 head font-bold text-[17px] tracking-tight whitespace-nowrap">
        <Rabbit />
        Tin Rabbit
      </Link>
      <span className="text-[14px]">
        {shop?.name} <span className="quiet">›</span> <b className="font-semibold">{name}</b>
      </span>
      <Link to={back} className="link ml-auto text-[14px]">
        Back
      </Link>
      <ThemeButton />
    </header>
  )
}

/** The shop could not be loaded at all; what is open stays open when only a later question fails. */
export function CouldNotOpen({ shop }: { shop: ReturnType<typeof useShop> }) {
  return (
    <main className="p-10" role="alert">
      <p className="mb-3">Couldn’t load your shop: {shop.error?.message}. Your data is safe.</p>
      <button type="button" className="btn btn-sm" onClick={() => shop.refetch()}>
        Try again
      </button>
    </main>
  )
}

/** A product that is not listed on the platform that the address names. */
function NotHere({ product, market }: { product: Product; market: Market }) {
  const cache = useQueryClient()
  const shop = useShop().data
  const put = async () => {
    try {
      await ask(
        api.POST('/api/products/{id}/listings/{platformId}', { params: { path: { id: product.id, platformId: market.platformId } } }),
      )
      await cache.invalidateQueries({ queryKey: ['shop'] })
    } catch (e) {
      toast((e as Error).message)
    }
  }
  const back = marketFor(product, shop?.markets ?? [market], market)
  return (
    <main className="max-w-xl mx-auto pt-[14vh] px-6">
      <h1 className="text-[26px] font-bold mb-2">
        {product.name} is not on {market.platformName} yet
      </h1>
      <p className="quiet mb-5">{market.about}</p>
      <p className="flex gap-3">
        <button type="button" className="btn btn-primary" onClick={put}>
          Begin a listing there
        </button>
        <a className="btn" href={`/${product.id}/${back.id}/dig`}>
          Back to {back.platformName}
        </a>
      </p>
      <ToastLine />
    </main>
  )
}

/** Says on every screen that something written elsewhere is not saved, and leads there. */
function Unsaved() {
  const stuck = useSyncExternalStore(stuckDrafts.subscribe, stuckDrafts.snapshot)
  const shop = useShop().data
  const place = usePlace()
  if (stuck.length === 0 || !shop) return null
  const { kind, id } = stuck[0]
  const product = shop.products.find((p) => (kind === 'pictures' ? p.id === id : Object.values(p.listings).includes(id)))
  const platform = product && Object.entries(product.listings).find(([, l]) => l === id)?.[0]
  const market =
    shop.markets.find((m) => m.platformId === platform && m.country === place?.market.country) ??
    shop.markets.find((m) => m.platformId === platform)
  const to = product ? `/${product.id}/${(market ?? marketFor(product, shop.markets, place?.market)).id}/write` : '/'
  return (
    <Link className="pill alert" to={to} data-testid="unsaved" title="Kept in this browser until it is saved">
      {stuck.length === 1 ? '1 text not saved' : `${stuck.length} texts not saved`}
    </Link>
  )
}

function Framed({ place }: { place: Place }) {
  const shop = useShop().data
  const navigate = useNavigate()
  const { pathname, search } = useLocation()
  const step = pathname.split('/')[3] ?? 'dig'
  // The next start goes where one was last; only a step that there is.
  useEffect(() => {
    if (steps.some(([path]) => pathname === `${place.base}/${path}`)) localStorage.setItem('last', pathname + search)
  }, [pathname, search, place.base])
  const [sheet, setSheet] = useState<'keys' | 'find' | null>(null)
  const actions = usePickActions(place)
  const go = (to: string) => navigate(`${place.base}/${to}`)
  useKeys(
    {
      'Ctrl+k': () => setSheet(sheet === 'find' ? null : 'find'),
      '?': () => setSheet(sheet === 'keys' ? null : 'keys'),
      'Alt+1': () => go('dig'),
      'Alt+2': () => go('pick'),
      'Alt+3': () => go('write'),
      'Alt+4': () => go('weigh'),
      'Ctrl+z': () => actions.undo(),
      u: () => actions.undo(),
    },
    ['Ctrl+z'],
  )
  useEffect(() => {
    document.title = `${place.product.name} · Tin Rabbit`
  }, [place.product.name])
  return (
    <div className="frame">
      <header className="topbar">
        <NavLink to={`${place.base}/dig`} className="flex items-center gap-2 head font-bold text-[17px] tracking-tight whitespace-nowrap">
          <Rabbit />
          Tin Rabbit
        </NavLink>
        <div className="flex gap-1 items-baseline min-w-0 text-[14px]" title={shop?.name}>
          <select
            aria-label="Product"
            value={place.product.id}
            onChange={(e) => {
              const next = shop?.products.find((p) => String(p.id) === e.target.value)
              navigate(next ? `/${next.id}/${marketFor(next, shop?.markets ?? [], place.market).id}/${step}` : '/new')
            }}
          >
            {shop?.products.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
            <option value="new">Another product…</option>
          </select>
          <span className="quiet">{step === 'dig' ? 'in' : 'on'}</span>
          <select
            aria-label="Market"
            value={place.market.id}
            onChange={(e) =>
              navigate(
                e.target.value === 'platforms'
                  ? `/platforms?id=${place.market.platformId}`
                  : `/${place.product.id}/${e.target.value}/${step}`,
              )
            }
            title={place.market.about}
          >
            {shop?.markets
              .filter((m) => place.product.listings[m.platformId] !== undefined)
              .map((m) => (
                <option key={m.id} value={m.id}>
                  {m.platformName}, {m.countryName}
                </option>
              ))}
            <optgroup label="Not listed there yet">
              {shop?.markets
                .filter((m) => place.product.listings[m.platformId] === undefined && m.country === place.market.country)
                .map((m) => (
                  <option key={m.id} value={m.id}>
                    {m.platformName}…
                  </option>
                ))}
            </optgroup>
            <option value="platforms">Platforms and their limits…</option>
          </select>
        </div>
        <nav className="steps" aria-label="Steps">
          {steps.map(([path, name], i) => (
            <NavLink key={path} to={`${place.base}/${path}`} title={`Alt ${i + 1}`}>
              {name}
            </NavLink>
          ))}
        </nav>
        <Unsaved />
        <button type="button" className="pill" onClick={() => setSheet('find')}>
          Search <kbd>Ctrl K</kbd>
        </button>
        <button type="button" className="pill" onClick={() => setSheet('keys')} aria-label="Keys">
          Keys <kbd>?</kbd>
        </button>
        <Link className="pill" to="/settings" aria-label="Settings" title="Settings: backups">
          ⚙
        </Link>
        <ThemeButton />
      </header>
      <Outlet context={place} key={`${place.listingId} ${place.market.id}`} />
      <Pocket place={place} />
      <ToastLine />
      {sheet === 'keys' && <KeySheet close={() => setSheet(null)} />}
      {sheet === 'find' && <FindAnything place={place} close={() => setSheet(null)} />}
    </div>
  )
}
