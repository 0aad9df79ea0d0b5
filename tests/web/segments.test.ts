import { describe, expect, test } from 'vitest'
import type { Grade, PickWeight, Span, Weighing } from '../../src/web/src/kit/api'
import { moved, type Piece, type Pieces, piecesByName, piecesOf, segments } from '../../src/web/src/write/segments'

const piece = (start: number, end: number, grade: Piece['grade'] = 'whole', key = 'k'): Piece => ({ start, end, grade, key })

const held = (key: string, grade: Grade, grades: Grade[], spans: Span[]) =>
  ({ key, grade, grades, spans, text: key, strengths: [], missing: [], near: [] }) as unknown as PickWeight

const weighing = (terms: PickWeight[], avoided: { text: string; spans: Span[] }[] = []) =>
  ({ fields: ['title', 'tags'], terms, avoided }) as unknown as Weighing

/** What is drawn: the text cut up, each part with its line. */
const drawn = (text: string, pieces: Piece[], pointed?: string) =>
  segments(text.length, pieces, pointed).map((s) => [
    text.slice(s.start, s.end),
    s.grade,
    ...(s.pointed ? ['pointed'] : []),
    ...(s.knot ? ['knot'] : []),
  ])

describe('lines under a text', () => {
  test('a text without matches is one part', () => expect(drawn('cedar box', [])).toEqual([['cedar box', null]]))

  test('an empty text has none', () => expect(drawn('', [])).toEqual([]))

  test('the firmest of several is drawn', () =>
    expect(drawn('cedar bird house', [piece(0, 16, 'together', 'a'), piece(6, 16, 'whole', 'b'), piece(6, 10, 'spread', 'c')])).toEqual([
      ['cedar ', 'together'],
      ['bird house', 'whole'],
    ]))

  test('what is avoided goes over everything', () =>
    expect(drawn('bird house', [piece(0, 10, 'whole'), piece(0, 4, 'avoided', 'x')])).toEqual([
      ['bird', 'avoided'],
      [' house', 'whole'],
    ]))

  test('another form ends in a knot, and two beside each other are two', () =>
    expect(drawn('bird houses boxes', [piece(0, 11, 'inflected', 'a'), piece(12, 17, 'inflected', 'b')])).toEqual([
      ['bird houses', 'inflected', 'knot'],
      [' ', null],
      ['boxes', 'inflected', 'knot'],
    ]))

  test('the term that is pointed at stands out, matched or not', () =>
    expect(drawn('wren box', [piece(0, 4, 'spread', 'a'), piece(5, 8, 'spread', 'b')], 'b')).toEqual([
      ['wren', 'spread'],
      [' ', null],
      ['box', 'spread', 'pointed'],
    ]))

  test('pieces past the end of a text that grew shorter do no harm', () =>
    expect(drawn('bird', [piece(0, 10, 'whole'), piece(6, 10, 'whole', 'b')])).toEqual([['bird', 'whole']]))

  test('whatever the pieces, the parts make up the text', () => {
    let seed = 7
    const dice = (n: number) => {
      seed = (seed * 48271) % 2147483647
      return seed % n
    }
    const grades = ['missing', 'spread', 'together', 'inflected', 'whole', 'avoided'] as const
    for (let turn = 0; turn < 500; turn++) {
      const text = 'abcdefghij'.slice(0, dice(11))
      const pieces = Array.from({ length: dice(6) }, () => {
        const start = dice(10)
        return piece(start, start + 1 + dice(5), grades[dice(6)], 'abc'[dice(3)])
      })
      const parts = segments(text.length, pieces, 'a')
      expect(parts.map((p) => text.slice(p.start, p.end)).join('')).toBe(text)
      for (const p of parts)
        for (let at = p.start; at < p.end; at++) {
          const here = pieces.filter((x) => x.start <= at && at < x.end)
          const firmest = here.reduce((m, x) => Math.max(m, grades.indexOf(x.grade)), -1)
          expect(p.grade).toBe(firmest < 0 ? null : grades[firmest])
          expect(p.pointed).toBe(here.some((x) => x.key === 'a'))
        }
    }
  })
})

