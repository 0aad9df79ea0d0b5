import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState, useSyncExternalStore } from 'react'
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { api, ask, type Market, messageOf, type Product } from '../kit/api'
import { useChanges } from '../kit/changes'
import { NameDialog } from '../kit/dialog'
import { stuckDrafts } from '../kit/drafts/drafts'
import { useFocusKeeper } from '../kit/focus'
import { Key } from '../kit/key'
import { Menu } from '../kit/menu'
import { messages } from '../kit/messages'
import { Pocket } from '../kit/pocket'
import { refresh } from '../kit/queries'
import { SampleBadge } from '../kit/sample'
import { type Desk, marketFor, useDesk, useShop } from '../kit/shop'
import { keysOf, useShortcuts } from '../kit/shortcuts'
import { ToastLine } from '../kit/toast'
import { FindAnything } from './find'
import { History } from './history'
import { KeySheet } from './keysheet'

const steps = [
  ['dig', 'Dig', 'dig'],
  ['pick', 'Pick', 'pickStep'],
  ['write', 'Write', 'write'],
  ['weigh', 'Weigh', 'weigh'],
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
  const change = () => {
    const next = theme === 'enamel' ? 'night-tin' : 'enamel'
    document.documentElement.dataset.theme = next
    localStorage.setItem('theme', next)
    setTheme(next)
  }
  return (
    <button
      type="button"
      className="pill"
      onClick={change}
      title={theme === 'enamel' ? 'Switch to the dark theme' : 'Switch to the light theme'}
    >
      <span aria-hidden="true">{theme === 'enamel' ? '☾' : '☀'}</span>
      <span className="sr-only">Switch theme</span>
    </button>
  )
}

/** The header, the work, the pocket. */
export function Frame() {
  const desk = useDesk()
  const shop = useShop()
  if (shop.isError && !shop.data) return <CouldNotOpen shop={shop} />
  if (!shop.data) return null
  if (!desk)
    return (
      <main className="p-10">
        This product or platform isn’t in your shop.{' '}
        <a className="link" href="/">
          Go to my shop
        </a>
      </main>
    )
  if (desk.listingId === undefined) return <NotHere product={desk.product} market={desk.market} />
  return <Framed desk={desk as Desk} />
}

/** What every screen has: undo, the history and the sheet of shortcuts by key, and a focus that is never lost. */
function useSheets(product?: number) {
  const [sheet, setSheet] = useState<'keys' | 'history' | null>(null)
  const { undo } = useChanges(product)
  useFocusKeeper()
  useShortcuts({
    undo: () => undo(),
    history: () => setSheet('history'),
    sheet: () => setSheet('keys'),
  })
  const close = () => setSheet(null)
  return {
    showHistory: () => setSheet('history'),
    open: sheet === 'keys' ? <KeySheet close={close} /> : sheet === 'history' ? <History product={product} close={close} /> : null,
  }
}

/** The header of screens about the shop as a whole, with the way back to the listing. */
export function ShopHead({ name }: { name: string }) {
  const shop = useShop().data
  const navigate = useNavigate()
  const back = localStorage.getItem('last') ?? '/'
  const sheets = useSheets()
  useShortcuts({ dig: () => navigate(back) })
  useEffect(() => {
    document.title = `${name} · Tin Rabbit`
  }, [name])
  return (
    <header className="topbar">
      <Link to={back} className="brand">
        <Rabbit />
        <span>Tin Rabbit</span>
      </Link>
      <span className="text-[14px]">
        {shop?.name} <span className="quiet">›</span> <b className="font-semibold">{name}</b>
      </span>
      <Link to={back} className="link ml-auto text-[14px]">
        Back to listing
      </Link>
      <button type="button" className="pill" onClick={sheets.showHistory}>
        History <Key of="history" />
      </button>
      {name !== 'Help' && (
        <Link className="pill" to="/help">
          Help
        </Link>
      )}
      <ThemeButton />
      {sheets.open}
    </header>
  )
}

/** The shop could not be loaded at all; what is open stays open when only a later question fails. */
export function CouldNotOpen({ shop }: { shop: ReturnType<typeof useShop> }) {
  return (
    <main className="p-10" role="alert">
      <p className="mb-3">Couldn’t load your shop: {shop.error?.message} Your data is safe; reload to try again.</p>
      <button type="button" className="btn btn-sm" onClick={() => shop.refetch()}>
        Reload
      </button>
    </main>
  )
}

