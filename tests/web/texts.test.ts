import { describe, expect, test } from 'vitest'
import type { Field } from '../../src/web/src/kit/api'
import { compact, fixed, full, monthsFrom } from '../../src/web/src/kit/numbers'
import { capital, wordsOf } from '../../src/web/src/kit/words'
import { allText, asList, asNamed, asText, cutOf, measure, oneText, valuesIn, withoutSeconds } from '../../src/web/src/write/texts'

const field = (shape: Field['shape'], separator = ', ') => ({ key: 'f', label: 'Field', shape, separator }) as Field

describe('numbers as they are read', () => {
  test.each([
    [null, '–'],
    [undefined, '–'],
    [0, '0'],
    [0.4, '0'],
    [999, '999'],
    [1000, '1k'],
    [1049, '1k'],
    [1050, '1.1k'],
    [48_211, '48.2k'],
    [99_949, '99.9k'],
    [99_951, '100k'],
    [999_499, '999k'],
    [999_500, '1M'],
    [2_340_000, '2.3M'],
  ])('%s is %s', (n, said) => expect(compact(n)).toBe(said))

  test('the unknown is never zero', () => {
    expect([full(null), full(0), full(1234567)]).toEqual(['No data', '0', '1,234,567'])
    expect([fixed(undefined, 1), fixed(0, 1), fixed(2.345, 2)]).toEqual(['No data', '0.0', '2.35'])
  })

  test('months run over the end of a year', () => {
    expect(monthsFrom('2025-11', 3)).toEqual([
      { year: 2025, month: 10 },
      { year: 2025, month: 11 },
      { year: 2026, month: 0 },
    ])
    expect(monthsFrom('2025-01', 25).at(-1)).toEqual({ year: 2027, month: 0 })
  })
})

describe('words as the engine cuts them', () => {
  test.each([
    ['Cedar bird-house, 5.5 in', ['cedar', 'bird', 'house', '5.5', 'in']],
    ['women’s WOMENʼS women‘s', ["women's", "women's", "women's"]],
    ["'quoted' dogs' rock'n'roll", ['quoted', 'dogs', "rock'n'roll"]],
    ['1,000 v2.0 3.', ['1,000', 'v2.0', '3']],
    ['pájaro ﬁnch Ω鳥の家', ['pájaro', 'finch', 'ω鳥の家']],
    ['🐦 – … !', []],
    ['a.b 1.b', ['a', 'b', '1', 'b']],
    ['', []],
  ])('%s', (text, words) => expect(wordsOf(text)).toEqual(words))
})

describe('room', () => {
  test.each([
    ['naïve 🐦', 'characters', 7],
    ['naïve 🐦', 'bytes', 11],
    ['naïve 🐦', 'words', 1],
    ['e\u0301', 'characters', 2],
    ['bird-house of 5.5', 'words', 4],
    ['', 'bytes', 0],
  ] as const)('%s in %s', (text, unit, used) => expect(measure(text, unit)).toBe(used))

  test('several values of an attribute have semicolons between them, also while the next one is typed', () => {
    expect(valuesIn('cotton; linen;wool ')).toEqual(['cotton', 'linen', 'wool'])
    expect(valuesIn('cotton, washed')).toBe('cotton, washed')
    expect(valuesIn('cotton;')).toBe('cotton;')
    expect(valuesIn('cotton; ')).toBe('cotton; ')
    expect(asNamed({ Fabric: valuesIn('cotton; linen') })).toEqual([['Fabric', 'cotton; linen']])
  })

  test('a long phrase is cut at the last word that fits', () => {
    expect(cutOf('cedar bird house with camera', 24, 'characters')).toEqual(['cedar bird house with', 'camera'])
    expect(cutOf('  two   words ', 3, 'characters')).toEqual(['two', 'words'])
    expect(cutOf('ééé b', 5, 'bytes')).toBeNull()
    expect(cutOf('ééé b', 6, 'bytes')).toEqual(['ééé', 'b'])
    expect(cutOf('unbreakable', 4, 'characters')).toBeNull()
    expect(cutOf('toolong x', 4, 'characters')).toBeNull()
  })

  test('a bag keeps the first place of a word, whatever its case, and the spaces one is typing', () => {
    expect(withoutSeconds('Wren box wren BOX ')).toBe('Wren box ')
    expect(withoutSeconds('a  b a ')).toBe('a  b ')
    expect(withoutSeconds('ﬁnch finch ')).toBe('ﬁnch ')
  })
})

describe('a field’s value', () => {
  test('each shape is read as the other, or as nothing', () => {
    expect([asText('a'), asText(['a', 'b']), asText({ a: 'b' }), asText(undefined)]).toEqual(['a', 'a b', '', ''])
    expect([asList('a'), asList(''), asList(['a', '']), asList({ a: 'b' })]).toEqual([['a'], [], ['a', ''], []])
    expect(asNamed({ Size: ['S', 'M'], Colour: 'red' })).toEqual([
      ['Size', 'S; M'],
      ['Colour', 'red'],
    ])
    expect([asNamed('x'), asNamed(['x']), asNamed(undefined)]).toEqual([[], [], []])
  })

  test('it is copied out as the platform takes it', () => {
    expect(oneText(field('line'), ' Cedar  box ')).toBe(' Cedar  box ')
    expect(oneText(field('words'), '  wren   box ')).toBe('wren box')
    expect(oneText(field('phrases'), ['bird tee', '', ' ', 'heron'])).toBe('bird tee, heron')
    expect(oneText(field('lines', '\n'), ['One.', 'Two.'])).toBe('One.\nTwo.')
    expect(oneText(field('choices'), { Size: ['S', 'M'], Colour: 'red' })).toBe('Size: S / M, Colour: red')
    expect(oneText(field('line'), undefined)).toBe('')
  })

  test('all of a listing is copied under the names of its fields', () =>
    expect(
      allText(
        [
          { ...field('line'), label: 'Title' },
          { ...field('phrases'), key: 't', label: 'Tags' },
        ],
        { f: 'Box', t: ['a', 'b'] },
      ),
    ).toBe('Title\nBox\n\nTags\na, b'))
})

test('a label begins with a capital', () => {
  expect([capital(''), capital('bird')]).toEqual(['', 'Bird'])
})
