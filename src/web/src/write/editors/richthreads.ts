import type { Node } from '@tiptap/pm/model'
import { Plugin, PluginKey } from '@tiptap/pm/state'
import { Decoration, DecorationSet } from '@tiptap/pm/view'
import { Extension } from '@tiptap/react'
import { type Piece, segments } from '../segments'

const key = new PluginKey<DecorationSet>('threads')

/** Draws threads under matched words of a rich text; a transaction's `threads` replaces them. */
export const ThreadMarks = Extension.create({
  name: 'threadMarks',
  addProseMirrorPlugins: () => [
    new Plugin<DecorationSet>({
      key,
      state: {
        init: () => DecorationSet.empty,
        apply: (tr, set) => (tr.getMeta('threads') as DecorationSet | undefined) ?? set.map(tr.mapping, tr.doc),
      },
      props: { decorations: (state) => key.getState(state) },
    }),
  ],
})

/** Where each character of the text is in the HTML that it comes from: markup has none, and an entity is one character. */
export function textOffsets(html: string): number[] {
  const offsets: number[] = []
  for (let i = 0; i < html.length; i++) {
    if (html[i] === '<') {
      const end = html.indexOf('>', i)
      if (end < 0) break
      i = end
      continue
    }
    offsets.push(i)
    if (html[i] !== '&') continue
    const end = html.indexOf(';', i)
    if (end > 0 && end - i <= 10) i = end
  }
  return offsets
}

/** The threads of a rich text: pieces of its HTML at their places in the document. */
export function threadsOf(doc: Node, html: string, pieces: readonly Piece[], pointed: string | undefined): DecorationSet {
  if (pieces.length === 0) return DecorationSet.empty
  const offsets = textOffsets(html)
  // The characters of the document in order, with their positions.
  const positions: number[] = []
  doc.descendants((node, pos) => {
    if (node.isText) for (let i = 0; i < (node.text?.length ?? 0); i++) positions.push(pos + i)
  })
  const marks: Decoration[] = []
  for (const s of segments(html.length, [...pieces], pointed)) {
    if (!s.grade && !s.pointed) continue
    let from = offsets.findIndex((o) => o >= s.start)
    if (from < 0) continue
    const className = `thread-mark ${s.grade ?? ''} ${s.knot ? 'end' : ''} ${s.pointed ? 'pointed' : ''}`
    while (from < offsets.length && offsets[from] < s.end) {
      // A stretch ends where the document jumps, as between two paragraphs.
      let to = from
      while (to + 1 < offsets.length && offsets[to + 1] < s.end && positions[to + 1] === positions[to] + 1) to++
      if (positions[to] === undefined) break
      marks.push(Decoration.inline(positions[from], positions[to] + 1, { class: className }))
      from = to + 1
    }
  }
  return DecorationSet.create(doc, marks)
}
