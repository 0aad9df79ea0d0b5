import { useVirtualizer } from '@tanstack/react-virtual'
import { type ReactNode, useEffect, useRef } from 'react'
import { useKeys } from './keys'

export type Column<T> = {
  key: string
  head: ReactNode
  title?: string
  width: string
  right?: boolean
  /** The value to sort by; unknown values come last whichever way. */
  value?: (row: T) => number | string | null | undefined
  cell: (row: T) => ReactNode
}

export type Sort = { key: string; down: boolean } | null

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

const HeadHeight = 30

/** A table walked by the arrow keys. Only the rows in sight exist. */
export function Table<T>(p: {
  name: string
  rows: T[]
  columns: Column<T>[]
  id: (row: T) => string
  cursor: string | undefined
  onCursor: (id: string, row: T) => void
  onEnter?: (row: T) => void
  sort?: Sort
  onSort?: (sort: Sort) => void
  rowHeight?: number
  rowClass?: (row: T) => string
  empty: ReactNode
}) {
  const scroller = useRef<HTMLDivElement>(null)
  const height = p.rowHeight ?? 40
  const virtual = useVirtualizer({
    count: p.rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 12,
    scrollPaddingEnd: HeadHeight,
  })
  const at = p.rows.findIndex((r) => p.id(r) === p.cursor)
  const go = (to: number) => {
    const i = Math.max(0, Math.min(p.rows.length - 1, to))
    if (p.rows[i]) p.onCursor(p.id(p.rows[i]), p.rows[i])
  }
  const page = () => Math.max(1, Math.floor((scroller.current?.clientHeight ?? 400) / height) - 1)
  useKeys({
    ArrowDown: () => go(at + 1),
    ArrowUp: () => go(at < 0 ? 0 : at - 1),
    PageDown: () => go(at + page()),
    PageUp: () => go(at - page()),
    Home: () => go(0),
    End: () => go(p.rows.length - 1),
    ...(p.onEnter && {
      Enter: (e) => {
        if (e.target instanceof HTMLElement && e.target.closest('button, a, [role=button]')) (e.target as HTMLElement).click()
        else if (at >= 0) p.onEnter?.(p.rows[at])
      },
    }),
  })
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at)
  }, [at, virtual])
  const template = { gridTemplateColumns: p.columns.map((c) => c.width).join(' ') }
  return (
    // biome-ignore lint/a11y/useSemanticElements: a virtual table cannot be a table element
    <div className="grid-table" role="grid" aria-label={p.name} aria-rowcount={p.rows.length + 1}>
      <div ref={scroller} className="overflow-auto min-h-0" data-testid="rows">
        <div className="grid-row grid-head" role="row" tabIndex={-1} style={template}>
          {p.columns.map((c) => {
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
                  <button
                    type="button"
                    onClick={() =>
                      p.onSort?.(
                        on
                          ? p.sort?.down === (typeof c.value?.(p.rows[0]) !== 'string')
                            ? { key: c.key, down: !p.sort?.down }
                            : null
                          : { key: c.key, down: typeof c.value?.(p.rows[0]) !== 'string' },
                      )
                    }
                  >
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
        {p.rows.length === 0 && <div className="py-6 px-2">{p.empty}</div>}
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((item) => {
            const row = p.rows[item.index]
            const id = p.id(row)
            return (
              <div
                key={id}
                role="row"
                tabIndex={-1}
                aria-rowindex={item.index + 2}
                aria-selected={id === p.cursor}
                data-id={id}
                className={`grid-row ${id === p.cursor ? 'cursor' : ''} ${p.rowClass?.(row) ?? ''}`}
                style={{ ...template, position: 'absolute', top: 0, left: 0, right: 0, height, transform: `translateY(${item.start}px)` }}
                onClick={() => p.onCursor(id, row)}
                onDoubleClick={() => p.onEnter?.(row)}
                onKeyDown={() => undefined}
              >
                {p.columns.map((c) => (
                  <div key={c.key} role="gridcell" tabIndex={-1} className={c.right ? 'r' : ''}>
                    {c.cell(row)}
                  </div>
                ))}
              </div>
            )
          })}
        </div>
      </div>
    </div>
  )
}
