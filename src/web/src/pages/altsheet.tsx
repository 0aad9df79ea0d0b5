import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type PictureView, type Product } from '../kit/api'
import { type Changed, useChanges } from '../kit/changes'
import { Key } from '../kit/key'
import { compact, counted, full } from '../kit/numbers'
import { queryKey, refresh } from '../kit/queries'
import { useSelection } from '../kit/selection'
import { useShop } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { sortChanges, sortIn } from '../kit/sort'
import { type Column, sortRows, Table } from '../kit/table'
import { toast } from '../kit/toast'
import { upload } from '../kit/upload'
import { AddPictures } from './addpictures'
import { AltBox } from './altbox'
import { AltFill } from './altfill'

type Problem = PictureView['problems'][number]

const problems: Record<Problem, string> = {
  missing: 'No alt text',
  tooLong: 'Too long',
  same: 'Same as another picture',
  opening: 'Begins with “picture of”',
  strung: 'A list of picks',
  advert: 'Price, stock or praise',
  small: 'The picture is small',
  claim: 'Claims what the facts lack',
  noLead: 'No picture has the lead’s words',
}

const problemText = (problem: Problem, most: number) => (problem === 'tooLong' ? `Over ${most} characters` : problems[problem])

const idOf = (p: PictureView) => `${p.productId} ${p.number}`

/** Every picture of the shop: what it shows, its alt text, the terms that the text contains, and what is wrong with it. */
export function AltSheet({ marketId }: { marketId: string | null }) {
  const [params, set] = useAddress()
  const cache = useQueryClient()
  const { run } = useChanges()
  const [marked, mark, clear] = useSelection()
  const [filling, setFilling] = useState(false)
  const loaded = useQuery({
    queryKey: queryKey('pictures'),
    queryFn: () => ask(api.GET('/api/pictures')),
  })
  const only = params.get('only')
  const all = loaded.data?.pictures ?? []
  const most = loaded.data?.most ?? 0
  const sort = sortIn(params)
  const rows = sortRows(
    all.filter((p) => !only || p.problems.length > 0),
    columns,
    sort,
  )
  const at =
    rows.length === 0
      ? -1
      : Math.max(
          0,
          rows.findIndex((p) => idOf(p) === params.get('at')),
        )
  const row = rows[at]
  const wrong = all.filter((p) => p.problems.length > 0).length
  const box = useRef<HTMLTextAreaElement>(null)
  const file = useRef<HTMLInputElement>(null)
  const send = async (productId: number, number: number | null, chosen: File) => {
    await run(() => upload<Changed>(`/api/pictures/${productId}${number === null ? '' : `?number=${number}`}`, chosen))
    refresh(cache, 'pages', 'products')
  }
  const lock = () =>
    row &&
    !row.isInText &&
    run(() =>
      ask(
        api.PUT('/api/pictures/{productId}/{number}/locked', {
          params: { path: { productId: row.productId, number: row.number } },
          body: { isLocked: !row.isLocked },
        }),
      ),
    )
  useShortcuts({
    lockAlt: lock,
    fillAlt: () => setFilling(!filling),
    open: () => box.current?.focus(),
    close: () => (filling ? setFilling(false) : clear()),
  })
  return (
    <section className="work min-h-0" style={{ gridTemplateColumns: 'minmax(0,1fr) 400px' }} data-testid="alt-sheet">
      <div className="sheet !overflow-hidden grid" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }}>
        <div className="flex flex-wrap gap-3 items-center mb-2">
          <h1 className="text-[20px] font-bold">
            {counted(all.length, 'picture')}
            <small className="quiet text-[14px] font-normal font-sans">, {wrong} to improve</small>
          </h1>
          <button type="button" className="pill" onClick={() => setFilling(true)}>
            Fill by a pattern <Key of="fillAlt" />
          </button>
          <button type="button" className="choice" aria-pressed={only !== null} onClick={() => set({ only: only ? null : '1' })}>
            Only those to improve
          </button>
          <span className="quiet text-[13px] ml-auto">
            <kbd>Space</kbd> selects, <kbd>Enter</kbd> edits
          </span>
        </div>
        <Table
          name="Alt text"
          rows={rows}
          columns={columns}
          id={idOf}
          at={at}
          onAt={(_, p) => set({ at: p ? idOf(p) : null })}
          marked={marked}
          onMark={mark}
          sort={sort}
          onSort={(s) => set(sortChanges(s))}
          rowHeight={52}
          empty={loaded.isPending ? '' : 'No pictures yet. Choose picture files on the right, or describe pictures in Write.'}
        />
      </div>
      <aside className="side">
        {filling ? (
          <AltFill
            names={loaded.data?.names ?? []}
            selected={rows.filter((p) => marked.has(idOf(p)) && !p.isInText)}
            close={() => setFilling(false)}
          />
        ) : (
          row && (
            <OnePicture
              key={idOf(row)}
              picture={row}
              most={most}
              marketId={marketId}
              box={box}
              lock={lock}
              choose={() => file.current?.click()}
              drop={(chosen) => send(row.productId, row.number, chosen)}
            />
          )
        )}
        {!filling && (
          <AddPictures
            now={row?.productId}
            add={async (productId, files) => {
              for (const one of files) await send(productId, null, one)
            }}
          />
        )}
        <input
          ref={file}
          type="file"
          accept="image/png,image/jpeg,image/webp,image/avif"
          className="hidden"
          aria-label="Picture file"
          onChange={(e) => {
            const chosen = e.target.files?.[0]
            e.target.value = ''
            if (chosen && row) send(row.productId, row.number, chosen)
          }}
        />
      </aside>
    </section>
  )
}

