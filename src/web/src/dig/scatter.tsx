import { scaleLog } from 'd3-scale'
import { useEffect, useRef, useState } from 'react'
import type { Norm } from '../kit/api'
import { Key } from '../kit/key'
import { compact, counted, full } from '../kit/numbers'
import { useShortcuts } from '../kit/shortcuts'
import type { Row } from './rows'

const [W, H, L, B] = [720, 440, 46, 34]

/** Demand against competition on logarithmic scales. Above the line, headroom is higher than typical for the market. */
export function Scatter({
  rows,
  norm,
  at,
  marked,
  onAt,
  onMark,
}: {
  rows: Row[]
  norm: Norm | undefined
  at: string | undefined
  marked: ReadonlySet<string>
  onAt: (key: string) => void
  onMark: (keys: string[], on: boolean) => void
}) {
  const svg = useRef<SVGSVGElement>(null)
  const box = useRef<HTMLDivElement>(null)
  useEffect(() => box.current?.focus(), [])
  const [drag, setDrag] = useState<{ x0: number; y0: number; x1: number; y1: number } | null>(null)
  const known = rows.filter((r) => r.numbers.volume !== null && r.numbers.volume > 0 && r.numbers.competition !== null)
  // From 1 to the next half power of ten, at least 100.
  const upTo = (values: number[]) => 10 ** Math.max(2, Math.ceil(Math.log10(Math.max(1, ...values)) * 2) / 2)
  const across = scaleLog([1, upTo(known.map((r) => r.numbers.competition ?? 1))], [L, W - 12]).clamp(true)
  const up = scaleLog([1, upTo(known.map((r) => r.numbers.volume ?? 1))], [H - B, 12]).clamp(true)
  const x = (competition: number) => across(Math.max(1, competition))
  const y = (volume: number) => up(Math.max(1, volume))
  const points = known.map((r) => ({ row: r, x: x(r.numbers.competition ?? 1), y: y(r.numbers.volume ?? 1) }))
  const here = points.find((p) => p.row.key === at)
  // The nearest point that lies that way.
  const go = (dx: number, dy: number) => {
    const from = here ?? points[0]
    if (!from) return
    let best: { key: string; far: number } | null = null
    for (const p of points) {
      const [px, py] = [p.x - from.x, p.y - from.y]
      const along = px * dx + py * dy
      const across = Math.abs(px * dy) + Math.abs(py * dx)
      if (along <= 0.01 || across > along * 2) continue
      const far = along + across * 2
      if (!best || far < best.far) best = { key: p.row.key, far }
    }
    if (best) onAt(best.key)
  }
  useShortcuts({
    collapse: () => go(-1, 0),
    expand: () => go(1, 0),
    up: () => go(0, -1),
    down: () => go(0, 1),
    select: () => here && onMark([here.row.key], !marked.has(here.row.key)),
  })
  const spot = (e: React.PointerEvent) => {
    const box = (svg.current as SVGSVGElement).getBoundingClientRect()
    return [((e.clientX - box.left) / box.width) * W, ((e.clientY - box.top) / box.height) * H]
  }
  const tens = (scale: typeof across) => scale.ticks().filter((n) => Number.isInteger(Math.log10(n)))
  const centre = norm?.centre
  // The volume that is typical for so much competition, off the plot where it has to be.
  const [, most] = across.domain()
  const typical = (competition: number) => up.copy().clamp(false)(competition * 10 ** (centre ?? 0))
  return (
    <div
      ref={box}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: arrows move from point to point while it has the focus
      tabIndex={0}
      role="group"
      aria-label="Scatter plot"
      className="min-h-0 overflow-hidden flex flex-col px-1 -outline-offset-2"
      data-testid="scatter"
    >
      <svg
        ref={svg}
        viewBox={`0 0 ${W} ${H}`}
        className="w-full min-h-0 flex-1 select-none touch-none"
        role="img"
        aria-label={`${counted(known.length, 'term')} by searches and competing listings`}
        onPointerDown={(e) => {
          const [px, py] = spot(e)
          e.currentTarget.setPointerCapture(e.pointerId)
          setDrag({ x0: px, y0: py, x1: px, y1: py })
        }}
        onPointerMove={(e) => {
          if (!drag) return
          const [px, py] = spot(e)
          setDrag({ ...drag, x1: px, y1: py })
        }}
        onPointerUp={() => {
          if (!drag) return
          const [x0, x1] = [Math.min(drag.x0, drag.x1), Math.max(drag.x0, drag.x1)]
          const [y0, y1] = [Math.min(drag.y0, drag.y1), Math.max(drag.y0, drag.y1)]
          setDrag(null)
          if (x1 - x0 > 6 || y1 - y0 > 6) {
            const inside = points.filter((p) => p.x >= x0 && p.x <= x1 && p.y >= y0 && p.y <= y1).map((p) => p.row.key)
            if (inside.length) onMark(inside, true)
            return
          }
          const near = points.map((p) => ({ p, d: Math.hypot(p.x - x0, p.y - y0) })).sort((a, b) => a.d - b.d)[0]
          if (near && near.d < 16) onAt(near.p.row.key)
        }}
      >
        {tens(across).map((n) => (
          <g key={`x${n}`}>
            <line x1={x(n)} x2={x(n)} y1={8} y2={H - B} stroke="var(--color-base-300)" />
            <text x={x(n)} y={H - B + 14} textAnchor="middle" className="num" fontSize="12" fill="var(--quiet)">
              {compact(n)}
            </text>
          </g>
        ))}
        {tens(up).map((n) => (
          <g key={`y${n}`}>
            <line x1={L} x2={W - 12} y1={y(n)} y2={y(n)} stroke="var(--color-base-300)" />
            <text x={L - 6} y={y(n) + 4} textAnchor="end" className="num" fontSize="12" fill="var(--quiet)">
              {compact(n)}
            </text>
          </g>
        ))}
        {centre !== null && centre !== undefined && (
          <>
            <clipPath id="plot">
              <rect x={L} y={8} width={W - L - 12} height={H - B - 8} />
            </clipPath>
            <line clipPath="url(#plot)" x1={x(1)} y1={typical(1)} x2={x(most)} y2={typical(most)} stroke="var(--tin)" strokeWidth="1.5">
              <title>Typical for this market: headroom 50</title>
            </line>
          </>
        )}
        {points.map(({ row, x: px, y: py }) => {
          const picked = row.pick && row.pick.home !== 'avoid'
          const on = marked.has(row.key)
          return (
            <circle
              key={row.key}
              cx={px}
              cy={py}
              r={row.key === at ? 7 : 4.5}
              fill={picked ? 'var(--color-primary)' : on ? 'var(--tape-fill)' : 'var(--color-base-100)'}
              stroke={
                row.pick?.home === 'avoid'
                  ? 'var(--tin)'
                  : row.key === at || on || picked
                    ? 'var(--color-primary)'
                    : 'var(--color-base-content)'
              }
              strokeWidth={row.key === at ? 2.5 : 1.2}
              strokeDasharray={row.pick?.home === 'avoid' ? '2 2' : undefined}
            >
              <title>{`${row.text}: ${full(row.numbers.volume)} searches/mo, ${full(row.numbers.competition)} competing listings`}</title>
            </circle>
          )
        })}
        {here && (
          <text
            x={Math.min(W - 12, Math.max(L, here.x + (here.x > W * 0.7 ? -12 : 12)))}
            y={here.y - 8}
            textAnchor={here.x > W * 0.7 ? 'end' : 'start'}
            fontSize="13"
            fontWeight="600"
            fill="var(--color-base-content)"
            stroke="var(--color-base-100)"
            strokeWidth="4"
            paintOrder="stroke"
          >
            {here.row.text}
          </text>
        )}
        {drag && (
          <rect
            x={Math.min(drag.x0, drag.x1)}
            y={Math.min(drag.y0, drag.y1)}
            width={Math.abs(drag.x1 - drag.x0)}
            height={Math.abs(drag.y1 - drag.y0)}
            fill="var(--cobalt-2)"
            fillOpacity="0.5"
            stroke="var(--color-primary)"
            strokeDasharray="4 3"
          />
        )}
        <text x={W - 14} y={H - 4} textAnchor="end" fontSize="12" fill="var(--quiet)">
          competing listings →
        </text>
        <text x={L} y={H - 4} fontSize="12" fill="var(--quiet)">
          ↑ searches/mo
        </text>
      </svg>
      <p className="quiet text-[12.5px] shrink-0 pb-1">
        {known.length} of {counted(rows.length, 'term')} {known.length === 1 ? 'has' : 'have'} both numbers. Filled: picked. Above the line:
        more headroom than typical. Use the arrow keys to move, <kbd>Space</kbd> or drag a box to select, <Key of="pick" /> to pick.
      </p>
    </div>
  )
}
