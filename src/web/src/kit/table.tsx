import { useVirtualizer } from '@tanstack/react-virtual'
import { memo, type ReactNode, useEffect, useMemo, useRef } from 'react'
import { copyText } from './copy'
import { Menu, type MenuItem } from './menu'
import { messages } from './messages'
import { useNarrow } from './narrow'
import { changed } from './selection'
import { useShortcuts } from './shortcuts'
import { download } from './stream'
import { toast } from './toast'

export type Column<T> = {
  key: string
  head: ReactNode
  title?: string
  width: string
  /** Its width on a narrow screen; false where it is not shown there. */
  narrow?: string | false
  right?: boolean
  /** The value to sort by; unknown values come last whichever way. */
  value?: (row: T) => number | string | null | undefined
  /** Whether its values are words, which are sorted from A; numbers are sorted from the highest. */
  words?: boolean
  /** What a file or a copied table has of it; its value where nothing else is said. */
  text?: (row: T) => string
  cell: (row: T) => ReactNode
}

export type Sort = { key: string; down: boolean } | null

/** Rows that may not all be here yet: an array, or pages that come when they are looked at. */
export type Rows<T> = { length: number; at: (i: number) => T | undefined }

export function sortRows<T>(rows: T[], columns: Column<T>[], sort: Sort): T[] {
  const value = columns.find((c) => c.key === sort?.key)?.value
  if (!sort || !value) return rows
  return [...rows].sort((a, b) => {
    const [x, y] = [value(a) ?? null, value(b) ?? null]
    if (x === null || y === null) return x === y ? 0 : x === null ? 1 : -1
    const order = typeof x === 'string' || typeof y === 'string' ? String(x).localeCompare(String(y)) : x - y
    return sort.down ? -order : order
  })
}

/** What a column is called in a file, and where columns are chosen. */
export const headOf = <T,>(c: Column<T>) => (typeof c.head === 'string' && c.head ? c.head : (c.title ?? c.key))

const cellOf = <T,>(c: Column<T>, row: T) => {
  if (c.text) return c.text(row)
  const value = c.value?.(row) ?? ''
  return Number.isFinite(value) || typeof value === 'string' ? String(value) : ''
}

/** Rows as they are copied and exported: the columns that have a value. */
export const shownCells = <T,>(columns: Column<T>[], rows: T[]) => {
  const told = columns.filter((c) => c.value || c.text)
  return { heads: told.map(headOf), rows: rows.map((r) => told.map((c) => cellOf(c, r))) }
}

const HeadHeight = 30
const MostShown = 20_000

/** The width that the columns need at least, so that many of them are scrolled sideways rather than pressed together. */
const leastWidth = (columns: { width: string }[]) => columns.reduce((sum, c) => sum + Number(/(\d+)px/.exec(c.width)?.[1] ?? 40) + 12, 24)

