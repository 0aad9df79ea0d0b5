import { getSchema } from '@tiptap/core'
import { StarterKit } from '@tiptap/starter-kit'
import { describe, expect, test } from 'vitest'
import type { Page } from '../../src/web/src/kit/api'
import { MostInFolder, zipOfFolder } from '../../src/web/src/pages/folder'
import { branch, type Place, placeByDrag, placeByKey } from '../../src/web/src/pages/tree'
import { placesOf, threadsOf } from '../../src/web/src/write/editors/richthreads'

// A tree as its lines are read: each deeper line is inside the line above it.
function tree(...lines: string[]): Page[] {
  const above: number[] = []
  return lines.map((line, i) => {
    const level = (line.length - line.trimStart().length) / 2
    above[level] = i + 1
    return { id: i + 1, name: line.trim(), level, parentId: level === 0 ? null : above[level - 1] } as Page
  })
}

// What the server does with a place, drawn as lines again.
function moved(pages: Page[], name: string, place: Place | null): string[] | null {
  if (!place) return null
  const page = pages.find((p) => p.name === name) as Page
  const inside = (parent: number | null) => {
    const others = pages.filter((p) => p.id !== page.id && p.parentId === parent)
    if (parent === place.parentId) others.splice(Math.min(place.order, others.length), 0, page)
    return others
  }
  const lines = (parent: number | null, level: number): string[] =>
    inside(parent).flatMap((p) => ['  '.repeat(level) + p.name, ...lines(p.id, level + 1)])
  return lines(null, 0)
}

const houses = tree('Houses', '  Wren', '    Cedar', '  Owl', 'Feeders', 'About')
const named = (name: string) => houses.find((p) => p.name === name) as Page
const byKey = (name: string, to: Parameters<typeof placeByKey>[2]) => moved(houses, name, placeByKey(houses, named(name), to))
const byDrag = (name: string, over: string, level: number) =>
  moved(houses, name, placeByDrag(houses, named(name).id, named(over).id, level))

describe('the page tree', () => {
  test('a branch is a page with all that is inside it, in any order of the list', () => {
    expect([...branch([...houses].reverse(), 1)].sort()).toEqual([1, 2, 3, 4])
  })

  test('by key among siblings, and not past the first or the last', () => {
    expect(byKey('Owl', 'up')).toEqual(['Houses', '  Owl', '  Wren', '    Cedar', 'Feeders', 'About'])
    expect(byKey('Houses', 'down')).toEqual(['Feeders', 'Houses', '  Wren', '    Cedar', '  Owl', 'About'])
    expect(byKey('Houses', 'up')).toBeNull()
    expect(byKey('Owl', 'down')).toBeNull()
  })

  test('by key into the page above, at its end, and out after the page it was in', () => {
    expect(byKey('Owl', 'in')).toEqual(['Houses', '  Wren', '    Cedar', '    Owl', 'Feeders', 'About'])
    expect(byKey('Wren', 'in')).toBeNull()
    expect(byKey('Cedar', 'out')).toEqual(['Houses', '  Wren', '  Cedar', '  Owl', 'Feeders', 'About'])
    expect(byKey('About', 'out')).toBeNull()
  })

  test('by drag: down it comes after the row, up before it, as deep as it was drawn', () => {
    expect(byDrag('Feeders', 'Wren', 1)).toEqual(['Houses', '  Feeders', '  Wren', '    Cedar', '  Owl', 'About'])
    expect(byDrag('Wren', 'Feeders', 0)).toEqual(['Houses', '  Owl', 'Feeders', 'Wren', '  Cedar', 'About'])
    expect(byDrag('Wren', 'Feeders', 1)).toEqual(['Houses', '  Owl', 'Feeders', '  Wren', '    Cedar', 'About'])
    expect(byDrag('About', 'Houses', 3)).toEqual(['About', 'Houses', '  Wren', '    Cedar', '  Owl', 'Feeders'])
  })

  test('drawn to the right where it is, it is nested no deeper than the row above allows', () => {
    expect(byDrag('About', 'About', 9)).toEqual(['Houses', '  Wren', '    Cedar', '  Owl', 'Feeders', '  About'])
  })

  test('a page never goes into itself', () => {
    expect(byDrag('Houses', 'Cedar', 3)).toBeNull()
  })
})

