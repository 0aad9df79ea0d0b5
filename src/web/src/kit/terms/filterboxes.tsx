import { useQuery } from '@tanstack/react-query'
import { type RefObject, useState } from 'react'
import type { Changes } from '../address'
import { api, ask } from '../api'
import { useChanges } from '../changes'
import { NameDialog } from '../dialog'
import { Menu } from '../menu'
import { queryKey } from '../queries'
import { useSaved } from '../saved'
import { filterParams, shapes } from '../shelfquery'

const boxes = [
  ['volume', 'Min searches', 'at least this many searches/mo', 96],
  ['competition', 'Max listings', 'at most this many competing listings', 90],
  ['headroom', 'Min headroom', 'at least this headroom', 104],
  ['titles', 'Max titles', 'at most this many exact-title matches', 82],
  ['cost', 'Max CPC', 'at most this cost per click', 70],
] as const

/** Asked for less often: they open by themselves where one of them filters. */
const moreBoxes = [
  ['growth', 'Min 12-month %', 'at least this change over twelve months, in percent', 112],
  ['growth3', 'Min 3-month %', 'at least this change over three months, in percent', 108],
  ['last', 'Min last month', 'at least this many searches in the newest month', 104],
  ['web', 'Min web searches', 'at least this many searches/mo on the web', 116],
  ['clicks', 'Min clicks', 'at least this many clicks on your listings', 74],
  ['orders', 'Min orders', 'at least this many orders', 78],
  ['sales', 'Min sales', 'orders worth at least this much', 70],
] as const

/** Filters of a table of terms, and filters saved by name. */
export function FilterBoxes({
  marketId,
  params,
  set,
  box,
}: {
  marketId: string
  params: URLSearchParams
  set: (changes: Changes) => void
  box: RefObject<HTMLInputElement | null>
}) {
  const { filters: saved, saveFilters } = useSaved()
  const sources = useQuery({
    queryKey: queryKey('shelf', marketId, 'sources'),
    queryFn: () => ask(api.GET('/api/markets/{marketId}/sources', { params: { path: { marketId } } })),
  }).data
  const [naming, setNaming] = useState<'save' | 'rename' | 'duplicate' | null>(null)
  const { run } = useChanges()
  const [more, setMore] = useState(false)
  const isMore = more || params.get('shape') !== null || moreBoxes.some(([key]) => params.get(key))
  const filtered = filterParams.some((k) => params.get(k))
  const now = new URLSearchParams(filterParams.flatMap((k) => (params.get(k) ? [[k, params.get(k) as string]] : []))).toString()
  const current = saved.find((f) => f.filters === now)
  const blur = (e: React.KeyboardEvent<HTMLInputElement>) => (e.key === 'Escape' || e.key === 'Enter') && e.currentTarget.blur()
  const use = (filters: string) => {
    const wanted = new URLSearchParams(filters)
    set(Object.fromEntries(filterParams.map((k) => [k, wanted.get(k)])))
  }
  const path = { id: current?.id ?? 0 }
  return (
    <>
      <input
        ref={box}
        className="inline-input w-36"
        placeholder="Contains… −excludes"
        title="Words the term must contain; put a minus before a word it must not contain"
        aria-label="Contains"
        value={params.get('has') ?? ''}
        onChange={(e) => set({ has: e.target.value })}
        onKeyDown={blur}
      />
      {[...boxes, ...(isMore ? moreBoxes : [])].map(([key, name, how, width]) => (
        <input
          key={key}
          className="inline-input !text-[13px]"
          style={{ width }}
          inputMode="numeric"
          placeholder={name}
          aria-label={name}
          title={`Only terms with ${how}; terms without data are hidden`}
          value={params.get(key) ?? ''}
          onChange={(e) => set({ [key]: e.target.value.replace(/[^\d.-]/g, '') })}
          onKeyDown={blur}
        />
      ))}
      {isMore ? (
        <select
          className="bg-transparent text-[13px] cursor-pointer"
          aria-label="Shape"
          title="Only terms whose year has this shape"
          value={params.get('shape') ?? ''}
          onChange={(e) => set({ shape: e.target.value })}
        >
          <option value="">Any shape</option>
          {shapes.map((s) => (
            <option key={s}>{s}</option>
          ))}
        </select>
      ) : (
        <button type="button" className="link" onClick={() => setMore(true)}>
          Growth, shape…
        </button>
      )}
      {Object.keys(sources ?? {}).length > 1 && (
        <select
          className="bg-transparent text-[13px] cursor-pointer max-w-32"
          aria-label="Source"
          title="Only terms whose numbers come from this source"
          value={params.get('source') ?? ''}
          onChange={(e) => set({ source: e.target.value })}
        >
          <option value="">Any source</option>
          {Object.keys(sources ?? {}).map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      )}
      {(saved.length > 0 || filtered) && (
        <select
          className="bg-transparent text-[13px] cursor-pointer max-w-36"
          aria-label="Saved filters"
          value={current?.name ?? ''}
          onChange={(e) =>
            e.target.value === 'name' ? setNaming('save') : use(saved.find((f) => f.name === e.target.value)?.filters ?? '')
          }
        >
          <option value="">{filtered ? 'Unsaved filters' : 'Saved filters…'}</option>
          {saved.map((f) => (
            <option key={f.id}>{f.name}</option>
          ))}
          {filtered && !current && <option value="name">Save filters…</option>}
        </select>
      )}
      {naming === 'save' && (
        <NameDialog
          title="Save filters"
          label="Name"
          value=""
          action="Save"
          done={(name) => saveFilters(name, now)}
          close={() => setNaming(null)}
        />
      )}
      {current && (
        <Menu
          label={`Filter “${current.name}”`}
          items={[
            { label: 'Rename…', run: () => setNaming('rename') },
            { label: 'Duplicate…', run: () => setNaming('duplicate') },
            { label: 'Delete', run: () => run(() => ask(api.DELETE('/api/filters/{id}', { params: { path } }))) },
          ]}
        />
      )}
      {current && naming === 'rename' && (
        <NameDialog
          title="Rename filter"
          label="Name"
          value={current.name}
          action="Rename"
          done={(name) => run(() => ask(api.PUT('/api/filters/{id}/name', { params: { path }, body: { name } })))}
          close={() => setNaming(null)}
        />
      )}
      {current && naming === 'duplicate' && (
        <NameDialog
          title="Duplicate filter"
          label="Name of the copy"
          value={`${current.name} (copy)`}
          action="Duplicate"
          done={(name) => run(() => ask(api.POST('/api/filters/{id}/duplicate', { params: { path }, body: { name } })))}
          close={() => setNaming(null)}
        />
      )}
      {filtered && (
        <button type="button" className="link" onClick={() => set(Object.fromEntries(filterParams.map((k) => [k, null])))}>
          Clear filters
        </button>
      )}
    </>
  )
}
