import { useQuery } from '@tanstack/react-query'
import { type ReactNode, useMemo, useRef, useState } from 'react'
import { withChanges } from '../address'
import { foundQuery, listingQuery, ownTermsQuery } from '../listingqueries'
import type { MenuItem } from '../menu'
import { homeName } from '../names'
import { counted } from '../numbers'
import { useLikeness } from '../results'
import { limitsOf, passing } from '../shelfquery'
import type { Desk } from '../shop'
import { useShortcuts } from '../shortcuts'
import { type Column, type Rows, type Sort, sortRows, Table } from '../table'
import { useTermActions } from './actions'
import { useColumnChoice } from './choice'
import { termColumns } from './columns'
import { ColumnsDialog } from './columnsdialog'
import { FilterBoxes } from './filterboxes'
import { fits, homes } from './given'
import type { TermLine } from './line'
import { PlaceDialog } from './place'

/** Which columns a table of terms has: its own, those that the seller chose, and its own at the end. */
export function useTermColumns<T extends TermLine>(p: {
  desk: Desk
  table: string
  own: Column<T>[]
  usual: readonly string[]
  last?: Column<T>[]
  /** The keys of the fields that the weights of its rows are in. */
  fields: readonly string[] | undefined
}) {
  const { desk, own, last, fields } = p
  const [chosen, choose] = useColumnChoice(p.table, p.usual)
  const listing = useQuery(listingQuery(desk.listingId)).data
  const checks = useQuery({ ...foundQuery(desk), enabled: chosen.includes('rank') || chosen.includes('flipped') }).data
  const used = useQuery({ ...ownTermsQuery(desk.market.id), enabled: chosen.includes('ownListings') }).data
  const byTerm = useMemo(() => new Map(used?.terms.map((t) => [t.key, t])), [used])
  const judged = useLikeness(desk, chosen.includes('likeMine'))
  const likeness = useMemo(() => new Map(judged?.map((l) => [l.key, l])), [judged])
  const found = useMemo(() => new Map(checks?.terms.map((t) => [t.key, t])), [checks])
  const all = useMemo(() => {
    const taken = new Set([...own, ...(last ?? [])].map((c) => c.key))
    return termColumns(listing, fields ?? [], found, byTerm, likeness).filter((c) => !taken.has(c.key))
  }, [listing, fields, found, byTerm, likeness, own, last])
  const columns = useMemo(
    () => [...own, ...all.filter((c) => chosen.includes(c.key)), ...(last ?? [])] as Column<T>[],
    [own, all, chosen, last],
  )
  const [filter, setFilter] = useState('')
  const passes = useMemo(() => (filter ? passing(limitsOf(new URLSearchParams(filter))) : null), [filter])
  const leadKey = listing?.leadKey
  return useMemo(
    () => ({ columns, all, chosen, choose, leadKey, filter, setFilter, passes }),
    [columns, all, chosen, choose, leadKey, filter, passes],
  )
}

export type TermColumns<T extends TermLine> = ReturnType<typeof useTermColumns<T>>

/**
 * A table of terms, the same wherever terms are listed: the same columns to choose from, the same keys and the same menu for a term or for
 * those that are selected.
 */
