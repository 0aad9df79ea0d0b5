import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type RefObject, useState } from 'react'
import type { Changes } from '../kit/address'
import { api, ask } from '../kit/api'
import { compact } from '../kit/numbers'
import { toast } from '../kit/toast'

export type Limits = {
  has: string
  volume: number | null
  competition: number | null
  headroom: number | null
  titles: number | null
  cost: number | null
  source: string
}

export const filterParams = ['has', 'volume', 'competition', 'headroom', 'titles', 'cost', 'source']

export function limitsOf(params: URLSearchParams): Limits {
  const number = (key: string) => {
    const value = params.get(key)
    return value && Number.isFinite(Number(value)) ? Number(value) : null
  }
  return {
    has: params.get('has') ?? '',
    volume: number('volume'),
    competition: number('competition'),
    headroom: number('headroom'),
    titles: number('titles'),
    cost: number('cost'),
    source: params.get('source') ?? '',
  }
}

const boxes = [
  ['volume', 'a month', 'at least', 76],
  ['competition', 'listings', 'at most', 78],
  ['headroom', 'headroom', 'at least', 84],
  ['titles', 'titles', 'at most', 64],
  ['cost', 'click cost', 'at most', 92],
] as const

/** What the table leaves out; kept under a name; what is shown, taken out as a file. */
export function Filters({
  marketId,
  params,
  set,
  box,
  filtered,
  passing,
  out,
  copyQueries,
}: {
  marketId: string
  params: URLSearchParams
  set: (changes: Changes) => void
  box: RefObject<HTMLInputElement | null>
  filtered: boolean
  passing: number
  out: (format: 'csv' | 'xlsx') => void
  copyQueries: () => void
}) {
  const cache = useQueryClient()
  const saved = useQuery({ queryKey: ['filters'], queryFn: () => ask(api.GET('/api/filters')), staleTime: Infinity }).data ?? []
  const sources = useQuery({
    queryKey: ['shelf', marketId, 'sources'],
    queryFn: () => ask(api.GET('/api/markets/{marketId}/sources', { params: { path: { marketId } } })),
  }).data
  const [naming, setNaming] = useState(false)
  const now = new URLSearchParams(filterParams.flatMap((k) => (params.get(k) ? [[k, params.get(k) as string]] : []))).toString()
  const current = saved.find((f) => f.filters === now)
  const blur = (e: React.KeyboardEvent<HTMLInputElement>) => (e.key === 'Escape' || e.key === 'Enter') && e.currentTarget.blur()
  const use = (filters: string) => {
    const wanted = new URLSearchParams(filters)
    set(Object.fromEntries(filterParams.map((k) => [k, wanted.get(k)])))
  }
  const save = async (name: string) => {
    setNaming(false)
    if (!name.trim()) return
    try {
      await ask(api.POST('/api/filters', { body: { name, filters: now } }))
      await cache.invalidateQueries({ queryKey: ['filters'] })
      toast(`Filters kept as “${name.trim()}”`)
    } catch (e) {
      toast((e as Error).message)
    }
  }
  const forget = async () => {
    if (!current) return
    await ask(api.DELETE('/api/filters/{id}', { params: { path: { id: current.id } } }))
    await cache.invalidateQueries({ queryKey: ['filters'] })
    toast(`Forgot the filters “${current.name}”`, async () => {
      await ask(api.POST('/api/filters', { body: { name: current.name, filters: current.filters } }))
      await cache.invalidateQueries({ queryKey: ['filters'] })
    })
  }
  return (
    <div className="flex flex-wrap gap-x-2 gap-y-1 items-center text-[13px]">
      <input
        ref={box}
        className="inline-input w-24"
        placeholder="has… -not"
        title="Words the term must have; a minus before one that it must not"
        aria-label="Has the words"
        value={params.get('has') ?? ''}
        onChange={(e) => set({ has: e.target.value })}
        onKeyDown={blur}
      />
      {boxes.map(([key, name, how, width]) => (
        <input
          key={key}
          className="inline-input num !text-[12.5px]"
          style={{ width }}
          inputMode="numeric"
          placeholder={`${name} ${how === 'at least' ? '≥' : '≤'}`}
          aria-label={`${name} ${how}`}
          title={`Only terms with ${name} ${how} this; unknown ones are left out`}
          value={params.get(key) ?? ''}
          onChange={(e) => set({ [key]: e.target.value.replace(/[^\d.]/g, '') })}
          onKeyDown={blur}
        />
      ))}
      {Object.keys(sources ?? {}).length > 1 && (
        <select
          className="bg-transparent text-[13px] cursor-pointer max-w-32"
          aria-label="Numbers from"
          title="Only terms whose numbers come from there"
          value={params.get('source') ?? ''}
          onChange={(e) => set({ source: e.target.value })}
        >
          <option value="">from anywhere</option>
          {Object.keys(sources ?? {}).map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      )}
      {(saved.length > 0 || filtered) && (
        <select
          className="bg-transparent text-[13px] cursor-pointer max-w-36"
          aria-label="Kept filters"
          value={naming ? 'name' : (current?.name ?? '')}
          onChange={(e) => (e.target.value === 'name' ? setNaming(true) : use(saved.find((f) => f.name === e.target.value)?.filters ?? ''))}
        >
          <option value="">{filtered ? 'these filters' : 'kept filters…'}</option>
          {saved.map((f) => (
            <option key={f.id}>{f.name}</option>
          ))}
          {filtered && !current && <option value="name">Keep these as…</option>}
        </select>
      )}
      {naming && (
        <input
          autoFocus
          className="inline-input w-28"
          placeholder="their name"
          aria-label="Name for these filters"
          onBlur={() => setNaming(false)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') save(e.currentTarget.value)
            if (e.key === 'Escape') setNaming(false)
          }}
        />
      )}
      {current && (
        <button type="button" className="link" onClick={forget}>
          Forget
        </button>
      )}
      {filtered && (
        <button type="button" className="link" onClick={() => set(Object.fromEntries(filterParams.map((k) => [k, null])))}>
          Show all
        </button>
      )}
      <span className="ml-auto inline-flex gap-2.5 items-center">
        <span className="num quiet text-[12.5px]" data-testid="passing">
          {compact(passing)}
        </span>
        <button type="button" className="link" title="What is shown, as CSV" onClick={() => out('csv')}>
          CSV
        </button>
        <button type="button" className="link" title="What is shown, as XLSX" onClick={() => out('xlsx')}>
          XLSX
        </button>
        <button
          type="button"
          className="link"
          title="Exact-phrase title queries for what is shown or marked, to check elsewhere"
          onClick={copyQueries}
        >
          Title queries <kbd>Q</kbd>
        </button>
      </span>
    </div>
  )
}
