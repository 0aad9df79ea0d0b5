import type { Piece } from '../segments'
import { Under } from '../threaded'

/** A small box with the threads of its text under it. */
export function Boxed(p: { text: string; pieces: Piece[]; weighed: string; pointed: string | undefined; children: React.ReactNode }) {
  return (
    <span className="boxed">
      <Under text={p.text} pieces={p.pieces} weighed={p.weighed} pointed={p.pointed} />
      {p.children}
    </span>
  )
}
