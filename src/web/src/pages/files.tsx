import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { api, ask, type ImportItem, type ShopImport } from '../kit/api'
import { useChanges } from '../kit/changes'
import { useHandedFile } from '../kit/door/open'
import { Key } from '../kit/key'
import { messages } from '../kit/messages'
import { counted, full, today } from '../kit/numbers'
import { refreshAll } from '../kit/queries'
import { useShop } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { upload } from '../kit/upload'
import { MostInFolder, zipOfFolder } from './folder'

const formats = [
  ['/api/shop/export.zip', 'Whole shop (ZIP)', 'everything as JSON to import again, with CSV and pictures'],
  ['/api/shop/html.zip', 'Pages (HTML)', 'published pages with meta tags, schema.org data, site map and pictures'],
  ['/api/shop/pages.csv', 'Pages (CSV)', 'one row for each page'],
  ['/api/shop/pages.xlsx', 'Pages (XLSX)', 'the same as a workbook'],
  ['/api/shop/sitemap.xml', 'Site map (XML)', 'published pages, with their language'],
  ['/api/pages/redirects.csv', 'Redirects (CSV)', 'old addresses and where they lead'],
] as const

const states: Record<ImportItem['state'], string> = { new: 'New', changed: 'Changed', unchanged: 'Unchanged' }

/** Files out, and files in: what a file would change shows first, and is chosen. */
export function FilesPart() {
  const cache = useQueryClient()
  const { run } = useChanges()
  const shop = useShop().data
  const [view, setView] = useState<ShopImport | null>(null)
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const [platform, setPlatform] = useState('')
  const [live, setLive] = useState('')
  const [busy, setBusy] = useState('')
  const [error, setError] = useState('')
  const input = useRef<HTMLInputElement>(null)
  const folder = useRef<HTMLInputElement>(null)
  const begin = async (file: File) => {
    setError('')
    setView(null)
    setBusy(`Reading ${file.name}…`)
    try {
      const query = new URLSearchParams({ name: file.name, ...(platform && { platformId: platform }) })
      const read = await upload<ShopImport>(`/api/shop/imports?${query}`, file)
      setView(read)
      setLive('')
      setChosen(new Set(read.items.filter((i) => i.state !== 'unchanged').map((i) => i.key)))
    } catch (e) {
      setError(messages.notImported((e as Error).message))
    }
    setBusy('')
  }
  const beginFolder = async (files: File[]) => {
    setView(null)
    setError('')
    setBusy('Reading the folder…')
    const zipped = await zipOfFolder(files).catch(() => null)
    setBusy('')
    if (zipped) begin(zipped)
    else setError(messages.noPagesInFolder(MostInFolder >> 20))
  }
  const handed = useHandedFile()
  // biome-ignore lint/correctness/useExhaustiveDependencies: what the door hands over is read at once
  useEffect(() => {
    if (handed) begin(handed)
  }, [handed])
  const start = () => {
    if (!view || chosen.size === 0) return
    setView(null)
    run(
      () =>
        ask(
          api.POST('/api/shop/imports/{id}/run', {
            params: { path: { id: view.id } },
            body: { keys: [...chosen], liveSince: live || null },
          }),
        ),
      () => refreshAll(cache),
    )
  }
  const cancel = () => {
    if (view) api.DELETE('/api/shop/imports/{id}', { params: { path: { id: view.id } } })
    setView(null)
  }
  useShortcuts({ chooseFile: () => input.current?.click(), runImport: start, close: cancel })
  const platforms = [...new Map((shop?.markets ?? []).map((m) => [m.platformId, m.platformName]))]
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the button does what dropping does
    <section
      className="overflow-auto p-6"
      data-testid="files"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        if (e.dataTransfer.files[0]) begin(e.dataTransfer.files[0])
      }}
    >
      <input
        ref={input}
        type="file"
        accept=".zip,.html,.htm,.json,.jsonld,.csv,.tsv,.txt,.xlsx"
        className="hidden"
        aria-label="File to import"
        onChange={(e) => {
          const file = e.target.files?.[0]
          e.target.value = ''
          if (file) begin(file)
        }}
      />
      <input
        ref={folder}
        type="file"
        {...{ webkitdirectory: '' }}
        className="hidden"
        aria-label="Folder to import"
        onChange={(e) => {
          const files = [...(e.target.files ?? [])]
          e.target.value = ''
          if (files.length > 0) beginFolder(files)
        }}
      />
      {view ? (
        <Preview view={view} chosen={chosen} setChosen={setChosen} live={live} setLive={setLive} start={start} cancel={cancel} />
      ) : (
        <div className="grid gap-8 max-w-5xl" style={{ gridTemplateColumns: 'minmax(0,1fr) minmax(0,1fr)' }}>
          <div>
            <h2 className="text-[20px] font-bold mb-2">Import</h2>
            <p className="quiet mb-3">
              A saved web page, a folder or ZIP of pages, a product as schema.org JSON-LD, a table of listings or pages (CSV, XLSX), or a
              whole shop. You see what it changes before anything is written.
            </p>
            <label className="block text-[14px] mb-3">
              Listings in a table without a platform column are for{' '}
              <select className="inline-input" value={platform} onChange={(e) => setPlatform(e.target.value)}>
                <option value="">Web shop</option>
                {platforms
                  .filter(([id]) => id !== 'web-shop')
                  .map(([id, name]) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
              </select>
            </label>
            <p className="flex gap-3 items-center">
              <button type="button" className="btn btn-sm btn-primary" onClick={() => input.current?.click()}>
                Choose a file <Key of="chooseFile" plain />
              </button>
              <button type="button" className="btn btn-sm" onClick={() => folder.current?.click()}>
                Choose a folder of pages
              </button>
              <span className="quiet text-[13.5px]">or drop a file here</span>
            </p>
            {busy && <p className="quiet mt-3">{busy}</p>}
            {error && (
              <p className="text-accent mt-3" role="alert">
                {error}
              </p>
            )}
          </div>
          <div>
            <h2 className="text-[20px] font-bold mb-2">Export</h2>
            {formats.map(([address, name, about]) => (
              <p key={address} className="mb-2">
                <a className="link font-medium" href={address}>
                  {name}
                </a>{' '}
                <span className="quiet text-[13.5px]">{about}</span>
              </p>
            ))}
          </div>
        </div>
      )}
    </section>
  )
}

