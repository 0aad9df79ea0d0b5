import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useAddress } from '../kit/address'
import { api, ask, type ShelfQuery, type ShelfRow } from '../kit/api'
import { useChanges } from '../kit/changes'
import { useHandedFile } from '../kit/door/open'
import { messages } from '../kit/messages'
import { usePicks } from '../kit/picks'
import { queryKey } from '../kit/queries'
import { useSelection } from '../kit/selection'
import { bounds, filterParams, limitsOf, passing } from '../kit/shelfquery'
import { type Desk, useConnected } from '../kit/shop'
import { sortIn } from '../kit/sort'
import { download } from '../kit/stream'
import type { Rows } from '../kit/table'
import { useTermActions } from '../kit/terms/actions'
import { unknownNumbers } from '../kit/terms/line'
import { sortTerms, useTermColumns } from '../kit/terms/termtable'
import { toast } from '../kit/toast'
import { useWeighing } from '../kit/weighing'
import { keyOf, titleQuery } from '../kit/words'
import { everything, recorded, recordedWithEarnings, usedBySellers } from './columns'
import { cellRow, gather, orders, type Row, type Source, saidBy, shownRows } from './rows'
import { termsIn, useLookUp, useSeveral } from './several'
import { useDig } from './usedig'
import { useShelf } from './useshelf'

