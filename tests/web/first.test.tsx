import { describe, expect, test } from 'vitest'
import model from '../../docs/model.md?raw'
import { endingInNumber } from '../../src/web/src/dig/paste'
import type { PlatformView } from '../../src/web/src/kit/api'
import { compact, counted, gripOf, money, percent, withoutData } from '../../src/web/src/kit/numbers'
import { keysOf, type ShortcutId, shortcuts } from '../../src/web/src/kit/shortcuts'
import { sectionsOf, slugOf } from '../../src/web/src/shop/help'
import { begunFrom, newField } from '../../src/web/src/shop/newplatform'
import { labelOf } from '../../src/web/src/shop/profilerules'

describe('numbers', () => {
  test('a count has its article and its plural', () => {
    expect([counted(1, 'photo'), counted(2, 'photo'), counted(1200, 'fix', 'fixes')]).toEqual(['1 photo', '2 photos', '1,200 fixes'])
  })

  test('money has its currency, a share its sign, grip one scale', () => {
    expect([money(19.6, 'USD'), money(73.4, 'GBP', false), percent(0.49), gripOf(0.91)]).toEqual(['$19.60', '£73', '49%', 91])
    expect([money(null, 'USD'), percent(null), gripOf(null), withoutData(0), withoutData(3)]).toEqual([
      'No data',
      'No data',
      null,
      '',
      ' (3 without data)',
    ])
  })

  test('headroom 100 and a million have room for every digit', () => {
    expect([compact(100), compact(48_230), compact(1_000_000)]).toEqual(['100', '48.2k', '1M'])
  })
})

describe('a pasted line that ends in a number', () => {
  test.each([
    ['good box 400', { term: 'good box', volume: '400' }],
    ['wren house 1,300', { term: 'wren house', volume: '1,300' }],
    ['set of 3', undefined],
    ['good box\t400', undefined],
    ['good box; 400', undefined],
    ['2026', undefined],
    ['good box', undefined],
  ])('%s', (line, found) => expect(endingInNumber(line)).toEqual(found))
})

describe('a platform of one’s own', () => {
  const fair = {
    name: 'The fair',
    profile: {
      id: 'fair',
      name: 'The fair',
      fields: [
        { key: 'category', shape: 'path', tree: [{ name: 'Garden' }] },
        { key: 'attributes', shape: 'choices', attributes: [{ name: 'Colour' }, { name: 'Perch', category: 'Birds' }] },
      ],
    },
  } as unknown as PlatformView

  test('it begins without categories unless they are asked for', () => {
    const own = begunFrom(fair, 'Paper Lane', false)
    expect([own.id, own.fields[0].tree, own.fields[1].attributes]).toEqual(['paper-lane', [], [{ name: 'Colour' }]])
    expect(begunFrom(fair, 'Paper Lane', true).fields).toEqual((fair.profile as unknown as { fields: unknown[] }).fields)
  })

  test('a new field is searched, with the weight of its role', () => {
    expect(newField('Search words', 'backend')).toEqual({
      key: 'search-words',
      label: 'Search words',
      role: 'backend',
      shape: 'words',
      indexed: true,
      weight: 0.4,
    })
    expect(newField('Title', 'title').front).toBe(true)
  })

  test('an error is named by the labels of the form', () => {
    const fields = [{ key: 'title', label: 'Title', shape: 'line' as const }]
    expect(labelOf('profile.fields[0].limit.max', fields)).toBe('Title limit')
    expect(labelOf('profile.checks.unusedShare', fields)).toBe('Allowed unused space')
    expect(labelOf('profile.name', fields)).toBe('Name')
    expect(labelOf('profile.search.folds[2]', fields)).toBe('Search treats as equal')
  })
})

describe('the list of shortcuts', () => {
  const ids = Object.keys(shortcuts) as ShortcutId[]

  test('every one can be pressed and is explained', () => {
    for (const id of ids) {
      expect(keysOf(id).length, id).toBeGreaterThan(0)
      expect(shortcuts[id].label.length, id).toBeGreaterThan(3)
    }
  })

  test('none uses the browser’s own Alt keys, and Alt with a letter goes by the position of the key', () => {
    for (const id of ids)
      for (const key of shortcuts[id].keys as string[]) {
        expect(key, id).not.toMatch(/^Alt\+(Arrow(Left|Right)|Digit\d|Key[A-Z]|.)$/)
        if (key.startsWith('Alt+Shift+')) expect(key, id).toMatch(/(Key[A-Z]|Digit\d)$/)
      }
  })
})

test('a heading is an address', () => {
  expect([slugOf('The shape of a year'), slugOf('Fit and home')]).toEqual(['the-shape-of-a-year', 'fit-and-home'])
})

test('every “?” beside a figure opens a section that the help has', () => {
  const files = import.meta.glob<string>('../../src/web/src/**/*.tsx', { query: '?raw', import: 'default', eager: true })
  const wanted = Object.values(files).flatMap((text) => [...text.matchAll(/<HelpLink to="([^"]+)"/g)].map((m) => m[1]))
  const sections = sectionsOf(model).map((s) => s.slug)
  expect(wanted.length).toBeGreaterThan(8)
  expect(wanted.filter((to) => !sections.includes(to))).toEqual([])
})
