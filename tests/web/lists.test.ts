import { describe, expect, test } from 'vitest'
import type { Row as DigRow } from '../../src/web/src/dig/rows'
import { changed } from '../../src/web/src/kit/selection'
import { limitsOf, passing } from '../../src/web/src/kit/shelfquery'
import { type Column, sortRows } from '../../src/web/src/kit/table'
import { foldInWords } from '../../src/web/src/kit/thread'
import { namesOf, outlineOf, treeOf } from '../../src/web/src/shop/categories'
import { idOf } from '../../src/web/src/shop/profilerules'

describe('a table’s order', () => {
  type Row = { text: string; volume: number | null }
  const columns: Column<Row>[] = [
    { key: 'text', head: '', width: '', words: true, value: (r) => r.text, cell: () => null },
    { key: 'volume', head: '', width: '', value: (r) => r.volume, cell: () => null },
    { key: 'mark', head: '', width: '', cell: () => null },
  ]
  const rows: Row[] = [
    { text: 'wren', volume: null },
    { text: 'Owl', volume: 5 },
    { text: 'bat', volume: 90 },
    { text: 'élan', volume: 0 },
  ]
  const order = (key: string, down: boolean) => sortRows(rows, columns, { key, down }).map((r) => r.text)

  test('the unknown comes last, whichever way', () => {
    expect(order('volume', true)).toEqual(['bat', 'Owl', 'élan', 'wren'])
    expect(order('volume', false)).toEqual(['élan', 'Owl', 'bat', 'wren'])
  })

  test('words are in the order of the alphabet, not of their codes', () =>
    expect(order('text', false)).toEqual(['bat', 'élan', 'Owl', 'wren']))

  test('without an order, or by what has none, they stay as they came', () => {
    expect(sortRows(rows, columns, null)).toBe(rows)
    expect(order('mark', true)).toEqual(rows.map((r) => r.text))
    expect(order('nowhere', true)).toEqual(rows.map((r) => r.text))
  })

  test('sorting leaves the rows it was given alone', () => {
    const before = [...rows]
    order('volume', true)
    expect(rows).toEqual(before)
  })

  test('marks are added and taken away, the old set untouched', () => {
    const marks = new Set(['a', 'b'])
    expect([...changed(marks, ['b', 'c'], true)]).toEqual(['a', 'b', 'c'])
    expect([...changed(marks, ['b', 'c'], false)]).toEqual(['a'])
    expect([...marks]).toEqual(['a', 'b'])
  })
})

describe('a category tree as an outline', () => {
  const tree = [
    { name: 'Garden', under: [{ name: 'Birds', under: [{ name: 'Nest boxes' }, { name: 'Feeders' }] }, { name: 'Bats' }] },
    { name: 'Home' },
  ]

  test('the outline means the tree it was made of', () => {
    expect(outlineOf(tree)).toEqual(['Garden', '    Birds', '        Nest boxes', '        Feeders', '    Bats', 'Home'])
    expect(treeOf(outlineOf(tree).join('\n'))).toEqual(tree)
    expect(namesOf(tree)).toEqual(['Garden', 'Birds', 'Nest boxes', 'Feeders', 'Bats', 'Home'])
  })

  test('any step in will do: spaces, tabs, more than one level at once', () => {
    expect(treeOf('Garden\n  Birds\n    Feeders\n  Bats')).toEqual([
      { name: 'Garden', under: [{ name: 'Birds', under: [{ name: 'Feeders' }] }, { name: 'Bats' }] },
    ])
    expect(treeOf('Garden\n\tBirds\n\t\tFeeders')).toEqual([{ name: 'Garden', under: [{ name: 'Birds', under: [{ name: 'Feeders' }] }] }])
    expect(treeOf('   Garden\n         Birds\n      Bats\nHome')).toEqual([
      { name: 'Garden', under: [{ name: 'Birds' }, { name: 'Bats' }] },
      { name: 'Home' },
    ])
  })

  test('empty lines say nothing, an empty outline is no tree', () => {
    expect(treeOf('\n Garden \n\n   \n')).toEqual([{ name: 'Garden' }])
    expect(treeOf('')).toEqual([])
  })
})

test.each([
  ['Plover’s Own Fair', 'plover-s-own-fair'],
  ['Ünïcode & Söhne', 'u-ni-code-so-hne'],
  ['  ', ''],
  ['x'.repeat(60), 'x'.repeat(40)],
])('the id of “%s”', (name, id) => expect(idOf(name)).toBe(id))

test('filters are read off the address; what is no number is no limit', () => {
  const limits = limitsOf(new URLSearchParams('has=bird&volume=100&competition=abc&headroom=&titles=0&cost=1.5&growth=-20&shape=round'))
  expect(limits).toEqual({
    has: 'bird',
    volume: 100,
    competition: null,
    headroom: null,
    titles: 0,
    cost: 1.5,
    last: null,
    growth3: null,
    growth: -20,
    web: null,
    clicks: null,
    orders: null,
    sales: null,
    shape: '',
    source: '',
  })
})

test('a filter by what terms earned passes 0 where 0 is asked for, and never what is unknown', () => {
  const row = (orders: number | null) => ({ key: 'owl', numbers: { orders } }) as unknown as DigRow
  const passes = (filters: string) => [0, 3, null].map((o) => passing(limitsOf(new URLSearchParams(filters)))(row(o)))
  expect(passes('orders=0')).toEqual([true, true, false])
  expect(passes('orders=1')).toEqual([false, true, false])
})

test('a filter by growth and by shape passes what is known to be so', () => {
  const row = (change12: number | null, shape: string | null) =>
    ({ key: 'owl', text: 'owl', numbers: { volume: null, trend: change12 === null ? null : { change12, shape } } }) as unknown as DigRow
  const passes = (filters: string, r: DigRow) => passing(limitsOf(new URLSearchParams(filters)))(r)
  expect([row(12, 'steady'), row(-30, 'fading'), row(null, null)].map((r) => passes('growth=-20', r))).toEqual([true, false, false])
  expect([row(12, 'steady'), row(-30, 'fading'), row(null, null)].map((r) => passes('shape=fading', r))).toEqual([false, true, false])
})

test('folds are said in words', () => {
  expect(foldInWords('plural')).toBe('singular and plural')
  expect(foldInWords('plural+spelling')).toBe('singular and plural, or British and American spelling')
  expect(foldInWords('unheard')).toBe('unheard')
})

test('a filter by words finds accents by letters without them, as the server does', () => {
  const row = (key: string) => ({ key, text: key, numbers: { volume: null } }) as unknown as DigRow
  const found = (has: string) =>
    ['casa de pájaros', 'casa de pajaros', 'bird house', 'cedar bird-house'].filter((k) =>
      passing({ ...limitsOf(new URLSearchParams()), has })(row(k)),
    )
  expect(found('pajaros')).toEqual(['casa de pájaros', 'casa de pajaros'])
  expect(found('PÁJAROS')).toEqual(['casa de pájaros'])
  expect(found('bird -cedar')).toEqual(['bird house'])
  expect(found('bird-house')).toEqual(['bird house', 'cedar bird-house'])
  expect(found('-')).toEqual(['casa de pájaros', 'casa de pajaros', 'bird house', 'cedar bird-house'])
})
