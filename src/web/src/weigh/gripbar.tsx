import type { Listing, Weighing } from '../kit/api'
import { fixed } from '../kit/numbers'

/** Grip as one bar, split by the field that gives it; what is empty is lost. */
export function GripBar({ weighing, listing }: { weighing: Weighing; listing: Listing }) {
  const { byField, spread } = weighing.sums
  const parts = [
    ...weighing.fields.map((key, i) => ({ name: listing.fields.find((f) => f.key === key)?.label ?? key, points: byField[i] })),
    { name: 'Words in several fields', points: spread },
  ].filter((p) => p.points >= 0.5)
  const lost = 100 - weighing.grip
  return (
    <figure className="mb-2 max-w-[860px]" data-testid="grip-bar">
      <div className="grip-bar" aria-hidden="true">
        {parts.map((p) => (
          <span key={p.name} style={{ width: `${p.points}%` }} title={`${p.name}: ${fixed(p.points, 1)} of 100`} />
        ))}
      </div>
      <figcaption className="flex flex-wrap gap-x-4 text-[13px] mt-1">
        <span className="quiet">Grip by field:</span>
        {parts.map((p, i) => (
          <span key={p.name} className="inline-flex items-center gap-1.5">
            <span className="grip-key" data-part={i % 4} aria-hidden="true" />
            {p.name} <b className="num">{fixed(p.points, 0)}</b>
          </span>
        ))}
        <span className="inline-flex items-center gap-1.5">
          <span className="grip-key" data-part="lost" aria-hidden="true" />
          Lost <b className="num">{fixed(lost, 0)}</b>
        </span>
      </figcaption>
    </figure>
  )
}
