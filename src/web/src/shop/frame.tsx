import { useEffect, useState } from 'react'
import { NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { api, ask } from '../kit/api'
import { openScreen, useChanges } from '../kit/changes'
import { NameDialog } from '../kit/dialog'
import { Door } from '../kit/door/door'
import { NextLine } from '../kit/next'
import { Pocket } from '../kit/pocket'
import { useResearch } from '../kit/research'
import { SampleBadge } from '../kit/sample'
import { type Desk, lastPlace, marketFor, useDesk, useShop } from '../kit/shop'
import { ShopBar } from '../kit/shophead'
import { keysOf, useShortcuts } from '../kit/shortcuts'
import { ToastLine } from '../kit/toast'
import { DeskMenu } from './deskmenu'
import { Gone, NotHere } from './nothere'

const steps = [
  ['dig', 'Dig', 'dig'],
  ['pick', 'Pick', 'pickStep'],
  ['write', 'Write', 'write'],
  ['weigh', 'Weigh', 'weigh'],
  ['watch', 'Watch', 'watch'],
] as const

/** An idea has no text yet. */
const stepsOfIdeas = steps.slice(0, 2)

/** The header of a listing, the work, the pocket. */
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

/** An idea becomes a product, with its picks and its lead. */
function BecomeProduct({ desk }: { desk: Desk }) {
  const { run } = useChanges()
  const navigate = useNavigate()
  const [isAsked, setAsked] = useState(false)
  const become = (name: string) =>
    run(
      () => ask(api.POST('/api/products/{id}/become', { params: { path: { id: desk.product.id } }, body: { name } })),
      () => navigate(`${desk.base}/write`),
    )
  return (
    <>
      <button type="button" className="btn btn-sm btn-primary" onClick={() => setAsked(true)}>
        Make it a product…
      </button>
      {isAsked && (
        <NameDialog
          title="Make it a product"
          label="Product name"
          value={desk.product.name}
          action="Make it a product"
          done={become}
          close={() => setAsked(false)}
        />
      )}
    </>
  )
}

function Framed({ desk }: { desk: Desk }) {
  const shop = useShop().data
  const navigate = useNavigate()
  const { pathname, search } = useLocation()
  const research = useResearch()
  const step = pathname.split('/')[3] ?? 'dig'
  const stepName = steps.find(([path]) => path === step)?.[1]
  // The next start goes where one was last; only a step that there is.
  useEffect(() => {
    if (steps.some(([path]) => pathname === `${desk.base}/${path}`)) lastPlace.keep(pathname + search)
  }, [pathname, search, desk.base])
  useEffect(() => openScreen(pathname), [pathname])
  const go = (to: string) => navigate(`${desk.base}/${to}`)
  useShortcuts({
    dig: () => go('dig'),
    pickStep: () => go('pick'),
    write: () => go('write'),
    weigh: () => go('weigh'),
    watch: () => go('watch'),
  })
  const { product, market } = desk
  useEffect(() => {
    document.title = `${product.name} on ${market.platformName}${stepName ? `: ${stepName}` : ''} · Tin Rabbit`
  }, [product.name, market.platformName, stepName])
  return (
    <div className="frame">
      <header className="topbar">
        <ShopBar place={{ screen: step, product: product.id, listing: desk.listingId }} desk={desk} />
        <div className="deskbar">
          <div className="flex gap-1 items-center min-w-0 text-[14px]" title={shop?.name}>
            <select
              aria-label="Product"
              value={product.id}
              onChange={(e) => {
                if (e.target.value === 'idea') return research(market, true)
                const next = shop?.products.find((p) => String(p.id) === e.target.value)
                navigate(next ? `/${next.id}/${marketFor(next, shop?.markets ?? [], market).id}/${step}` : '/new')
              }}
            >
              {shop?.products
                .filter((p) => !p.isPage && !p.isIdea)
                .map((p) => (
                  <option key={p.id} value={p.id}>
                    {p.name}
                  </option>
                ))}
              <option value="new">Add product…</option>
              <optgroup label="Research before a product">
                {shop?.products
                  .filter((p) => p.isIdea)
                  .map((p) => (
                    <option key={p.id} value={p.id}>
                      {p.name}
                    </option>
                  ))}
                <option value="idea">New idea…</option>
              </optgroup>
              {product.isPage && (
                <optgroup label="Web shop">
                  <option value={product.id}>{product.name}</option>
                </optgroup>
              )}
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
            {(product.isIdea ? stepsOfIdeas : steps).map(([path, name, id]) => (
              <NavLink key={path} to={`${desk.base}/${path}`} title={keysOf(id)[0]}>
                {name}
              </NavLink>
            ))}
          </nav>
          {product.isIdea && <BecomeProduct desk={desk} />}
        </div>
      </header>
      <Outlet context={desk} key={`${desk.listingId} ${market.id}`} />
      <ToastLine />
      <NextLine desk={desk} />
      <Pocket desk={desk} />
      <Door place={{ marketId: market.id, screen: step, productId: product.id, listingId: desk.listingId }} />
    </div>
  )
}