/** What Dig shows and can do: the sources of a term, their rows filtered and sorted, the current row, the selection. */
export function useDigPage(desk: Desk) {
  const [params, set] = useAddress()
  const term = params.get('term') ?? ''
  const parent = params.get('parent')
  const view = params.get('view') ?? 'table'
  const from = new Set<Source>((params.get('from') ?? (term ? 'typed related used' : 'shelf')).split(' ') as Source[])
  if (!term) {
    from.clear()
    from.add('shelf')
  }
  const [asked, setAsked] = useState(term)
  const [side, setSide] = useState<'term' | 'paste'>('term')
  const [marked, mark, clear] = useSelection()
  const [shelfAt, setShelfAt] = useState(0)
  const handed = useHandedFile()
  const [file, setFile] = useState<File | null>(null)
  const { product, market } = desk
  const picks = usePicks(desk).data?.picks
  const changes = useChanges()
  // Several terms are shown side by side; one is dug.
  const several = useMemo(() => termsIn(term), [term])
  const isSeveral = several.length > 1
  const measured = useSeveral(desk, several)
  const lookUp = useLookUp(desk)
  const dug = useDig(desk, isSeveral ? '' : term, parent)
  const alike = useQuery({
    queryKey: queryKey('alike', product.id, market.id, term.toLowerCase()),
    queryFn: () =>
      ask(
        api.GET('/api/markets/{marketId}/alike', { params: { path: { marketId: market.id }, query: { text: term, product: product.id } } }),
      ),
    enabled: term !== '' && !isSeveral && (from.has('alike') || from.has('rare')),
    staleTime: Infinity,
  })
  const grid = useQuery({
    queryKey: queryKey('grid', product.id, market.id, term.toLowerCase(), product.facts),
    queryFn: () =>
      ask(
        api.GET('/api/products/{id}/grid/{marketId}', { params: { path: { id: product.id, marketId: market.id }, query: { head: term } } }),
      ),
    enabled: term !== '' && !isSeveral && (from.has('mixed') || view === 'grid'),
    staleTime: 60_000,
  })

  const onAll = useQuery({
    queryKey: queryKey('shelf', market.id, 'count'),
    queryFn: () =>
      ask(api.POST('/api/markets/{marketId}/shelf', { params: { path: { marketId: market.id } }, body: { down: true, skip: 0, take: 0 } })),
  }).data?.all
  const counts: Record<Source, number | undefined> = {
    typed: dug.data && [...dug.data.rows.values()].filter((r) => r.typed).length,
    used: dug.data && [...dug.data.rows.values()].filter((r) => r.sellers).length,
    related: dug.data && [...dug.data.rows.values()].filter((r) => r.related).length,
    alike: alike.data?.reduce((n, a) => n + a.alike.filter((t) => t.isUsed).length, 0),
    rare: alike.data?.reduce((n, a) => n + a.alike.filter((t) => !t.isUsed).length, 0),
    mixed: grid.data?.facets.reduce(
      (n, f) => n + f.rows.reduce((m, r) => m + r.cells.filter((c) => c.numbers.volume !== null).length, 0),
      0,
    ),
    shelf: undefined,
  }
  const key = [...from].sort().join(' ')
  // biome-ignore lint/correctness/useExhaustiveDependencies: key says what stands in from
  const found = useMemo(
    () =>
      isSeveral
        ? new Map(several.map((text): [string, Row] => [keyOf(text), { text, key: keyOf(text), numbers: unknownNumbers }]))
        : gather(from, dug.data?.rows, dug.data?.key, alike.data, grid.data),
    [key, isSeveral, several, dug.data, alike.data, grid.data],
  )

  const limits = limitsOf(params)
  const sort = sortIn(params)
  // Where the market knows nothing of a term, the shelf joins in by itself when it has terms with those words.
  const finished = dug.data !== undefined && dug.data.doing === null
  const unknown = finished && [...dug.data.rows.values()].every((r) => r.numbers.volume === null && !r.typed && !r.related && !r.sellers)
  const onShelf = from.has('shelf') || unknown || isSeveral
  const query: ShelfQuery | null = useMemo(
    () =>
      onShelf || !term
        ? {
            has: limits.has || null,
            head: isSeveral ? null : term || null,
            also: term ? [...found.keys()] : null,
            ...bounds(limits),
            by: orders[sort?.key ?? 'volume'] ?? 'volume',
            down: sort ? sort.down : true,
            skip: 0,
            take: 200,
          }
        : null,
    [onShelf, term, isSeveral, found, limits, sort],
  )
  const shelf = useShelf(market.id, query)
  const byPick = useMemo(() => new Map(picks?.map((p) => [p.key, p])), [picks])
  const weighing = useWeighing(desk)
  const weights = useMemo(() => new Map(weighing?.terms.map((t) => [t.key, t])), [weighing])
  const connected = useConnected()
  const earned = useQuery({
    queryKey: queryKey('shelf', market.id, 'earned'),
    queryFn: () =>
      ask(
        api.POST('/api/markets/{marketId}/shelf', {
          params: { path: { marketId: market.id } },
          body: { clicksFrom: 0, down: true, skip: 0, take: 0 },
        }),
      ),
    enabled: !connected,
  }).data?.passing
  const kind = from.has('used') && !from.has('typed') ? usedBySellers : connected ? everything : earned ? recordedWithEarnings : recorded
  const columns = useTermColumns<Row>({ desk, ...kind, fields: weighing?.fields })
  const { leadKey } = columns
  const rows: Rows<Row> = useMemo(() => {
    if (query) {
      const made = new WeakMap<ShelfRow, Row>()
      // Found terms that are on no shelf come last, as all that is unknown does.
      const absent = (shelf.data?.absent ?? []).flatMap((k) => found.get(k) ?? []).filter(passing(limits))
      return {
        length: shelf.rows.length + absent.length,
        at: (i) => {
          if (i >= shelf.rows.length) return absent[i - shelf.rows.length]
          const r = shelf.rows.at(i)
          if (!r) return undefined
          const row = made.get(r) ?? {
            ...r,
            ...found.get(r.key),
            numbers: r.numbers,
            pick: byPick.get(r.key),
            weight: weights.get(r.key),
            lead: r.key === leadKey,
          }
          made.set(r, row)
          return row
        },
      }
    }
    const all = [...found.values()].map((r) => ({ ...r, pick: byPick.get(r.key), weight: weights.get(r.key), lead: r.key === leadKey }))
    return sortTerms(all.filter(passing(limits)), columns, sort)
  }, [query, shelf.rows, shelf.data, found, byPick, weights, leadKey, columns, limits, sort])

  const list = Array.isArray(rows) ? (rows as Row[]) : null
  const wanted = params.get('at')
  const at = list
    ? Math.max(
        list.length ? 0 : -1,
        list.findIndex((r) => r.key === wanted),
      )
    : Math.min(shelfAt, rows.length - 1)
  const row = view === 'grid' ? (cellRow(grid.data, wanted, byPick) ?? rows.at(at)) : rows.at(at)
  const norm = (term ? dug.data?.norm : undefined) ?? shelf.data?.norm
  const filtered = filterParams.some((k) => params.get(k))

  const dig = (text: string, inside: boolean) => {
    const clean = text.trim()
    if (!clean) return
    setAsked(clean)
    setSide('term')
    clear()
    set(
      {
        ...Object.fromEntries(['at', 'sort', 'dir', 'view', ...filterParams].map((k) => [k, null])),
        from: params.get('from') === 'shelf' ? null : params.get('from'),
        term: clean,
        parent: inside && dug.data ? String(dug.data.stepId) : null,
      },
      true,
    )
  }
  /** Terms of the table that nobody has numbers for yet. */
  const unmeasured = useMemo(
    () => (isSeveral ? [] : shownRows(rows).flatMap((r) => (r.numbers.source === null && !lookUp.tried.has(r.text) ? [r.text] : []))),
    [rows, isSeveral, lookUp.tried],
  )
  const source = term || 'shelf'
  /** The rows a key is about: those marked, or the one one is on. */
  const chosen = (): Row[] => {
    if (marked.size === 0) return row ? [row] : []
    const some: Row[] = []
    for (let i = 0; i < rows.length && some.length < marked.size; i++) {
      const r = rows.at(i)
      if (r && marked.has(r.key)) some.push(r)
    }
    return some
  }
  const actions = useTermActions(desk, leadKey, source, (r) => saidBy(r as Row))
  const pick = (what: Row[]) => {
    actions.pick(what)
    clear()
  }
  const avoid = (what: Row[]) => {
    actions.avoid(what)
    clear()
  }
  const copyQueries = async () => {
    const some = marked.size > 0 ? chosen() : shownRows(rows)
    await navigator.clipboard.writeText(some.map((r) => titleQuery(r.key)).join('\n'))
    toast(messages.searchesCopied(some.length))
  }
  const out = async (format: 'csv' | 'xlsx') => {
    try {
      const body = query ?? {
        also: shownRows(rows).map((r) => r.key),
        by: orders[sort?.key ?? 'volume'] ?? 'volume',
        down: sort?.down ?? true,
      }
      await download(`/api/markets/${market.id}/shelf/export.${format}`, body)
    } catch (e) {
      toast((e as Error).message)
    }
  }
  const toggle = (s: Source) => {
    const next = new Set(from)
    next.has(s) ? next.delete(s) : next.add(s)
    set({ from: next.size === 0 ? null : [...next].join(' ') })
  }
  const rename = (row: Row, name: string) =>
    changes.run(() =>
      ask(
        api.POST('/api/markets/{marketId}/terms/rename', {
          params: { path: { marketId: market.id } },
          body: { text: row.text, name },
        }),
      ),
    )
  const show = (v: string) => set({ view: v === 'table' ? null : v })
  const [naming, setNaming] = useState<Row | null>(null)
  const remove = async (what: Row[]) => {
    const texts = what.map((r) => r.text)
    if (texts.length === 0) return
    await changes.run(() =>
      ask(
        api.POST('/api/markets/{marketId}/terms/delete', {
          params: { path: { marketId: market.id } },
          body: { texts: texts.slice(0, 1000) },
        }),
      ),
    )
    clear()
  }
  return {
    params,
    set,
    term,
    view,
    show,
    from,
    toggle,
    counts,
    onAll,
    asked,
    setAsked,
    side,
    setSide,
    marked,
    mark,
    clear,
    setShelfAt,
    file: handed ?? file,
    setFile,
    naming,
    setNaming,
    dug,
    isSeveral,
    measured,
    lookUp,
    unmeasured,
    grid,
    shelf,
    unknown,
    onShelf: onShelf || !term,
    rows,
    isList: list !== null,
    byPick,
    wanted,
    at,
    row,
    norm,
    sort,
    filtered,
    chosen,
    columns,
    source,
    dig,
    pick,
    avoid,
    copyQueries,
    out,
    remove,
    rename,
  }
}

export type DigPage = ReturnType<typeof useDigPage>