/** A table that the arrow keys move in. Only the rows in sight exist. Space selects a row, Shift with an arrow extends the selection. */
export function Table<T>(p: {
  name: string
  rows: Rows<T>
  columns: Column<T>[]
  id: (row: T) => string
  /** The row one is on, by number; −1 for none. */
  at: number
  onAt: (at: number, row: T | undefined) => void
  onEnter?: (row: T) => void
  marked?: ReadonlySet<string>
  onMark?: (ids: string[], on: boolean) => void
  sort?: Sort
  onSort?: (sort: Sort) => void
  onRange?: (from: number, to: number) => void
  rowHeight?: number
  rowClass?: (row: T) => string
  /** What the table’s menu offers before copying and exporting. */
  menu?: MenuItem[]
  /** Exports more than the rows that are here. */
  exportAs?: (format: 'csv' | 'xlsx') => void
  empty: ReactNode
}) {
  const scroller = useRef<HTMLDivElement>(null)
  const height = p.rowHeight ?? 40
  const { at, rows } = p
  // Where the keys have led, also before it is drawn: a key that comes faster than the screen starts from there.
  const live = useRef({ at, marked: p.marked })
  live.current = { at, marked: p.marked }
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 12,
    scrollPaddingEnd: HeadHeight,
  })
  const go = (to: number, marking = false) => {
    const i = Math.max(0, Math.min(rows.length - 1, to))
    if (rows.length === 0) return
    if (marking) mark(Math.min(live.current.at, i), Math.max(live.current.at, i), true)
    live.current.at = i
    p.onAt(i, rows.at(i))
  }
  const mark = (from: number, to: number, on: boolean) => {
    const ids = []
    for (let i = Math.max(0, from); i <= to; i++) {
      const row = rows.at(i)
      if (row) ids.push(p.id(row))
    }
    if (live.current.marked) live.current.marked = changed(live.current.marked, ids, on)
    p.onMark?.(ids, on)
  }
  const page = () => Math.max(1, Math.floor((scroller.current?.clientHeight ?? 400) / height) - 1)
  const reach = (e: KeyboardEvent) => (e.key.startsWith('Page') ? page() : 1)
  useShortcuts({
    down: () => go(live.current.at + 1),
    up: () => go(live.current.at < 0 ? 0 : live.current.at - 1),
    pageDown: () => go(live.current.at + page()),
    pageUp: () => go(live.current.at - page()),
    first: () => go(0),
    last: () => go(rows.length - 1),
    extendDown: p.onMark && ((e) => go(live.current.at + reach(e), true)),
    extendUp: p.onMark && ((e) => go(live.current.at - reach(e), true)),
    select:
      p.onMark &&
      (() => {
        const i = Math.max(0, live.current.at)
        const row = rows.at(i)
        if (row) mark(i, i, !live.current.marked?.has(p.id(row)))
      }),
    selectAll: p.onMark && (() => mark(0, rows.length - 1, true)),
    open:
      p.onEnter &&
      (() => {
        const row = rows.at(live.current.at)
        if (live.current.at >= 0 && row) p.onEnter?.(row)
      }),
  })
  // The row one is on is the table's one tab stop: the focus goes with it while it is in the table.
  const within = useRef(false)
  useEffect(() => {
    if (at < 0) return
    virtual.scrollToIndex(at)
    if (!within.current) return
    const frame = requestAnimationFrame(() =>
      scroller.current?.querySelector<HTMLElement>('[role=row][tabindex="0"]')?.focus({ preventScroll: true }),
    )
    return () => cancelAnimationFrame(frame)
  }, [at, virtual])
  const items = virtual.getVirtualItems()
  const [first, last] = [items[0]?.index ?? 0, items[items.length - 1]?.index ?? 0]
  const range = useRef(p.onRange)
  range.current = p.onRange
  useEffect(() => range.current?.(first, last), [first, last])
  // What a row does is looked up when it is done, so that a row is drawn anew only when it shows something else.
  const hands = useRef({ click: (_: React.MouseEvent, __: number) => {}, enter: (_: number) => {} }).current
  hands.click = (e, i) => {
    const row = rows.at(i)
    if (row && e.shiftKey && p.onMark) mark(Math.min(at, i), Math.max(at, i), true)
    else if (row && (e.ctrlKey || e.metaKey) && p.onMark) p.onMark([p.id(row)], !p.marked?.has(p.id(row)))
    p.onAt(i, row)
  }
  hands.enter = (i) => {
    const row = rows.at(i)
    if (row) p.onEnter?.(row)
  }
  const here = (): T[] => {
    const some: T[] = []
    for (let i = 0; i < Math.min(rows.length, MostShown); i++) {
      const row = rows.at(i)
      if (row && (!p.marked?.size || p.marked.has(p.id(row)))) some.push(row)
    }
    return some
  }
  const asText = (some: T[]) => {
    const { heads, rows: cells } = shownCells(p.columns, some)
    return [heads, ...cells].map((r) => r.join('\t')).join('\n')
  }
  const exportAs = async (format: 'csv' | 'xlsx') => {
    if (p.exportAs && !p.marked?.size) return p.exportAs(format)
    try {
      await download(`/api/tables/export.${format}`, { name: p.name, ...shownCells(p.columns, here()) })
    } catch (e) {
      toast((e as Error).message)
    }
  }
  useShortcuts({ exportTable: () => exportAs('csv') })
  const menu: MenuItem[] = [
    ...(p.menu ?? []),
    { label: 'Copy as text', run: () => copyText(p.name, asText(here())) },
    { label: 'Export as CSV', key: 'exportTable', run: () => exportAs('csv') },
    { label: 'Export as XLSX', run: () => exportAs('xlsx') },
  ]
  const narrow = useNarrow()
  const columns = useMemo(
    () => (narrow ? p.columns.filter((c) => c.narrow !== false).map((c) => ({ ...c, width: c.narrow || c.width })) : p.columns),
    [narrow, p.columns],
  )
  const template = { gridTemplateColumns: columns.map((c) => c.width).join(' ') }
  const width = { minWidth: narrow ? undefined : leastWidth(columns) }
  const turn = (c: Column<T>, on: boolean) => {
    const natural = !c.words
    p.onSort?.(!on ? { key: c.key, down: natural } : p.sort?.down === natural ? { key: c.key, down: !natural } : null)
  }
  return (
    <div
      className={`grid-table ${rows.length === 0 ? 'empty' : ''}`}
      onCopy={(e) => {
        const row = rows.at(live.current.at)
        if (!window.getSelection()?.isCollapsed || (!p.marked?.size && !row)) return
        e.preventDefault()
        const some = p.marked?.size ? here() : row ? [row] : []
        e.clipboardData.setData('text/plain', asText(some))
        toast(messages.rowsCopied(some.length))
      }}
    >
      {rows.length > 0 && (
        <span className="table-menu">
          <Menu label={`${p.name}: more`} items={menu} />
        </span>
      )}
      <div
        ref={scroller}
        className="overflow-auto min-h-0"
        data-testid="rows"
        role="grid"
        tabIndex={rows.length === 0 ? 0 : -1}
        aria-label={p.name}
        aria-rowcount={rows.length + 1}
        aria-multiselectable={p.onMark ? true : undefined}
        onFocus={() => {
          within.current = true
        }}
        onBlur={(e) => {
          within.current = e.currentTarget.contains(e.relatedTarget) || e.relatedTarget === null
        }}
      >
        <div className="grid-row grid-head" role="row" tabIndex={-1} style={{ ...template, ...width }}>
          {columns.map((c) => {
            const on = p.sort?.key === c.key
            return (
              <div
                key={c.key}
                role="columnheader"
                tabIndex={-1}
                className={c.right ? 'r' : ''}
                title={c.title}
                aria-sort={on ? (p.sort?.down ? 'descending' : 'ascending') : undefined}
              >
                {c.value && p.onSort ? (
                  <button type="button" onClick={() => turn(c, on)}>
                    {c.head}
                    {on ? (p.sort?.down ? ' ↓' : ' ↑') : ''}
                  </button>
                ) : (
                  c.head
                )}
              </div>
            )
          })}
        </div>
        <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative', ...width }}>
          {items.map((item) => {
            const row = rows.at(item.index)
            const place = {
              ...template,
              position: 'absolute',
              top: 0,
              left: 0,
              right: 0,
              height,
              transform: `translateY(${item.start}px)`,
            } as const
            if (!row) return <div key={item.index} className="grid-row" style={place} />
            const id = p.id(row)
            return (
              <Line
                key={id}
                row={row}
                id={id}
                number={item.index}
                start={item.start}
                height={height}
                template={template.gridTemplateColumns}
                here={item.index === at}
                stop={item.index === Math.max(0, at)}
                marked={p.onMark ? (p.marked?.has(id) ?? false) : undefined}
                extra={p.rowClass?.(row) ?? ''}
                columns={columns as Column<unknown>[]}
                hands={hands}
              />
            )
          })}
        </div>
      </div>
      {rows.length === 0 && <div className="empty-table">{p.empty}</div>}
    </div>
  )
}

