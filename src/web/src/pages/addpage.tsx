import { useState } from 'react'
import { api, ask, type Page } from '../kit/api'
import { useChanges } from '../kit/changes'
import { Dialog } from '../kit/dialog'
import { useShop } from '../kit/shop'

/** A new page: a product's, a category or a content page. */
export function AddPage({ parent, pages, close }: { parent: number | null; pages: readonly Page[]; close: () => void }) {
  const shop = useShop().data
  const { run } = useChanges()
  const [kind, setKind] = useState<Page['kind']>('category')
  const [name, setName] = useState('')
  const [productId, setProductId] = useState<number | null>(null)
  const [inside, setInside] = useState<number | null>(parent)
  const free = (shop?.products ?? []).filter((p) => !p.isPage && !p.isIdea && !pages.some((page) => page.productId === p.id))
  const ready = kind === 'product' ? productId !== null : name.trim() !== ''
  const add = () => {
    if (!ready) return
    close()
    run(() =>
      ask(
        api.POST('/api/pages', {
          body: {
            kind,
            name: kind === 'product' ? null : name.trim(),
            parentId: inside,
            productId: kind === 'product' ? productId : null,
          },
        }),
      ),
    )
  }
  return (
    <Dialog name="Add page" close={close} width={480}>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          add()
        }}
      >
        <h2 className="text-[20px] font-bold mb-3">Add page</h2>
        <div className="flex gap-1 mb-3" role="group" aria-label="Kind">
          {(
            [
              ['category', 'Category'],
              ['product', 'Product'],
              ['content', 'Content'],
            ] as const
          ).map(([k, label]) => (
            <button key={k} type="button" className="choice" aria-pressed={kind === k} onClick={() => setKind(k)}>
              {label}
            </button>
          ))}
        </div>
        {kind === 'product' ? (
          <label className="block text-[14px] mb-3">
            Product
            <select
              className="inline-input w-full"
              value={productId ?? ''}
              onChange={(e) => setProductId(e.target.value ? Number(e.target.value) : null)}
            >
              <option value="">Choose…</option>
              {free.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}
                </option>
              ))}
            </select>
          </label>
        ) : (
          <label className="block text-[14px] mb-3">
            Name <span className="quiet">the page’s heading</span>
            <input className="inline-input w-full" value={name} maxLength={120} onChange={(e) => setName(e.target.value)} />
          </label>
        )}
        <label className="block text-[14px] mb-3">
          Inside
          <select
            className="inline-input w-full"
            value={inside ?? ''}
            onChange={(e) => setInside(e.target.value ? Number(e.target.value) : null)}
          >
            <option value="">Top level</option>
            {pages.map((p) => (
              <option key={p.id} value={p.id}>
                {'\u00a0\u00a0'.repeat(p.level)}
                {p.name}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="btn btn-sm btn-primary" disabled={!ready}>
          Add page <kbd className="!text-inherit !bg-transparent">Enter</kbd>
        </button>
      </form>
    </Dialog>
  )
}