/** A product that is not listed on the platform that the address names. */
function NotHere({ product, market }: { product: Product; market: Market }) {
  const shop = useShop().data
  const { run } = useChanges(product.id)
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

/** Shows on every screen that a text is not saved, and links to it. */
function Unsaved() {
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

/** What can be done with the product and the listing that are open. */
function PlaceMenu({ desk }: { desk: Desk }) {
  const cache = useQueryClient()
  const shop = useShop().data
  const navigate = useNavigate()
  const { run } = useChanges(desk.product.id)
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
        localStorage.removeItem('last')
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

function Framed({ desk }: { desk: Desk }) {
  const shop = useShop().data
  const navigate = useNavigate()
  const { pathname, search } = useLocation()
  const step = pathname.split('/')[3] ?? 'dig'
  const stepName = steps.find(([path]) => path === step)?.[1]
  // The next start goes where one was last; only a step that there is.
  useEffect(() => {
    if (steps.some(([path]) => pathname === `${desk.base}/${path}`)) localStorage.setItem('last', pathname + search)
  }, [pathname, search, desk.base])
  const [finding, setFinding] = useState(false)
  const sheets = useSheets(desk.product.id)
  const go = (to: string) => navigate(`${desk.base}/${to}`)
  useShortcuts({
    search: () => setFinding(true),
    dig: () => go('dig'),
    pickStep: () => go('pick'),
    write: () => go('write'),
    weigh: () => go('weigh'),
  })
  const { product, market } = desk
  useEffect(() => {
    document.title = `${product.name} on ${market.platformName}${stepName ? `: ${stepName}` : ''} · Tin Rabbit`
  }, [product.name, market.platformName, stepName])
  return (
    <div className="frame">
      <header className="topbar">
        <NavLink to={`${desk.base}/dig`} className="brand">
          <Rabbit />
          <span>Tin Rabbit</span>
        </NavLink>
        <div className="flex gap-1 items-center min-w-0 text-[14px]" title={shop?.name}>
          <select
            aria-label="Product"
            value={product.id}
            onChange={(e) => {
              const next = shop?.products.find((p) => String(p.id) === e.target.value)
              navigate(next ? `/${next.id}/${marketFor(next, shop?.markets ?? [], market).id}/${step}` : '/new')
            }}
          >
            {shop?.products.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
            <option value="new">Add product…</option>
          </select>
          <span className="quiet">{step === 'dig' ? 'in' : 'on'}</span>
          <select
            aria-label="Platform and country"
            value={market.id}
            onChange={(e) =>
              navigate(e.target.value === 'platforms' ? `/platforms?id=${market.platformId}` : `/${product.id}/${e.target.value}/${step}`)
            }
            title={market.about}
          >
            {shop?.markets
              .filter((m) => product.listings[m.platformId] !== undefined)
              .map((m) => (
                <option key={m.id} value={m.id}>
                  {m.platformName}, {m.countryName}
                </option>
              ))}
            <optgroup label="Add to another platform">
              {shop?.markets
                .filter((m) => product.listings[m.platformId] === undefined && m.country === market.country)
                .map((m) => (
                  <option key={m.id} value={m.id}>
                    {m.platformName}…
                  </option>
                ))}
            </optgroup>
            <option value="platforms">Manage platforms…</option>
          </select>
          <SampleBadge market={market} />
          <PlaceMenu desk={desk} />
        </div>
        <nav className="steps" aria-label="Steps">
          {steps.map(([path, name, id]) => (
            <NavLink key={path} to={`${desk.base}/${path}`} title={keysOf(id)[0]}>
              {name}
            </NavLink>
          ))}
        </nav>
        <Unsaved />
        <button type="button" className="pill" onClick={() => setFinding(true)}>
          Search <Key of="search" />
        </button>
        <Link className="pill" to="/help" title="Help: how the numbers work, glossary, keyboard shortcuts">
          Help
        </Link>
        <Link className="pill" to="/settings" title="Settings">
          <span aria-hidden="true">⚙</span>
          <span className="sr-only">Settings</span>
        </Link>
        <ThemeButton />
      </header>
      <Outlet context={desk} key={`${desk.listingId} ${market.id}`} />
      <ToastLine />
      <Pocket desk={desk} />
      {sheets.open}
      {finding && <FindAnything desk={desk} close={() => setFinding(false)} />}
    </div>
  )
}