function OnePicture(p: {
  picture: PictureView
  most: number
  marketId: string | null
  box: React.RefObject<HTMLTextAreaElement | null>
  lock: () => void
  choose: () => void
  drop: (file: File) => void
}) {
  const { picture } = p
  const product = useShop().data?.products.find((x) => x.id === picture.productId)
  if (!product) return null
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the button does what dropping does
    <div
      data-testid="picture"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        const file = e.dataTransfer.files[0]
        if (picture.isInText) toast('This picture stands in the page’s text. Change it there.')
        else if (file) p.drop(file)
        else toast('Drop a picture file: PNG, JPEG, WebP or AVIF.')
      }}
    >
      <h3 className="!mt-0">
        {picture.product}{' '}
        <span className="quiet font-normal">
          {picture.isInText ? `picture ${-picture.number} in the text` : `picture ${picture.number + 1}`}
        </span>
      </h3>
      {picture.isInText ? (
        <p className="text-[14px]">
          {picture.alt || 'No alt text.'}{' '}
          <Link className="link" to={`/${picture.productId}/${p.marketId}/write`}>
            Change it in the page’s text
          </Link>
        </p>
      ) : (
        <OneFile {...p} product={product} />
      )}
      {picture.side !== null && <p className="quiet text-[13px]">{full(picture.side)} pixels on the longer side.</p>}
      {picture.problems.map((problem) => (
        <p key={problem} className="finding should">
          <b>Recommended.</b> {problemText(problem, p.most)}.
        </p>
      ))}
      {picture.terms.length > 0 && (
        <>
          <div className="sub">Terms in it</div>
          <p className="flex flex-wrap gap-x-3 text-[14px]">
            {picture.terms.map((t) => (
              <span key={t.text}>
                {t.text} <span className="num quiet">{compact(t.volume)}</span>
              </span>
            ))}
          </p>
        </>
      )}
    </div>
  )
}

function OneFile(p: {
  picture: PictureView
  most: number
  product: Product
  box: React.RefObject<HTMLTextAreaElement | null>
  lock: () => void
  choose: () => void
}) {
  const { picture } = p
  return (
    <>
      {picture.file ? (
        <img className="max-h-48 rounded border border-(--tin-2)" src={`/api/pictures/files/${picture.file}`} alt={picture.alt} />
      ) : (
        <p className="quiet text-[13.5px] border border-dashed border-(--tin-2) rounded p-5 text-center">
          No file. Drop one here (PNG, JPEG, WebP, AVIF).
        </p>
      )}
      <p className="my-2">
        <button type="button" className="pill" onClick={p.choose}>
          {picture.file ? 'Replace the file' : 'Choose a file'}
        </button>
      </p>
      <AltBox most={p.most} picture={picture} product={p.product} box={p.box} />
      <p className="text-[13.5px] mb-2">
        <button type="button" className="link" onClick={p.lock}>
          {picture.isLocked ? 'Unlock the alt text' : 'Lock the alt text'} <Key of="lockAlt" />
        </button>{' '}
        <span className="quiet">
          {picture.isLocked
            ? 'Locked: nothing here changes it.'
            : 'For a shop that finds pictures by their alt text, for example to swap them when a colour is chosen.'}
        </span>
      </p>
    </>
  )
}

const columns: Column<PictureView>[] = [
  {
    key: 'picture',
    head: <span className="sr-only">Picture</span>,
    width: '58px',
    cell: (p) =>
      p.file ? (
        <img className="h-11 w-11 object-cover rounded" src={`/api/pictures/files/${p.file}?small=true`} alt="" />
      ) : (
        <span className="block h-11 w-11 rounded border border-dashed border-(--tin-2)" />
      ),
  },
  {
    key: 'product',
    head: 'Used by',
    width: '170px',
    words: true,
    value: (p) => p.product,
    cell: (p) => (
      <span title={p.product}>
        {p.product} <span className="quiet num text-[12px]">{p.isInText ? -p.number : p.number + 1}</span>
        {p.isInText ? (
          <span className="quiet text-[12px]"> in the text</span>
        ) : (
          p.isPage && <span className="quiet text-[12px]"> page</span>
        )}
      </span>
    ),
  },
  {
    key: 'alt',
    head: 'Alt text',
    width: 'minmax(200px,1fr)',
    words: true,
    value: (p) => p.alt,
    cell: (p) => (
      <span title={p.alt}>
        {p.isLocked && <small className="mark mr-2">locked</small>}
        {p.alt || <span className="quiet">none</span>}
      </span>
    ),
  },
  {
    key: 'length',
    head: 'Length',
    width: '58px',
    right: true,
    value: (p) => p.length,
    cell: (p) => <span className="num">{p.length}</span>,
  },
  {
    key: 'terms',
    head: 'Terms',
    title: 'Picks that the text contains',
    width: '54px',
    right: true,
    value: (p) => p.terms.length,
    cell: (p) => (
      <span className="num" title={p.terms.map((t) => t.text).join(', ')}>
        {p.terms.length}
      </span>
    ),
  },
  {
    key: 'problems',
    head: 'To improve',
    width: '180px',
    value: (p) => p.problems.length,
    cell: (p) => (
      <span className="text-[13px]" title={p.problems.map((x) => problems[x]).join('; ')}>
        {p.problems.map((x) => problems[x]).join('; ')}
      </span>
    ),
  },
]
