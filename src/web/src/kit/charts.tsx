import { useState } from 'react'
import { compact, full, monthName, monthsFrom } from './numbers'

/** A term's months as a small filled silhouette. */
export function Silhouette({ months, width = 112, height = 24 }: { months: number[] | null; width?: number; height?: number }) {
  if (!months || months.length < 2) return <span className="quiet text-[12px]">unknown</span>
  const top = Math.max(1, ...months)
  const points = months.map(
    (m, i) => `L${((i / (months.length - 1)) * (width - 2) + 1).toFixed(1)} ${(height - 1 - (m / top) * (height - 4)).toFixed(1)}`,
  )
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`${months.length} months, ${full(Math.min(...months))} to ${full(top)} a month`}
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
  if (value === null) return <span className="num">–</span>
  return (
    <span className="inline-flex items-center gap-2 num text-[12.5px]" title={`headroom ${value.toFixed(1)} of 100; 50 is typical here`}>
      <svg width={48} height={12} aria-hidden="true">
        <rect y="4" width="48" height="4" fill="var(--silhouette)" />
        <rect y="4" width={(value / 100) * 48} height="4" fill="var(--color-base-content)" />
        <line x1="24" x2="24" y1="1" y2="11" stroke="var(--tin)" />
      </svg>
      <span className="w-[2ch] text-right">{Math.round(value)}</span>
    </span>
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
        <svg viewBox="0 0 280 92" className="w-full" role="img" aria-label="Searches by month">
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
                      ? `${monthName(m.month)} is not over; ${full(m.value)} a year ago`
                      : `${monthName(m.month)}: ${full(m.value)}`}
                  </title>
                </rect>
                <text x={i * 23.3 + 10} y="87" textAnchor="middle" fontFamily="var(--font-mono)" fontSize="11" fill="var(--quiet)">
                  {monthName(m.month)[0]}
                </text>
              </g>
            )
          })}
        </svg>
      )}
      <button type="button" className="link text-[12.5px]" onClick={() => setTable(!table)}>
        {table ? 'As bars' : `As a table, all ${months.length} months`}
      </button>
      {!table && (
        <p className="quiet text-[12.5px]">
          Highest <span title={full(top)}>{compact(top)}</span>; the dashed month is not over, a year ago it had that.
        </p>
      )}
    </div>
  )
}
