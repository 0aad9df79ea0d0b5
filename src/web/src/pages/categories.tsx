import { useState } from 'react'
import { api, ask, type Page } from '../kit/api'
import { useChanges } from '../kit/changes'
import { Dialog } from '../kit/dialog'

/** The categories that a product is shown in: the one its page is inside is the primary one, which gives its address and its breadcrumb. */
export function Categories({ page, pages, close }: { page: Page; pages: readonly Page[]; close: () => void }) {
  const { run } = useChanges()
  const [also, setAlso] = useState<ReadonlySet<number>>(new Set(page.alsoIn))
  const [primary, setPrimary] = useState(page.parentId)
  const all = pages.filter((p) => p.kind === 'category')
  const first = all.find((c) => c.id === page.parentId) ?? all[0]
  const save = () => {
    close()
    run(() =>
      ask(
        api.PUT('/api/pages/{id}/categories', {
          params: { path: { id: page.id } },
          body: { primary, others: [...also].filter((id) => id !== primary) },
        }),
      ),
    )
  }
  const toggle = (id: number) => {
    const next = new Set(also)
    next.has(id) ? next.delete(id) : next.add(id)
    setAlso(next)
  }
  return (
    <Dialog name="Categories" close={close} width={520}>
      <form
        data-testid="categories"
        onSubmit={(e) => {
          e.preventDefault()
          save()
        }}
      >
        <h2 className="text-[20px] font-bold mb-1">Categories of “{page.name}”</h2>
        <p className="quiet text-[13.5px] mb-3">The primary one is where the page is in the tree.</p>
        <div className="overflow-auto max-h-[50vh] text-[14px]">
          {all.map((c) => (
            <p key={c.id} className="flex gap-3 items-center border-b border-base-300 py-1">
              <label className="flex gap-2 items-center flex-1" style={{ paddingLeft: c.level * 18 }}>
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={also.has(c.id) || c.id === primary}
                  disabled={c.id === primary}
                  onChange={() => toggle(c.id)}
                />
                {c.name}
              </label>
              <label className="flex gap-1 items-center quiet">
                <input
                  type="radio"
                  name="primary"
                  className="radio radio-xs"
                  aria-label={`“${c.name}” is the primary category`}
                  // Enter saves from the first moment, and the arrow keys change the primary one.
                  data-first-focus={c === first || undefined}
                  checked={c.id === primary}
                  onChange={() => setPrimary(c.id)}
                />
                primary
              </label>
            </p>
          ))}
          {all.length === 0 && <p className="quiet">There are no categories yet.</p>}
        </div>
        <p className="mt-3">
          <button type="submit" className="btn btn-sm btn-primary">
            Save <kbd className="!text-inherit !bg-transparent">Enter</kbd>
          </button>
        </p>
      </form>
    </Dialog>
  )
}
