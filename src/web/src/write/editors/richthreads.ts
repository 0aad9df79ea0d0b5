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

// The characters of a text as HTML has them: an ampersand is five.
const box = document.createElement('span')
const written = (text: string) => [...text].map((c) => (c === '&' || c === '<' || c === '>' || c === '\u00a0' ? escaped(c) : c))
const escaped = (text: string) => {
  box.textContent = text
  return box.innerHTML
}

const isSpace = (c: string | undefined) => c !== undefined && c.trim() === ''

// Where each character of a text is in HTML, from a place on; null where the text is not there. White space of any length is one space.
function offsetsAt(html: string, start: number, characters: string[]): { offsets: number[]; end: number } | null {
  let i = start
  if (!isSpace(characters[0])) while (isSpace(html[i])) i++
  const offsets: number[] = []
  for (const c of characters) {
    if (!isSpace(c) && !html.startsWith(c, i)) return null
    if (isSpace(c) && !isSpace(html[i])) return null
    offsets.push(i)
    if (isSpace(c)) while (isSpace(html[i])) i++
    else i += c.length
  }
  return { offsets, end: i }
}

/** Where each character of a document is in it, and in the HTML that it was read from. */
export function placesOf(doc: Node, html: string): { position: number; offset: number }[] {
  const places: { position: number; offset: number }[] = []
  let from = 0
  doc.descendants((node, position) => {
    if (!node.text) return
    const characters = written(node.text)
    // A text begins where the HTML does, or where a tag ends: what a tag itself says is no text.
    let found = from === 0 ? offsetsAt(html, 0, characters) : null
    for (let tag = html.indexOf('>', from); !found && tag >= 0; tag = html.indexOf('>', tag + 1))
      found = offsetsAt(html, tag + 1, characters)
    if (!found) return
    from = found.end
    characters.forEach((c, k) => {
      for (let i = 0; i < (c.length > 2 ? 1 : c.length); i++) places.push({ position: position++, offset: found.offsets[k] + i })
    })
  })
  return places
}

/** The threads of a rich text: pieces of its HTML at their places in the document. */
export function threadsOf(doc: Node, html: string, pieces: readonly Piece[], pointed: string | undefined): DecorationSet {
  if (pieces.length === 0) return DecorationSet.empty
  const places = placesOf(doc, html)
  const marks: Decoration[] = []
  for (const s of segments(html.length, [...pieces], pointed)) {
    if (!s.grade && !s.pointed) continue
    const className = `thread-mark ${s.grade ?? ''} ${s.knot ? 'end' : ''} ${s.pointed ? 'pointed' : ''}`
    let from = places.findIndex((p) => p.offset >= s.start)
    while (from >= 0 && from < places.length && places[from].offset < s.end) {
      // A stretch ends where the document jumps, as between two paragraphs.
      let to = from
      while (to + 1 < places.length && places[to + 1].offset < s.end && places[to + 1].position === places[to].position + 1) to++
      marks.push(Decoration.inline(places[from].position, places[to].position + 1, { class: className }))
      from = to + 1
    }
  }
  return DecorationSet.create(doc, marks)
}
