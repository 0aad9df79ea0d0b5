import { useMemo } from 'react'
import type { Grid, Pick } from '../kit/api'
import { Num } from '../kit/num'
import { full, noData } from '../kit/numbers'
import { useShortcuts } from '../kit/shortcuts'

/** The term and other names for it, combined with what can be said of the product. Arrows move; Enter searches. */
export function GridSheet({
  grid,
  byPick,
  at,
  onAt,
  onDig,
}: {
  grid: Grid | undefined
  byPick: ReadonlyMap<string, Pick>
  at: string | null
  onAt: (key: string) => void
  onDig: (text: string) => void
}) {
  const cells = useMemo(() => grid?.facets.flatMap((f) => f.rows.map((r) => ({ word: r.word, cells: r.cells }))) ?? [], [grid])
  const y = Math.max(
    0,
    cells.findIndex((r) => r.cells.some((c) => c.key === at)),
  )
  const x = Math.max(0, cells[y]?.cells.findIndex((c) => c.key === at) ?? 0)
  const cell = cells[y]?.cells[x]
  const go = (dy: number, dx: number) => {
    const to = cells[Math.max(0, Math.min(cells.length - 1, y + dy))]
    const next = to?.cells[Math.max(0, Math.min(to.cells.length - 1, x + dx))]
    if (!next) return
    onAt(next.key)
    const button = document.querySelector<HTMLElement>(`[data-cell="${CSS.escape(next.key)}"]`)
    button?.scrollIntoView({ block: 'nearest' })
    if (document.activeElement?.closest('[data-cell]')) button?.focus()
  }
  useShortcuts({
    down: () => go(1, 0),
    up: () => go(-1, 0),
    collapse: () => go(0, -1),
    expand: () => go(0, 1),
    open: () => cell && onDig(cell.text),
  })
  if (!grid) return <p className="quiet py-6">Measuring each combination…</p>
  const top = Math.max(1, ...cells.flatMap((r) => r.cells.map((c) => c.numbers.volume ?? 0)))
  return (
    <div className="overflow-auto min-h-0" role="region" aria-label="Grid of combinations" data-testid="grid">
      <table className="plain mixes">
        <thead>
          <tr>
            <th className="sticky top-0 left-0 bg-base-100 z-2">Word</th>
            {grid.heads.map((h) => (
              <th key={h} className="r sticky top-0 bg-base-100 z-1 whitespace-nowrap">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        {grid.facets.map((f) => (
          <tbody key={f.facet}>
            <tr>
              <th colSpan={grid.heads.length + 1} className="head !font-semibold !text-[13px] !pt-3 capitalize !text-base-content">
                {f.facet}
              </th>
            </tr>
            {f.rows.map((r) => (
              <tr key={r.word}>
                <td className="sticky left-0 bg-base-100" title={r.own ? 'In the product’s facts' : undefined}>
                  {r.own ? <b>{r.word}</b> : r.word}
                </td>
                {r.cells.map((c) => {
                  const pick = byPick.get(c.key)
                  const volume = c.numbers.volume
                  return (
                    <td key={c.key} className="r !p-0">
                      <button
                        type="button"
                        tabIndex={c === cell ? 0 : -1}
                        data-cell={c.key}
                        className={`mix ${c === cell ? 'cursor' : ''}`}
                        title={`${c.text}: ${volume === null ? noData : `${full(volume)} searches/mo`}`}
                        onClick={() => onAt(c.key)}
                        onDoubleClick={() => onDig(c.text)}
                      >
                        {pick && <span className="mark mr-2">{pick.home === 'avoid' ? 'avoid' : 'picked'}</span>}
                        <span
                          className="mix-bar"
                          style={{ width: volume ? Math.max(2, (Math.log10(volume + 1) / Math.log10(top + 1)) * 44) : 0 }}
                        />
                        <span className="text-[13px] w-12 text-right">
                          <Num value={volume} unit="searches/mo" />
                        </span>
                      </button>
                    </td>
                  )
                })}
              </tr>
            ))}
          </tbody>
        ))}
      </table>
    </div>
  )
}
