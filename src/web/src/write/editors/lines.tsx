import { useRef } from 'react'
import { Tape } from '../../kit/tape'
import { asList, measure } from '../texts'
import { Threaded } from '../threaded'
import { type EditorProps, none } from './props'

/** Bullet points: one text each, each with its tape. */
export function Lines({ field, value, weighedValue, change, pieces, pointed, describedBy, invalid }: EditorProps) {
  const box = useRef<HTMLDivElement>(null)
  const lines = asList(value)
  const live = useRef(lines)
  live.current = lines
  const weighed = asList(weighedValue)
  const slots = Math.max(field.maxItems ?? 0, lines.length + (field.maxItems ? 0 : 1))
  const put = (i: number, text: string) => {
    const next = [...live.current]
    while (next.length <= i) next.push('')
    next[i] = text
    while (next.length > 0 && next[next.length - 1] === '') next.pop()
    change(next)
  }
  return (
    <div ref={box}>
      {Array.from({ length: slots }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a bullet point is its place
        <div key={i} className="grid grid-cols-[18px_minmax(0,1fr)] items-baseline">
          <span className="quiet num text-[12px]">{i + 1}</span>
          <div className="pb-1.5">
            <div className="field-box">
              <Threaded
                label={`${field.label} ${i + 1}`}
                value={lines[i] ?? ''}
                change={(t) => put(i, t)}
                pieces={pieces[i] ?? none}
                weighed={weighed[i] ?? ''}
                pointed={pointed}
                className="text-[15px] leading-[1.8]"
                line
                placeholder="empty"
                describedBy={`${field.key}-tape-${i} ${describedBy ?? ''}`.trim()}
                invalid={invalid}
                onKeyDown={(e) =>
                  e.key === 'Enter' && !e.altKey && !e.ctrlKey && !e.metaKey && box.current?.querySelectorAll('textarea')[i + 1]?.focus()
                }
              />
            </div>
            {lines[i] && field.max !== null && (
              <Tape id={`${field.key}-tape-${i}`} used={measure(lines[i], field.unit)} max={field.max} unit={field.unit} />
            )}
          </div>
        </div>
      ))}
    </div>
  )
}