const Line = memo(function Line(p: {
  row: unknown
  id: string
  number: number
  start: number
  height: number
  template: string
  here: boolean
  stop: boolean
  marked: boolean | undefined
  extra: string
  columns: Column<unknown>[]
  hands: { click: (e: React.MouseEvent, i: number) => void; enter: (i: number) => void }
}) {
  return (
    <div
      role="row"
      tabIndex={p.stop ? 0 : -1}
      aria-rowindex={p.number + 2}
      aria-selected={p.marked ?? p.here}
      aria-current={p.here ? 'true' : undefined}
      data-id={p.id}
      className={`grid-row ${p.here ? 'cursor' : ''} ${p.marked ? 'marked' : ''} ${p.extra}`}
      style={{
        gridTemplateColumns: p.template,
        position: 'absolute',
        top: 0,
        left: 0,
        right: 0,
        height: p.height,
        transform: `translateY(${p.start}px)`,
      }}
      onClick={(e) => p.hands.click(e, p.number)}
      onDoubleClick={() => p.hands.enter(p.number)}
      onKeyDown={() => undefined}
    >
      {p.columns.map((c) => (
        // biome-ignore lint/a11y/useFocusableInteractive: the row takes the focus
        <div key={c.key} role="gridcell" className={c.right ? 'r' : ''}>
          {c.cell(p.row)}
        </div>
      ))}
    </div>
  )
})
