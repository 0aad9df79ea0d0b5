import { memo } from 'react'
import { moved, type Piece, segments } from './segments'

type Props = {
  label: string
  value: string
  change: (text: string) => void
  pieces: Piece[]
  /** The text that the pieces were found in. */
  weighed: string
  pointed?: string
  className?: string
  placeholder?: string
  line?: boolean
  /** Ids of what describes the box: its counter, what it holds, its findings. */
  describedBy?: string
  invalid?: boolean
  onKeyDown?: (e: React.KeyboardEvent<HTMLTextAreaElement>) => void
  onPaste?: (e: React.ClipboardEvent<HTMLTextAreaElement>) => void
}

/** The threads under a text's matched words: the text itself, invisible, with its underlines. */
export function Under({ text, pieces, weighed, pointed }: { text: string; pieces: Piece[]; weighed: string; pointed?: string }) {
  return (
    <div className="under" aria-hidden="true">
      {segments(text.length, moved(pieces, weighed, text), pointed).map((s) =>
        s.grade || s.pointed ? (
          <span key={s.start} className={`${s.grade ?? ''} ${s.knot ? 'end' : ''} ${s.pointed ? 'pointed' : ''}`}>
            {text.slice(s.start, s.end)}
          </span>
        ) : (
          text.slice(s.start, s.end)
        ),
      )}
      {/* a last line break has height only when something follows it */}
      {'\u200b'}
    </div>
  )
}

/** A text box whose matched words carry threads. */
export const Threaded = memo(
  function Threaded(p: Props) {
    return (
      <div className={`threaded ${p.className ?? ''}`}>
        <Under text={p.value} pieces={p.pieces} weighed={p.weighed} pointed={p.pointed} />
        <textarea
          aria-label={p.label}
          aria-describedby={p.describedBy}
          aria-invalid={p.invalid || undefined}
          rows={1}
          spellCheck
          placeholder={p.placeholder}
          value={p.value}
          onChange={(e) => p.change(p.line ? e.target.value.replace(/[\r\n]+/g, ' ') : e.target.value)}
          onKeyDown={(e) => {
            if (p.line && e.key === 'Enter' && !e.altKey && !e.ctrlKey && !e.metaKey) e.preventDefault()
            p.onKeyDown?.(e)
          }}
          onPaste={p.onPaste}
        />
      </div>
    )
  },
  // Callbacks are left out: they are new at every render, and read only what is compared here.
  (a, b) =>
    a.value === b.value &&
    a.pieces === b.pieces &&
    a.weighed === b.weighed &&
    a.pointed === b.pointed &&
    a.label === b.label &&
    a.placeholder === b.placeholder &&
    a.className === b.className &&
    a.line === b.line &&
    a.invalid === b.invalid &&
    a.describedBy === b.describedBy,
)
