import { scaleLinear } from 'd3-scale'
import { useState } from 'react'
import { Num } from './num'
import { compact, counted, dayName, fixed, full, monthName, monthsFrom, noData } from './numbers'

/** A term's months as a small filled silhouette. */
export function Silhouette({ months, width = 112, height = 24 }: { months: number[] | null; width?: number; height?: number }) {
  if (!months || months.length < 2) return <span className="quiet text-[12px]">{noData}</span>
  const top = Math.max(1, ...months)
  const x = scaleLinear([0, months.length - 1], [1, width - 1])
  const y = scaleLinear([0, top], [height - 1, 3])
  const points = months.map((m, i) => `L${x(i).toFixed(1)} ${y(m).toFixed(1)}`)
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`${months.length} months, from ${full(Math.min(...months))} to ${full(top)} searches/mo`}
    >
      <path
        d={`M1 ${height - 1}${points.join('')}L${width - 1} ${height - 1}Z`}
        fill="var(--silhouette)"
        stroke="var(--color-base-content)"
        strokeWidth="1"
      />
    </svg>
  )
}

/** Demand against supply, 0–100, with a mark at 50, what is typical. */
export function HeadroomBar({ value }: { value: number | null }) {
  if (value === null) return <Num value={null} />
  return (
    <span
      className="inline-flex items-center gap-2 num text-[12.5px]"
      title={`Headroom ${fixed(value, 1)} of 100; 50 is typical for this market`}
    >
      <svg width={48} height={12} aria-hidden="true">
        <rect y="4" width="48" height="4" fill="var(--silhouette)" />
        <rect y="4" width={(value / 100) * 48} height="4" fill="var(--color-base-content)" />
        <line x1="24" x2="24" y1="1" y2="11" stroke="var(--tin)" />
      </svg>
      <span className="min-w-[3ch] text-right">{Math.round(value)}</span>
    </span>
  )
}

/** A spread of prices: a line from the lowest to the highest, a box for the middle half, a mark at the median. */
export function BoxPlot({ values, label }: { values: number[]; label: string }) {
  const [low, lower, median, upper, high] = values
  const at = scaleLinear([low, Math.max(low + 0.01, high)], [4, 256])
  return (
    <svg viewBox="0 0 260 18" className="w-full my-1" role="img" aria-label={label}>
      <line x1={at(low)} x2={at(high)} y1="9" y2="9" stroke="var(--tin)" strokeWidth="2" />
      <rect x={at(lower)} y="3" width={Math.max(2, at(upper) - at(lower))} height="12" rx="2" fill="var(--tape-fill)" />
      <line x1={at(median)} x2={at(median)} y1="1" y2="17" stroke="var(--color-base-content)" strokeWidth="2" />
    </svg>
  )
}

/** The last twelve whole months as bars; the month that is not over is hollow. Its figures as a table too. */
export function Year({ months, from }: { months: number[]; from: string }) {
  const [table, setTable] = useState(false)
  const named = monthsFrom(from, months.length).map((m, i) => ({ ...m, value: months[i] }))
  const last = named.slice(-12)
  const now = (last[last.length - 1].month + 1) % 12
  const expected = last.find((m) => m.month === now)?.value ?? 0
  const top = Math.max(1, ...last.map((m) => m.value))
  const bars = [...last.map((m) => ({ ...m, hollow: false })).slice(1), { month: now, year: 0, value: expected, hollow: true }]
  return (
    <div>
      {table ? (
        <table className="plain num max-h-60">
          <thead>
            <tr>
              <th>Month</th>
              <th className="r">Searches</th>
            </tr>
          </thead>
          <tbody>
            {[...named].reverse().map((m) => (
              <tr key={`${m.year}-${m.month}`}>
                <td>
                  {monthName(m.month)} {m.year}
                </td>
                <td className="r">{full(m.value)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <svg viewBox="0 0 280 92" className="w-full" role="img" aria-label={`Searches by month, at most ${full(top)}`}>
          {bars.map((m, i) => {
            const h = (m.value / top) * 68
            return (
              <g key={m.month}>
                <rect
                  x={i * 23.3 + 1}
                  y={72 - h}
                  width="18"
                  height={h}
                  fill={m.hollow ? 'none' : 'var(--tin)'}
                  stroke={m.hollow ? 'var(--quiet)' : 'none'}
                  strokeWidth="1.5"
                  strokeDasharray={m.hollow ? '3 2' : undefined}
                >
                  <title>
                    {m.hollow
                      ? `${monthName(m.month)} is incomplete; last year: ${full(m.value)}`
                      : `${monthName(m.month)}: ${full(m.value)}`}
                  </title>
                </rect>
                <text x={i * 23.3 + 10} y="87" textAnchor="middle" fontFamily="var(--font-mono)" fontSize="12" fill="var(--quiet)">
                  {monthName(m.month)[0]}
                </text>
              </g>
            )
          })}
        </svg>
      )}
      <button type="button" className="link text-[13px]" onClick={() => setTable(!table)}>
        {table ? 'Show as a chart' : `Show ${counted(months.length, 'month')} as a table`}
      </button>
      {!table && (
        <p className="quiet text-[13px]">
          Peak <span title={full(top)}>{compact(top)}</span>. Dashed: this month so far is incomplete, last year’s figure shown.
        </p>
      )}
    </div>
  )
}

/** When a seasonal listing has to be published to be ready for its peak. */
export const publishBy = (date: string) => `Publish by ${dayName(date)} to be ready for the peak.`