describe('threads of a rich text', () => {
  const schema = getSchema([StarterKit])
  const paragraphs = (...texts: string[]) =>
    schema.nodeFromJSON({ type: 'doc', content: texts.map((text) => ({ type: 'paragraph', content: [{ type: 'text', text }] })) })

  test('each character of the document is found in its HTML, an entity as one', () => {
    const html = '<p>A&amp;b</p><p>x&lt;b</p>'
    const places = placesOf(paragraphs('A&b', 'x<b'), html)
    expect(places.map((p) => html.slice(p.offset, p.offset + 2))).toEqual(['A&', '&a', 'b<', 'x&', '&l', 'b<'])
    expect(places.map((p) => p.position)).toEqual([1, 2, 3, 6, 7, 8])
  })

  test('a text without a tag is found, and white space of any length is one space', () => {
    expect(placesOf(paragraphs('We make'), 'We make').map((p) => p.offset)).toEqual([0, 1, 2, 3, 4, 5, 6])
    const html = '<p>\n  cedar\n  box</p>'
    expect(placesOf(paragraphs('cedar box'), html).at(-1)?.offset).toBe(html.indexOf('x</p>'))
  })

  test('what a tag says is no text', () => {
    const html = '<p><a title="cedar" href="page:3">cedar</a></p>'
    expect(placesOf(paragraphs('cedar'), html)[0].offset).toBe(html.lastIndexOf('cedar'))
  })

  test('each stands at its word in the document, and a stretch over two paragraphs is two', () => {
    const doc = schema.nodeFromJSON({
      type: 'doc',
      content: [
        { type: 'paragraph', content: [{ type: 'text', text: 'A cedar' }] },
        { type: 'paragraph', content: [{ type: 'text', text: 'bird' }] },
      ],
    })
    const html = '<p>A cedar</p><p>bird</p>'
    const at = (word: string) => ({ start: html.indexOf(word), end: html.indexOf(word) + word.length })
    const piece = { ...at('cedar'), key: 'k', grade: 'whole', kind: 'term' }
    const set = threadsOf(doc, html, [piece as never], undefined)
    expect(set.find().map((d) => doc.textBetween(d.from, d.to))).toEqual(['cedar'])
    const both = { ...piece, end: at('bird').end }
    expect(
      threadsOf(doc, html, [both as never], undefined)
        .find()
        .map((d) => doc.textBetween(d.from, d.to)),
    ).toEqual(['cedar', 'bird'])
    expect(threadsOf(doc, html, [], undefined).find()).toEqual([])
  })
})

describe('a folder of pages', () => {
  const file = (path: string, text: string) => {
    const made = new File([text], path.split('/').at(-1) as string)
    Object.defineProperty(made, 'webkitRelativePath', { value: path })
    return made
  }

  test('becomes a ZIP with its paths, without what no import reads', async () => {
    const zipped = await zipOfFolder([file('site/a/owl.html', '<h1>Owl</h1>'), file('site/run.exe', 'x'), file('site/owl.PNG', 'y')])
    expect(zipped?.name).toBe('site.zip')
    const bytes = new Uint8Array(await (zipped as File).arrayBuffer())
    const text = new TextDecoder('latin1').decode(bytes)
    expect(text.startsWith('PK')).toBe(true)
    expect(text).toContain('site/a/owl.html')
    expect(text).toContain('site/owl.PNG')
    expect(text).not.toContain('run.exe')
  })

  test('without a page, or too large, is none', async () => {
    expect(await zipOfFolder([file('site/owl.png', 'y')])).toBeNull()
    const large = file('site/owl.html', '')
    Object.defineProperty(large, 'size', { value: MostInFolder + 1 })
    expect(await zipOfFolder([large])).toBeNull()
  })
})
