import { closestCenter, DndContext, type DragEndEvent, type DragMoveEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type Page, type Site, type WeighedListing } from '../kit/api'
import { useChanges } from '../kit/changes'
import { Key } from '../kit/key'
import { useListings } from '../kit/listings'
import { Menu } from '../kit/menu'
import { counted } from '../kit/numbers'
import { changePage, type PageChange, usePages } from '../kit/pages'
import { useShortcuts } from '../kit/shortcuts'
import { AddPage } from './addpage'
import { Categories } from './categories'
import { DeletePage } from './deletepage'
import { OutlineDialog } from './outline'
import { branch, type Place, placeByDrag, placeByKey } from './tree'

const Indent = 22
const RowHeight = 35
const none: Page[] = []
const kinds = { product: 'Product', category: 'Category', content: 'Content' } as const

/** The page tree: ordered by hand, nested to any depth, each page with its lead, its address and its state. */
export function TreePart({ site }: { site: Site | undefined }) {
  const loaded = usePages()
  const pages = loaded.data?.pages ?? none
  const { rows: listings } = useListings(null)
  const scores = useMemo(() => new Map(listings.map((l) => [l.id, l.score])), [listings])
  const [params, set] = useAddress()
  const navigate = useNavigate()
  const { run } = useChanges()
  const [asked, setAsked] = useState<'add' | 'outline' | 'delete' | 'categories' | null>(null)
  const [level, setLevel] = useState<number | null>(null)
  const list = useRef<HTMLDivElement>(null)
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }))
  const ids = useMemo(() => pages.map((p) => p.id), [pages])
  // Only the rows in sight exist: a shop may have twenty thousand pages.
  const virtual = useVirtualizer({ count: pages.length, getScrollElement: () => list.current, estimateSize: () => RowHeight, overscan: 12 })
  const found = pages.findIndex((p) => String(p.id) === params.get('at'))
  const at = Math.max(0, found)
  const page: Page | undefined = pages[at]
  const go = (to: number) => {
    const next = pages[Math.max(0, Math.min(pages.length - 1, to))]
    if (next) set({ at: String(next.id) })
  }
  const open = (p: Page | undefined) => p && site?.marketId && navigate(`/${p.productId}/${site.marketId}/write`)
  const move = (p: Page, place: Place | null) =>
    place && run(() => ask(api.PUT('/api/pages/{id}/place', { params: { path: { id: p.id } }, body: place })))
  const change = (p: Page, what: PageChange) => run(() => changePage(p, what))
  useEffect(() => {
    if (found >= 0) virtual.scrollToIndex(found)
  }, [found, virtual])
  useShortcuts({
    down: () => go(at + 1),
    up: () => go(at - 1),
    first: () => go(0),
    last: () => go(pages.length - 1),
    open: () => open(page),
    moveUp: () => page && move(page, placeByKey(pages, page, 'up')),
    moveDown: () => page && move(page, placeByKey(pages, page, 'down')),
    moveIn: () => page && move(page, placeByKey(pages, page, 'in')),
    moveOut: () => page && move(page, placeByKey(pages, page, 'out')),
    addPage: () => setAsked('add'),
    outline: () => setAsked('outline'),
    deletePage: () => page && setAsked('delete'),
    inMenu: () => page && change(page, { inMenu: !page.inMenu }),
    publishPage: () => page && change(page, { isPublished: !page.isPublished }),
  })
  const shift = (e: DragMoveEvent | DragEndEvent) => {
    const dragged = pages.find((p) => p.id === Number(e.active.id))
    return Math.max(0, (dragged?.level ?? 0) + Math.round(e.delta.x / Indent))
  }
  const drop = (e: DragEndEvent) => {
    setLevel(null)
    const dragged = pages.find((p) => p.id === Number(e.active.id))
    if (dragged && e.over) move(dragged, placeByDrag(pages, dragged.id, Number(e.over.id), shift(e)))
  }
  const itemsOf = (p: Page, i: number) => [
    { label: 'Write', run: () => open(p) },
    { label: p.isPublished ? 'Change to draft' : 'Publish', run: () => change(p, { isPublished: !p.isPublished }) },
    { label: p.inMenu ? 'Hide in the menu' : 'Show in the menu', run: () => change(p, { inMenu: !p.inMenu }) },
    {
      label: p.hasSuffix ? 'Leave the site’s addition out of its title' : 'Add the site’s addition to its title',
      run: () => change(p, { hasSuffix: !p.hasSuffix }),
    },
    ...(p.kind === 'product'
      ? [
          {
            label: 'Categories…',
            run: () => {
              go(i)
              setAsked('categories')
            },
          },
        ]
      : p.kind === 'category'
        ? [{ label: 'Change to a content page', run: () => change(p, { kind: 'content' }) }]
        : [{ label: 'Change to a category', run: () => change(p, { kind: 'category' }) }]),
    ...(p.isHome ? [] : [{ label: 'Make it the home page', run: () => change(p, { isHome: true }) }]),
    {
      label: 'Delete…',
      run: () => {
        go(i)
        setAsked('delete')
      },
    },
  ]
  const drafts = pages.filter((p) => !p.isPublished).length
  return (
    <section
      className="grid min-h-0 px-5 max-[760px]:px-2"
      style={{ gridTemplateColumns: 'minmax(0,1fr)', gridTemplateRows: 'auto auto minmax(0,1fr) auto' }}
      data-testid="pages"
    >
      <div className="flex flex-wrap gap-2 items-center py-2">
        <h1 className="text-[20px] font-bold mr-2">
          {counted(pages.length, 'page')}
          {drafts > 0 && <small className="quiet text-[14px] font-normal font-sans">, {counted(drafts, 'draft')}</small>}
        </h1>
        <button type="button" className="pill" onClick={() => setAsked('add')}>
          Add page <Key of="addPage" />
        </button>
        <button type="button" className="pill" onClick={() => setAsked('outline')}>
          Paste an outline <Key of="outline" />
        </button>
        <span className="quiet text-[13px] ml-auto">
          <Key of="moveUp" /> <Key of="moveDown" /> order, <Key of="moveIn" /> <Key of="moveOut" /> nest, or drag
        </span>
      </div>
      <div className="page-row page-head" aria-hidden="true">
        <span>Page</span>
        <span>Kind</span>
        <span>Lead</span>
        <span>Address</span>
        <span>Menu</span>
        <span>State</span>
        <span title="Required and recommended findings of its text">Findings</span>
        <span title="How many pages link to it">Links in</span>
        <span />
      </div>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragMove={(e) => setLevel(shift(e))}
        onDragEnd={drop}
        onDragCancel={() => setLevel(null)}
      >
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          <div ref={list} className="overflow-auto min-h-0 [scrollbar-gutter:stable]" role="tree" aria-label="Pages" tabIndex={0}>
            <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
              {virtual.getVirtualItems().map(({ index: i, start }) => (
                <PageRow
                  key={pages[i].id}
                  page={pages[i]}
                  score={scores.get(pages[i].listingId)}
                  top={start}
                  of={pages.length}
                  here={i === at}
                  place={i + 1}
                  level={level}
                  onClick={() => go(i)}
                  open={() => open(pages[i])}
                  items={itemsOf(pages[i], i)}
                />
              ))}
            </div>
            {pages.length === 0 && !loaded.isPending && (
              <p className="quiet py-6">
                No pages yet. Add a page, or paste an outline of your categories: each line a name, deeper lines inside the line above.
              </p>
            )}
          </div>
        </SortableContext>
      </DndContext>
      {(loaded.data?.redirects.length ?? 0) > 0 && (
        <p className="text-[13.5px] py-2">
          {counted(loaded.data?.redirects.length ?? 0, 'old address', 'old addresses')} lead to present ones.{' '}
          <a className="link" href="/api/pages/redirects.csv">
            Export redirects
          </a>
        </p>
      )}
      {asked === 'add' && (
        <AddPage parent={page?.kind === 'product' ? page.parentId : (page?.id ?? null)} pages={pages} close={() => setAsked(null)} />
      )}
      {asked === 'outline' && <OutlineDialog parent={page?.kind === 'category' ? page : undefined} close={() => setAsked(null)} />}
      {asked === 'categories' && page && <Categories page={page} pages={pages} close={() => setAsked(null)} />}
      {asked === 'delete' && page && <DeletePage page={page} inside={branch(pages, page.id).size - 1} close={() => setAsked(null)} />}
    </section>
  )
}