function Preview(p: {
  view: ShopImport
  chosen: ReadonlySet<string>
  setChosen: (chosen: ReadonlySet<string>) => void
  /** The day since which the listings are live as they are; empty where they are not. */
  live: string
  setLive: (day: string) => void
  start: () => void
  cancel: () => void
}) {
  const { view, chosen } = p
  const [only, setOnly] = useState(true)
  const count = (state: ImportItem['state']) => view.items.filter((i) => i.state === state).length
  const shown = view.items.filter((i) => !only || i.state !== 'unchanged')
  const listings = view.items.filter((i) => i.key.startsWith('listing ') && chosen.has(i.key)).length
  const toggle = (key: string) => {
    const next = new Set(chosen)
    next.has(key) ? next.delete(key) : next.add(key)
    p.setChosen(next)
  }
  return (
    <div className="max-w-5xl" data-testid="import-preview">
      <h2 className="text-[20px] font-bold">
        {view.name} <small className="quiet text-[14px] font-normal font-sans">{view.kind}</small>
      </h2>
      <p className="mb-2">
        {count('new')} new, {count('changed')} changed, {count('unchanged')} unchanged. Nothing is written yet.
      </p>
      <p className="flex gap-2 mb-3 items-center">
        <button type="button" className="btn btn-sm btn-primary" disabled={chosen.size === 0} onClick={p.start}>
          Import what is chosen ({full(chosen.size)}) <Key of="runImport" plain />
        </button>
        <button type="button" className="btn btn-sm" onClick={p.cancel}>
          Cancel <kbd>Esc</kbd>
        </button>
        <button type="button" className="choice" aria-pressed={only} onClick={() => setOnly(!only)}>
          Hide unchanged
        </button>
        <button type="button" className="link text-[13.5px]" onClick={() => p.setChosen(new Set())}>
          Clear selection
        </button>
      </p>
      {listings > 0 && (
        <p className="text-[14px] mb-3">
          <label>
            {listings === 1 ? 'This listing is' : `These ${full(listings)} listings are`} live like this already, since{' '}
            <input className="inline-input num" type="date" max={today()} value={p.live} onChange={(e) => p.setLive(e.target.value)} />
          </label>{' '}
          <span className="quiet">What you change later is then compared with the days before. Leave it empty if they are not.</span>
        </p>
      )}
      {shown.slice(0, 400).map((item) => (
        <div key={item.key} className="border-b border-base-300 py-1.5 text-[14px]" data-testid="import-item">
          <label className="flex gap-2 items-baseline">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              disabled={item.state === 'unchanged'}
              checked={chosen.has(item.key)}
              onChange={() => toggle(item.key)}
            />
            <b className="font-medium">{item.name}</b> <span className="quiet">{item.what}</span>
            <span className={item.state === 'unchanged' ? 'quiet' : 'font-medium'}>{states[item.state]}</span>
          </label>
          {item.state !== 'unchanged' &&
            item.changes.slice(0, item.state === 'new' ? 4 : 12).map((c) => (
              <p key={c.label} className="pl-6 text-[13px] whitespace-pre-line">
                <span className="quiet">{c.label}:</span> {c.before && <del>{short(c.before)}</del>} <ins>{short(c.after)}</ins>
              </p>
            ))}
        </div>
      ))}
      {shown.length > 400 && <p className="quiet py-2">and {counted(shown.length - 400, 'more', 'more')}</p>}
    </div>
  )
}

const short = (text: string) => (text.length > 160 ? `${text.slice(0, 160)}…` : text)