export function TermTable<T extends TermLine>(p: {
  desk: Desk
  name: string
  rows: Rows<T>
  columns: TermColumns<T>
  at: number
  onAt: (at: number, row: T | undefined) => void
  /** Says in the history where a pick came from. */
  source: string
  saidBy?: (row: T) => string
  /** What Enter does; it searches for the term where nothing else is said. */
  onEnter?: (row: T) => void
  id?: (row: T) => string
  marked?: ReadonlySet<string>
  onMark?: (ids: string[], on: boolean) => void
  clear?: () => void
  sort: Sort
  onSort: (sort: Sort) => void
  onRange?: (from: number, to: number) => void
  rowHeight?: number
  rowClass?: (row: T) => string
  /** Exports more than the rows that are here. */
  exportAs?: (format: 'csv' | 'xlsx') => void
  /** Those that the keys are about, where a row stands for several. */
  chosen?: () => T[]
  more?: MenuItem[]
  /** Goes to the filters, where the screen has them itself. */
  filter?: () => void
  empty: ReactNode
}) {
  const { desk, rows, columns } = p
  const [filters, setFilters] = useState(false)
  const box = useRef<HTMLInputElement>(null)
  const isFiltered = columns.filter !== ''
  const filter =
    p.filter ??
    (() => {
      setFilters(true)
      requestAnimationFrame(() => box.current?.focus())
    })
  const [choosing, setChoosing] = useState(false)
  const [placing, setPlacing] = useState<string[] | null>(null)
  const actions = useTermActions(desk, columns.leadKey, p.source, (r) => p.saidBy?.(r as T) ?? '')
  const id = p.id ?? ((r: T) => r.key)
  const row = rows.at(p.at)
  const chosen = (): T[] => {
    if (p.chosen) return p.chosen()
    if (!p.marked || p.marked.size === 0) return row ? [row] : []
    const some: T[] = []
    for (let i = 0; i < rows.length && some.length < p.marked.size; i++) {
      const r = rows.at(i)
      if (r && p.marked.has(id(r))) some.push(r)
    }
    return some
  }
  const done =
    <R,>(act: (lines: T[]) => R) =>
    () => {
      act(chosen())
      p.clear?.()
    }
  const toFit = fits.map(([fit, key]) => [fit, key, () => actions.fit(chosen(), fit)] as const)
  const toHome = homes.filter(([home]) => home !== 'avoid').map(([home, key]) => [home, key, () => actions.home(chosen(), home)] as const)
  const lead = () => row && actions.lead(row)
  const open = actions.canOpen && (() => row && actions.open(row))
  const place = async () => {
    const lines = chosen()
    if (lines.length > 0 && (await actions.use(lines))) setPlacing(lines.map((r) => r.text))
  }
  useShortcuts({
    pick: done(actions.pick),
    avoid: done(actions.avoid),
    ...Object.fromEntries(toFit.map(([, key, run]) => [key, run])),
    ...Object.fromEntries(toHome.map(([, key, run]) => [key, run])),
    lead,
    openAtMarket: open,
    place,
    chooseColumns: () => setChoosing(true),
    filterTerms: filter,
  })
  const count = p.marked && p.marked.size > 1 ? p.marked.size : 1
  const menu: MenuItem[] = [
    ...(row
      ? ([
          { heading: count > 1 ? counted(count, 'term') : row.text },
          { label: count === 1 && row.pick && row.pick.home !== 'avoid' ? 'Remove pick' : 'Pick', key: 'pick', run: done(actions.pick) },
          { label: row.pick?.home === 'avoid' ? 'Stop avoiding' : 'Avoid', key: 'avoid', run: done(actions.avoid) },
          { label: row.lead ? 'No longer the lead' : 'Set as lead', key: 'lead', run: () => lead() },
          { label: 'Add to a field…', key: 'place', run: () => place() },
          ...toFit.map(([fit, key, run]) => ({ label: `Fit: ${fit}`, key, run: () => void run() })),
          ...toHome.map(([home, key, run]) => ({ label: `Home: ${homeName[home].toLowerCase()}`, key, run: () => void run() })),
          { label: 'Search for it', run: () => actions.lookUp(row) },
          { label: 'Own listings with it', run: () => actions.ownListings(row) },
          ...(open ? [{ label: `Open at ${desk.market.platformName}`, key: 'openAtMarket' as const, run: () => open() }] : []),
        ] satisfies MenuItem[])
      : []),
    { heading: 'Table' },
    { label: 'Filter…', key: 'filterTerms', run: filter },
    { label: 'Columns…', key: 'chooseColumns', run: () => setChoosing(true) },
    ...(p.more ?? []),
  ]
  return (
    <div className="grid min-h-0 min-w-0" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }}>
      <div>
        {(filters || isFiltered) && !p.filter && (
          <div className="flex flex-wrap gap-x-2 gap-y-1 items-center text-[13px] pb-1.5" role="search" aria-label={`Filter: ${p.name}`}>
            <FilterBoxes
              marketId={desk.market.id}
              params={new URLSearchParams(columns.filter)}
              set={(changes) => columns.setFilter(withChanges(new URLSearchParams(columns.filter), changes).toString())}
              box={box}
            />
            <span className="quiet">{counted(rows.length, 'term')}</span>
            <button
              type="button"
              className="link"
              onClick={() => {
                columns.setFilter('')
                setFilters(false)
              }}
            >
              Close the filter
            </button>
          </div>
        )}
      </div>
      <Table
        name={p.name}
        rows={rows}
        columns={columns.columns}
        id={id}
        at={p.at}
        onAt={p.onAt}
        onEnter={p.onEnter ?? ((r) => actions.lookUp(r))}
        marked={p.marked}
        onMark={p.onMark}
        sort={p.sort}
        onSort={p.onSort}
        onRange={p.onRange}
        rowHeight={p.rowHeight}
        rowClass={p.rowClass ?? ((r) => (r.pick?.home === 'avoid' ? 'struck' : ''))}
        menu={menu}
        exportAs={p.exportAs}
        empty={isFiltered ? <span className="quiet">No term passes the filter.</span> : p.empty}
      />
      {choosing && <ColumnsDialog columns={columns} close={() => setChoosing(false)} />}
      {placing && <PlaceDialog desk={desk} terms={placing} done={() => p.clear?.()} close={() => setPlacing(null)} />}
    </div>
  )
}

/** Rows of terms that pass the table’s filter, in the order that was chosen, by any column that there is, shown or not. */
export const sortTerms = <T extends TermLine>(rows: T[], columns: TermColumns<T>, sort: Sort) =>
  sortRows(columns.passes ? rows.filter(columns.passes) : rows, [...columns.columns, ...(columns.all as Column<T>[])], sort)
