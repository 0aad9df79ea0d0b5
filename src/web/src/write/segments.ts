import type { Grade, Span, Value, Weighing } from '../kit/api'

/** What is drawn under a stretch of text: how firmly a term is held there, or that the shop avoids what stands there. */
export type Line = Grade | 'avoided'
export type Piece = { start: number; end: number; grade: Line; key: string }
export type Segment = { start: number; end: number; grade: Line | null; knot: boolean; pointed: boolean }

const rank: Record<Line, number> = { missing: 0, spread: 1, together: 2, inflected: 3, whole: 4, avoided: 5 }

/** By field, then by item. */
export type Pieces = Map<string, Piece[][]>

const same = (a: Piece[] | undefined, b: Piece[]) =>
  a !== undefined &&
  a.length === b.length &&
  a.every((p, i) => p.start === b[i].start && p.end === b[i].end && p.grade === b[i].grade && p.key === b[i].key)

/** Every stretch of matched text. What is as it was before stays the very same object, so that it is not drawn again. */
export function piecesOf(weighing: Weighing | undefined, before: Pieces): Pieces {
  const pieces: Pieces = new Map()
  const add = (span: Span, grade: Line, key: string) => {
    const field = pieces.get(span.field) ?? []
    pieces.set(span.field, field)
    while (field.length <= span.item) field.push([])
    field[span.item].push({ start: span.start, end: span.start + span.length, grade, key })
  }
  for (const term of weighing?.terms ?? [])
    for (const span of term.spans) {
      const alone = term.grades[weighing?.fields.indexOf(span.field) ?? -1]
      add(span, alone && alone !== 'missing' ? alone : term.grade, term.key)
    }
  for (const use of weighing?.avoided ?? []) for (const span of use.spans) add(span, 'avoided', use.text)
  for (const [key, items] of pieces) {
    const old = before.get(key) ?? []
    const kept = items.map((item, i) => (same(old[i], item) ? old[i] : item))
    pieces.set(key, old.length === kept.length && kept.every((item, i) => item === old[i]) ? old : kept)
  }
  return pieces
}

/** Moves pieces of the text that was weighed onto the text as it is now: what was typed in between moves what follows. */
export function moved(pieces: Piece[], was: string, now: string): Piece[] {
  if (was === now) return pieces
  let head = 0
  while (head < was.length && head < now.length && was[head] === now[head]) head++
  let tail = 0
  while (tail < was.length - head && tail < now.length - head && was[was.length - 1 - tail] === now[now.length - 1 - tail]) tail++
  const by = now.length - was.length
  return pieces.flatMap((p) => (p.end <= head ? [p] : p.start >= was.length - tail ? [{ ...p, start: p.start + by, end: p.end + by }] : []))
}

/** Cuts a text where the line under it changes; where pieces overlap the firmest is drawn. */
export function segments(length: number, pieces: Piece[], pointed: string | undefined): Segment[] {
  const edges = [...new Set([0, length, ...pieces.flatMap((p) => [Math.min(p.start, length), Math.min(p.end, length)])])].sort(
    (a, b) => a - b,
  )
  const starts = [...pieces].sort((a, b) => a.start - b.start)
  const cut: Segment[] = []
  let open: Piece[] = []
  let next = 0
  for (let i = 0; i + 1 < edges.length; i++) {
    const [start, end] = [edges[i], edges[i + 1]]
    open = open.filter((p) => p.end > start)
    while (next < starts.length && starts[next].start <= start) {
      if (starts[next].end > start) open.push(starts[next])
      next++
    }
    let firmest: Piece | null = null
    let isPointed = false
    for (const p of open) {
      if (!firmest || rank[p.grade] > rank[firmest.grade]) firmest = p
      if (p.key === pointed) isPointed = true
    }
    const grade = firmest?.grade ?? null
    const knot = grade === 'inflected' && open.some((p) => p.grade === 'inflected' && p.end === end)
    const last = cut[cut.length - 1]
    if (last && last.grade === grade && !last.knot && last.pointed === isPointed && !knot) last.end = end
    else cut.push({ start, end, grade, knot, pointed: isPointed })
  }
  return cut
}

/** The pieces of each attribute: its values are searched one by one, and shown with semicolons between them. */
export function piecesByName(value: Value | undefined, pieces: Piece[][]): Map<string, Piece[]> {
  const byName = new Map<string, Piece[]>()
  if (!value || typeof value !== 'object' || Array.isArray(value)) return byName
  let item = 0
  for (const [name, values] of Object.entries(value)) {
    let from = 0
    byName.set(
      name,
      [values].flat().flatMap((text) => {
        const at = from
        from += text.length + 2
        return (pieces[item++] ?? []).map((p) => ({ ...p, start: p.start + at, end: p.end + at }))
      }),
    )
  }
  return byName
}