describe('lines while one types', () => {
  test('what stands before stays, what follows moves, what is typed into waits', () => {
    const pieces = [piece(0, 5), piece(6, 10), piece(11, 16)]
    expect(moved(pieces, 'cedar bird house', 'cedar birxd house').map((p) => [p.start, p.end])).toEqual([
      [0, 5],
      [12, 17],
    ])
    expect(moved(pieces, 'cedar bird house', 'bird house').map((p) => [p.start, p.end])).toEqual([
      [0, 4],
      [5, 10],
    ])
  })

  test('the same text has the very same pieces', () => {
    const pieces = [piece(0, 4)]
    expect(moved(pieces, 'bird', 'bird')).toBe(pieces)
  })

  test('a text that was replaced keeps nothing that is not there', () => expect(moved([piece(0, 4)], 'bird', '')).toEqual([]))

  test('a moved piece is under the same letters as before', () => {
    const was = 'wren nest box, bird house'
    for (const now of [`x${was}`, `${was}x`, `${was.slice(0, 10)}yy${was.slice(10)}`, was.slice(3), was.slice(0, 15) + was.slice(16)])
      for (const [start, end] of [
        [0, 4],
        [5, 9],
        [10, 13],
        [15, 19],
        [20, 25],
      ])
        for (const p of moved([piece(start, end)], was, now)) expect(now.slice(p.start, p.end)).toBe(was.slice(start, end))
  })
})

describe('pieces of a weighing', () => {
  const span = (field: string, item: number, start: number, length: number): Span => ({ field, item, start, length })

  test('each field’s own grade is drawn, the listing’s where the field has none by itself', () => {
    const pieces = piecesOf(
      weighing([
        held('bird house', 'whole', ['whole', 'together'], [span('title', 0, 0, 10), span('tags', 1, 0, 4)]),
        held('cedar box', 'spread', ['missing', 'missing'], [span('title', 0, 11, 5)]),
      ]),
      new Map(),
    )
    expect(pieces.get('title')).toEqual([[piece(0, 10, 'whole', 'bird house'), piece(11, 16, 'spread', 'cedar box')]])
    expect(pieces.get('tags')).toEqual([[], [piece(0, 4, 'together', 'bird house')]])
  })

  test('what is avoided is drawn where it stands', () =>
    expect(piecesOf(weighing([], [{ text: 'plastic', spans: [span('tags', 0, 2, 7)] }]), new Map()).get('tags')).toEqual([
      [piece(2, 9, 'avoided', 'plastic')],
    ]))

  test('what is as it was stays the very same object', () => {
    const make = (length: number) =>
      weighing([
        held('a', 'whole', ['whole', 'missing'], [span('title', 0, 0, length)]),
        held('b', 'whole', ['missing', 'whole'], [span('tags', 0, 0, 1), span('tags', 1, 0, 1)]),
      ])
    const before: Pieces = piecesOf(make(4), new Map())
    const same = piecesOf(make(4), before)
    const other = piecesOf(make(5), before)
    expect(same.get('title')).toBe(before.get('title'))
    expect(other.get('tags')).toBe(before.get('tags'))
    expect(other.get('title')).not.toBe(before.get('title'))
  })

  test('nothing weighed has no lines', () => expect(piecesOf(undefined, new Map()).size).toBe(0))
})

test('values of an attribute are searched one by one and shown with commas between', () => {
  const pieces = [[piece(0, 5, 'whole', 'a')], [piece(0, 3, 'spread', 'b')], [], [piece(1, 2, 'whole', 'c')]]
  const byName = piecesByName({ Made: ['cedar', 'oak'], Size: 'S', For: 'mom' }, pieces)
  expect(byName.get('Made')).toEqual([piece(0, 5, 'whole', 'a'), piece(7, 10, 'spread', 'b')])
  expect(byName.get('Size')).toEqual([])
  expect(byName.get('For')).toEqual([piece(1, 2, 'whole', 'c')])
  expect(piecesByName('text', pieces).size).toBe(0)
})
