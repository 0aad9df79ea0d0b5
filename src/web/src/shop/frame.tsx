import { useEffect, useState } from 'react'
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { openScreen } from '../kit/changes'
import { Door } from '../kit/door/door'
import { openDoor } from '../kit/door/open'
import { Key } from '../kit/key'
import { Pocket } from '../kit/pocket'
import { SampleBadge } from '../kit/sample'
import { type Desk, marketFor, useDesk, useShop } from '../kit/shop'
import { Rabbit, ThemeButton, useSheets } from '../kit/shophead'
import { keysOf, useShortcuts } from '../kit/shortcuts'
import { ToastLine } from '../kit/toast'
import { DeskMenu } from './deskmenu'
import { FindAnything } from './find'
import { Gone, NotHere } from './nothere'
import { Unsaved } from './unsaved'

const steps = [
  ['dig', 'Dig', 'dig'],
  ['pick', 'Pick', 'pickStep'],
  ['write', 'Write', 'write'],
  ['weigh', 'Weigh', 'weigh'],
  ['watch', 'Watch', 'watch'],
] as const

/** The header, the work, the pocket. */
export function Frame() {
  const desk = useDesk()
  const shop = useShop()
  if (shop.isError && !shop.data) return <CouldNotOpen shop={shop} />
  if (!shop.data) return null
  if (!desk) return <Gone />
  if (desk.listingId === undefined) return <NotHere product={desk.product} market={desk.market} />
  return <Framed desk={desk as Desk} />
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
  const sheets = useSheets({ screen: step, product: desk.product.id, listing: desk.listingId })
  useEffect(() => openScreen(pathname), [pathname])
  const go = (to: string) => navigate(`${desk.base}/${to}`)
  useShortcuts({
    search: () => setFinding(true),
    dig: () => go('dig'),
    pickStep: () => go('pick'),
    write: () => go('write'),
    weigh: () => go('weigh'),
    watch: () => go('watch'),
    shopWatch: () => navigate('/watch'),
    listings: () => navigate('/listings'),
    webShop: () => navigate('/pages'),
  })
  const { product, market } = desk
  useEffect(() => {
    document.title = `${product.name} on ${market.platformName}${stepName ? `: ${stepName}` : ''} · Tin Rabbit`
  }, [product.name, market.platformName, stepName])
  return (
    <div className="frame">
      <header className="topbar">
        <Link to="/listings" className="brand" title={`All listings: ${keysOf('listings')[0]}`}>
          <Rabbit />
          <span>Tin Rabbit</span>
        </Link>
        <div className="flex gap-1 items-center min-w-0 text-[14px]" title={shop?.name}>
          <select
            aria-label="Product"
            value={product.id}
            onChange={(e) => {
              if (e.target.value === 'pages') return navigate('/pages')
              if (e.target.value === 'listings') return navigate('/listings')
              const next = shop?.products.find((p) => String(p.id) === e.target.value)
              navigate(next ? `/${next.id}/${marketFor(next, shop?.markets ?? [], market).id}/${step}` : '/new')
            }}
          >
            {shop?.products
              .filter((p) => !p.isPage)
              .map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}
                </option>
              ))}
            <option value="new">Add product…</option>
            <option value="listings">All listings…</option>
            {product.isPage && (
              <optgroup label="Web shop">
                <option value={product.id}>{product.name}</option>
              </optgroup>
            )}
            <option value="pages">All pages of the web shop…</option>
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
          <DeskMenu desk={desk} />
        </div>
        <nav className="steps" aria-label="Steps">
          {steps.map(([path, name, id]) => (
            <NavLink key={path} to={`${desk.base}/${path}`} title={keysOf(id)[0]}>
              {name}
            </NavLink>
          ))}
        </nav>
        <Unsaved />
        <button type="button" className="pill" title="Paste or drop anything: pages, text, tables" onClick={() => openDoor()}>
          Import <Key of="door" />
        </button>
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
      <Door place={{ marketId: market.id, productId: product.id, listingId: desk.listingId }} />
      {finding && <FindAnything desk={desk} close={() => setFinding(false)} />}
    </div>
  )
}
