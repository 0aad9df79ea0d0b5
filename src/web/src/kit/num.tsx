import { compact, full, noData } from './numbers'

/** A number for reading, whole on hover and for screen readers; where it is unknown, that is said. */
export function Num({ value, unit = '', shown }: { value: number | null | undefined; unit?: string; shown?: string }) {
  if (value === null || value === undefined)
    return (
      <span className="quiet" title={noData}>
        <span aria-hidden="true">–</span>
        <span className="sr-only">{noData}</span>
      </span>
    )
  return (
    <span className="num" title={`${full(value)}${unit && ` ${unit}`}`}>
      {shown ?? compact(value)}
    </span>
  )
}
