import { useEffect, useRef, useSyncExternalStore } from 'react'
import uPlot from 'uplot'
import 'uplot/dist/uPlot.min.css'

/** One line of a chart by day. */
export type DaysLine = { name: string; values: (number | null)[] }

/** A mark on a day. */
export type Pin = { day: number; text: string }

const Day = 86_400
const Dashes: (number[] | undefined)[] = [undefined, [8, 4], [2, 3], [10, 3, 2, 3], [14, 5]]

/** The theme, whose colours are drawn into the chart. */
const themed = (changed: () => void) => {
  const watch = new MutationObserver(changed)
  watch.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] })
  return () => watch.disconnect()
}

/** The time of a day's beginning, in seconds, as the chart counts. */
const timeOf = (from: string, day: number) => Date.parse(`${from}T00:00:00Z`) / 1000 + day * Day

const color = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()

/**
 * Counts or ranks by day, with changes as pins. Dragging zooms, a double click shows all; the range and the day that is read out belong to
 * the caller, so that keys can move them, too.
 */
export function DaysChart(p: {
  name: string
  from: string
  days: number
  lines: DaysLine[]
  pins: Pin[]
  /** The days that are shown, the last one included. */
  range: [number, number]
  onRange: (range: [number, number]) => void
  /** The day that is read out. */
  at: number
  onAt: (day: number) => void
  /** Ranks: the first is at the top. */
  isRank?: boolean
  height: number
}) {
  const box = useRef<HTMLDivElement>(null)
  const plot = useRef<uPlot | null>(null)
  const latest = useRef(p)
  latest.current = p
  const { from, days, lines, isRank, height } = p
  const theme = useSyncExternalStore(themed, () => document.documentElement.dataset.theme)
  const shape = lines.map((l) => l.name).join('\n')
  // biome-ignore lint/correctness/useExhaustiveDependencies: made again for other lines; what they show is set below
  useEffect(() => {
    const into = box.current
    if (!into) return
    const ink = color('--color-base-content')
    const grid = { stroke: color('--color-base-300'), width: 1 }
    const font = '12px "Atkinson Hyperlegible Next Variable", sans-serif'
    const axis = { stroke: ink, grid, ticks: grid, font }
    const made = new uPlot(
      {
        width: into.clientWidth,
        height,
        legend: { show: false },
        cursor: { drag: { x: true, y: false, setScale: false }, points: { size: 7 } },
        scales: {
          x: { time: true },
          y: isRank
            ? { dir: -1, distr: 3, log: 10, range: (_, low, high) => [1, Math.max(10, high || low || 10)] }
            : { range: (_, __, high) => [0, (high || 1) * 1.08] },
        },
        tzDate: (seconds) => uPlot.tzDate(new Date(seconds * 1000), 'Etc/UTC'),
        axes: [axis, { ...axis, size: 52 }],
        series: [
          {},
          ...lines.map((l, i) => ({
            label: l.name,
            stroke: i === 0 ? color('--color-primary') : ink,
            width: i === 0 ? 2 : 1.4,
            dash: Dashes[i % Dashes.length],
            points: { show: days < 40 },
            spanGaps: false,
          })),
        ],
        hooks: {
          setCursor: [
            (u) => {
              if (u.cursor.idx != null && u.cursor.idx !== latest.current.at && u.cursor.event) latest.current.onAt(u.cursor.idx)
            },
          ],
          setSelect: [
            (u) => {
              if (u.select.width < 4) return
              const [a, b] = [u.posToIdx(u.select.left), u.posToIdx(u.select.left + u.select.width)]
              u.setSelect({ left: 0, top: 0, width: 0, height: 0 }, false)
              if (b > a) latest.current.onRange([a, b])
            },
          ],
          draw: [
            (u) => {
              const { ctx } = u
              const now = latest.current
              const { left, top, width, height: tall } = u.bbox
              const scale = devicePixelRatio
              ctx.save()
              // The day that is read out.
              const x = u.valToPos(timeOf(now.from, now.at), 'x', true)
              if (x >= left && x <= left + width) {
                ctx.fillStyle = color('--color-base-content')
                ctx.fillRect(x, top, scale, tall)
              }
              ctx.strokeStyle = ctx.fillStyle = color('--color-secondary')
              ctx.font = `600 ${11 * scale}px "Atkinson Hyperlegible Next Variable", sans-serif`
              ctx.textAlign = 'center'
              for (const [i, pin] of now.pins.entries()) {
                const at = u.valToPos(timeOf(now.from, pin.day), 'x', true)
                if (at < left || at > left + width) continue
                ctx.setLineDash([3 * scale, 3 * scale])
                ctx.beginPath()
                ctx.moveTo(at, top)
                ctx.lineTo(at, top + tall)
                ctx.stroke()
                ctx.setLineDash([])
                ctx.beginPath()
                ctx.arc(at, top + 9 * scale, 9 * scale, 0, 2 * Math.PI)
                ctx.fill()
                ctx.fillStyle = color('--color-base-100')
                ctx.fillText(String(i + 1), at, top + 13 * scale)
                ctx.fillStyle = color('--color-secondary')
              }
              ctx.restore()
            },
          ],
        },
      },
      [[], ...lines.map(() => [])] as unknown as uPlot.AlignedData,
      into,
    )
    plot.current = made
    const watch = new ResizeObserver(() => made.setSize({ width: into.clientWidth, height }))
    watch.observe(into)
    return () => {
      watch.disconnect()
      made.destroy()
      plot.current = null
    }
  }, [shape, isRank, height, from, days, theme])
  // biome-ignore lint/correctness/useExhaustiveDependencies: a chart that was made again is filled again
  useEffect(() => {
    const times = Array.from({ length: days }, (_, i) => timeOf(from, i))
    plot.current?.setData([times, ...lines.map((l) => l.values)] as uPlot.AlignedData, false)
    plot.current?.setScale('x', { min: timeOf(from, latest.current.range[0]), max: timeOf(from, latest.current.range[1]) })
  }, [lines, from, days, isRank, height, theme])
  const [first, last] = p.range
  useEffect(() => {
    plot.current?.setScale('x', { min: timeOf(from, first), max: timeOf(from, last) })
  }, [first, last, from])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the pins and the day are read when it is drawn
  useEffect(() => {
    plot.current?.redraw(false)
  }, [p.at, p.pins])
  return (
    <div
      ref={box}
      role="img"
      aria-label={p.name}
      className="w-full days-chart"
      style={{ height }}
      onDoubleClick={() => p.onRange([0, days - 1])}
    />
  )
}