function PageRow(p: {
  page: Page
  /** The scores of its text, as far as they are known. */
  score: WeighedListing | null | undefined
  /** How far down its row is, in pixels. */
  top: number
  /** Its number among all rows. */
  place: number
  of: number
  here: boolean
  level: number | null
  onClick: () => void
  open: () => void
  items: React.ComponentProps<typeof Menu>['items']
}) {
  const { page } = p
  const drag = useSortable({ id: page.id })
  const by = drag.transform
  const level = drag.isDragging && p.level !== null ? p.level : page.level
  return (
    <div
      ref={drag.setNodeRef}
      role="treeitem"
      tabIndex={-1}
      aria-level={page.level + 1}
      aria-posinset={p.place}
      aria-setsize={p.of}
      aria-selected={p.here}
      data-id={page.id}
      className={`page-row ${p.here ? 'cursor' : ''} ${drag.isDragging ? 'opacity-60' : ''}`}
      style={{ top: p.top, ...(by && { transform: `translateY(${by.y}px)`, transition: drag.transition }) }}
      onClick={p.onClick}
      onDoubleClick={p.open}
      onKeyDown={() => undefined}
    >
      <span className="flex items-center gap-2 min-w-0" style={{ paddingLeft: level * Indent }}>
        <span ref={drag.setActivatorNodeRef} className="grip" title="Drag to move; to the right to nest" {...drag.listeners}>
          ⠿
        </span>
        <button type="button" className="link truncate font-medium" title={page.name} onClick={p.open} tabIndex={-1}>
          {page.name}
        </button>
        {page.isHome && <span className="mark">home</span>}
      </span>
      <span className="quiet">{kinds[page.kind]}</span>
      <span className="truncate" title={page.lead ?? undefined}>
        {page.lead ?? <span className="quiet">none</span>}
      </span>
      <span className="truncate num text-[12.5px]" title={page.address}>
        {page.isHome ? '/' : page.slug ? `/${page.slug}` : <span className="quiet font-sans">no slug</span>}
        {page.redirects > 0 && <span className="quiet"> +{page.redirects} old</span>}
      </span>
      <span className="quiet">{page.inMenu ? 'in menu' : 'hidden'}</span>
      <span className={page.isPublished ? '' : 'quiet italic'}>{page.isPublished ? 'published' : 'draft'}</span>
      <span className="num text-right">
        {p.score && (
          <>
            {p.score.required > 0 && <b className="text-accent font-semibold">{p.score.required} + </b>}
            <span className="quiet">{p.score.recommended}</span>
          </>
        )}
      </span>
      <span className="num text-right pr-3">{page.linkedFrom}</span>
      <Menu label={`Page “${page.name}”`} items={p.items} />
    </div>
  )
}
