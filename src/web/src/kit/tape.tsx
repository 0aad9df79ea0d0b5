/**
 * The measuring tape under a field: room used, where the text is cut off elsewhere, the limit. Past the limit it turns rust and shows by how much.
 */
export function Tape({
  used,
  max,
  unit,
  shows,
  searched,
  id,
}: {
  used: number
  max: number
  unit: string
  shows?: number | null
  searched?: number | null
  /** For the box that it measures: aria-describedby. */
  id?: string
}) {
  const length = Math.max(max, used)
  const at = (n: number) => `${(n / length) * 100}%`
  const step = [2, 5, 10, 20, 50, 100, 200, 500].find((s) => length / s <= 64) ?? 1000
  const ticks = Array.from({ length: Math.floor(length / step) + 1 }, (_, i) => i * step)
  const over = used - max
  const notes = [
    shows && shows < max ? { n: shows, text: `Cut off after ${shows}` } : null,
    searched && searched < max ? { n: searched, text: `Searched up to ${searched}` } : null,
  ].filter((n) => n !== null)
  return (
    <div className="flex flex-wrap items-start gap-x-3 mt-1" data-testid="tape">
      <svg className="flex-1 min-w-60 overflow-visible" height={notes.length > 0 ? 31 : 18} aria-hidden="true">
        <rect x="0" y="4" width="100%" height="10" rx="1.5" fill="var(--color-base-300)" stroke="var(--line)" strokeWidth="1" />
        <rect x="0" y="4" width={at(Math.min(used, max))} height="10" rx="1.5" fill="var(--tape-fill)" />
        {over > 0 && <rect x={at(max)} y="4" width={at(over)} height="10" fill="var(--color-accent)" />}
        {ticks.map((t) => {
          const long = t % (step * 5) === 0
          return (
            <line
              key={t}
              x1={at(t)}
              x2={at(t)}
              y1={long ? 6 : 10}
              y2="14"
              stroke="var(--color-base-content)"
              strokeWidth={long ? 1 : 0.6}
            />
          )
        })}
        <line
          x1={at(max)}
          x2={at(max)}
          y1="0"
          y2="17"
          stroke={over > 0 ? 'var(--color-accent)' : 'var(--color-base-content)'}
          strokeWidth="3"
        />
        {notes.map((n) => (
          <g key={n.text}>
            <svg x={at(n.n)} y="0" overflow="visible" aria-hidden="true">
              <path d="M0 15l-4.5 -13h9z" fill="var(--color-secondary)" />
            </svg>
            <text
              x={at(n.n)}
              y="27"
              textAnchor={n.n / length < 0.1 ? 'start' : 'middle'}
              fontFamily="var(--font-mono)"
              fontSize="12"
              fill="var(--quiet)"
            >
              {n.text}
            </text>
          </g>
        ))}
        <line
          x1={at(used)}
          x2={at(used)}
          y1="1"
          y2="17"
          stroke={over > 0 ? 'var(--color-accent)' : 'var(--color-primary)'}
          strokeWidth="2.5"
        />
      </svg>
      <span
        id={id}
        className={`num text-[12.5px] w-[128px] shrink-0 ${over > 0 ? 'text-accent font-medium' : ''}`}
        title={`${used} of ${max} ${unit}`}
      >
        {over > 0
          ? `${over}${unit === 'characters' ? '' : ` ${unit}`} too long`
          : `${used} of ${max}${unit === 'characters' ? '' : ` ${unit}`}`}
      </span>
    </div>
  )
}
