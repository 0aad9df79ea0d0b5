import { describe, expect, test } from 'vitest'
import { termsIn } from '../../src/web/src/dig/several'

describe('several terms in one search', () => {
  test('commas, semicolons, tabs and lines split them; each is there once', () =>
    expect(termsIn('bird house, nest box;owl box\tbat box\nwren house, Bird House')).toEqual([
      'Bird House',
      'nest box',
      'owl box',
      'bat box',
      'wren house',
    ]))

  test('a comma inside a number splits nothing, and what has no word is no term', () => {
    expect(termsIn('1,000 piece puzzle')).toEqual(['1,000 piece puzzle'])
    expect(termsIn(' ; , !')).toEqual([])
  })

  test('a column beyond the bound is cut off there', () =>
    expect(termsIn(Array.from({ length: 80 }, (_, i) => `term ${i}`).join('\n'))).toHaveLength(50))
})
