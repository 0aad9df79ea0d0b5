import { QueryClient } from '@tanstack/react-query'
import { cleanup, screen, waitFor } from '@testing-library/react'
import { IDBFactory } from 'fake-indexeddb'
import { Route, Routes } from 'react-router'
import { beforeEach, describe, expect, test } from 'vitest'
import { Paste } from '../../src/web/src/dig/paste'
import { Trail } from '../../src/web/src/dig/trail'
import type { Grade, PickWeight, PlatformView } from '../../src/web/src/kit/api'
import { forgetDrafts, onSaved } from '../../src/web/src/kit/drafts/drafts'
import { afterSave } from '../../src/web/src/kit/drafts/saved'
import { MarketLink } from '../../src/web/src/kit/marketlink'
import type { Desk } from '../../src/web/src/kit/shop'
import { Tape } from '../../src/web/src/kit/tape'
import { Legend, TermGaps, Thread } from '../../src/web/src/kit/thread'
import { ToastLine, toast } from '../../src/web/src/kit/toast'
import type { Row } from '../../src/web/src/pick/rows'
import { Woven } from '../../src/web/src/pick/woven'
import { Attributes, Categories } from '../../src/web/src/shop/categories'
import { Gone } from '../../src/web/src/shop/nothere'
import { ProfileSheet } from '../../src/web/src/shop/profile'
import type { FieldRule } from '../../src/web/src/shop/profilerules'
import { show, text } from './screen'
import { type Asked, json, serve } from './server'

const desk = {
  product: { id: 1, name: 'Box', pictures: [], listings: {} },
  market: { id: 'fair-us', platformName: 'The fair' },
  listingId: 7,
  base: '/1/fair-us',
} as unknown as Desk

let asked: Asked[]
let answers: Record<string, (asked: Asked) => unknown>

beforeEach(() => {
  asked = []
  answers = {}
  serve((a) => {
    asked.push(a)
    const how = Object.entries(answers).find(([path]) => a.url.endsWith(path))?.[1]
    const body = how?.(a)
    return body instanceof Response ? body : how ? json(body) : new Response(null, { status: 404 })
  })
})

describe('the tape', () => {
  const tape = (used: number, max: number, unit = 'characters', more: { shows?: number; searched?: number } = {}) =>
    text(show(<Tape used={used} max={max} unit={unit} {...more} />).root)

  test('it says what is used, in its unit, and by how much that is too much', () => {
    expect(tape(88, 120)).toBe('88 of 120')
    expect(tape(120, 120)).toBe('120 of 120')
    expect(tape(121, 120)).toBe('1 too long')
    expect(tape(43, 240, 'bytes')).toBe('43 of 240 bytes')
    expect(tape(250, 240, 'bytes')).toBe('10 bytes too long')
  })

  test('what shows elsewhere, and how far it is searched, are marked where they matter', () => {
    expect(tape(10, 120, 'characters', { shows: 64, searched: 100 })).toContain('Cut off after 64Searched up to 100')
    expect(tape(10, 60, 'characters', { shows: 64 })).not.toContain('Cut off')
  })
})

describe('threads', () => {
  test('each grade is said in words', () => {
    for (const [grade, said] of [
      ['whole', 'Exact phrase'],
      ['inflected', 'Exact, other form'],
      ['together', 'All words in one field'],
      ['spread', 'Words in several fields'],
      ['missing', 'Word missing'],
    ] as [Grade, string][]) {
      show(<Thread grade={grade} />)
      expect(screen.getByLabelText(said, { exact: true })).toBeTruthy()
    }
    show(<Legend />)
    expect(screen.getAllByRole('img').length).toBeGreaterThanOrEqual(10)
  })

  const term = (more: Partial<PickWeight>) =>
    ({ text: 'bird-house for Mom’s garden', missing: [], near: [], apart: false, ...more }) as unknown as PickWeight

  test('missing words stand in boxes, as they are typed', () => {
    const { root } = show(<TermGaps term={term({ missing: ['house', "mom's"] })} />)
    expect([...root.querySelectorAll('.gap-word')].map(text)).toEqual(['house', 'Mom’s'])
    expect(text(root)).toBe('bird-house for Mom’s garden')
  })

  test('what stands there instead is named once, and why it does not count', () => {
    const { root } = show(
      <TermGaps
        term={term({
          missing: ['garden'],
          near: [
            { needs: 'garden', has: 'gardens', fold: 'plural' },
            { needs: 'garden', has: 'gardens', fold: 'spelling' },
          ],
        })}
      />,
    )
    expect(text(root.querySelector('small'))).toBe('has “gardens”')
    expect(root.querySelector('small')?.title).toContain(
      'The listing has “gardens” and needs “garden”: this search doesn’t treat singular and plural as equal',
    )
  })

  test('words that stand apart are told', () =>
    expect(text(show(<TermGaps term={term({ apart: true })} />).root)).toContain('words in separate fields'))
})

describe('what was done is said in one line', () => {
  test('it offers to undo once', async () => {
    const undone: string[] = []
    const { hands } = show(<ToastLine />)
    toast('Dropped', () => undone.push('a'))
    await screen.findByText('Dropped')
    await hands.click(screen.getByText('Undo'))
    expect([undone, screen.queryByTestId('toast')]).toEqual([['a'], null])
    toast('Copied')
    await screen.findByText('Copied')
    expect(screen.queryByText('Undo')).toBeNull()
  })
})

describe('pasted terms', () => {
  const put = (market: string) => {
    const log: string[] = []
    const there = { ...desk, market: { ...desk.market, id: market } }
    return {
      ...show(<Paste desk={there} close={() => log.push('closed')} done={() => log.push('done')} asFile={(t) => log.push(`file ${t}`)} />),
      log,
    }
  }

  test('what could not be taken stays in the box, each line with its reason', async () => {
    answers['/paste'] = () => ({ taken: 2, new: 1, bad: [{ line: 3, text: '–', reason: 'There is no word in it.' }] })
    const { hands, log, root } = put('first')
    const box = screen.getByLabelText('Terms to paste') as HTMLTextAreaElement
    await hands.click(box)
    await hands.paste('owl box\nbat box\n–')
    await hands.keyboard('{Control>}{Enter}{/Control}')
    await screen.findByText('Line 3')
    expect([box.value, log]).toEqual(['–', ['done']])
    expect(text(root)).toContain('2 terms added, 1 of them new. 1 line skipped; fix it above.')
    expect(asked[0].body).toEqual({ text: 'owl box\nbat box\n–', source: null })
  })

  test('when nothing could be taken the text is as it was', async () => {
    answers['/paste'] = () => json({ detail: 'The disk is full.' }, 500)
    const { hands, log } = put('second')
    const box = screen.getByLabelText('Terms to paste') as HTMLTextAreaElement
    await hands.type(box, 'owl box')
    await hands.click(screen.getByText(/^Add terms/, { selector: 'button' }))
    await screen.findByText('The disk is full. Nothing was added; your text is still here.')
    expect([box.value, log]).toEqual(['owl box', []])
    await hands.type(box, '{Escape}')
    expect(log).toEqual(['closed'])
  })

  test('a list that was not added is there again after Escape, in its own market', async () => {
    const { hands, log } = put('third')
    await hands.type(screen.getByLabelText('Terms to paste'), 'owl box\nowl barn box')
    const source = screen.getByLabelText(/Source name/)
    await hands.type(source, 'my notes{Escape}')
    expect(log).toEqual(['closed'])
    cleanup()
    put('fourth')
    expect((screen.getByLabelText('Terms to paste') as HTMLTextAreaElement).value).toBe('')
    cleanup()
    answers['/paste'] = () => ({ taken: 2, new: 2, bad: [] })
    const again = put('third')
    expect((screen.getByLabelText('Terms to paste') as HTMLTextAreaElement).value).toBe('owl box\nowl barn box')
    // The keys are those of all its boxes.
    await again.hands.click(screen.getByLabelText(/Source name/))
    await again.hands.keyboard('{Control>}{Enter}{/Control}')
    await waitFor(() => expect(again.log).toEqual(['done']))
    expect(asked[0].body).toEqual({ text: 'owl box\nowl barn box', source: 'my notes' })
    cleanup()
    put('third')
    expect((screen.getByLabelText('Terms to paste') as HTMLTextAreaElement).value).toBe('')
  })

  test('nothing is not to be put on the shelf', () => {
    put('fifth')
    expect((screen.getByText(/^Add terms/, { selector: 'button' }) as HTMLButtonElement).disabled).toBe(true)
  })
})

test('the trail has each step inside the one it was found in, and goes back to it', async () => {
  answers['/trail/fair-us'] = () => [
    { id: 1, text: 'bird house', parentId: null, picked: 2 },
    { id: 2, text: 'owl box', parentId: 1, picked: 0 },
    { id: 3, text: 'bat box', parentId: null, picked: 0 },
  ]
  const went: unknown[] = []
  const { hands, root } = show(<Trail desk={desk} here={2} go={(...to) => went.push(to)} />)
  await screen.findByText('owl box')
  expect(text(root.querySelector('ul ul'))).toBe('owl box×')
  expect(screen.getByText('owl box').className).toContain('font-semibold')
  await hands.click(screen.getByText('owl box'))
  await hands.click(screen.getByText('bat box'))
  expect(went).toEqual([
    ['owl box', 1],
    ['bat box', null],
  ])
})

describe('one phrase for several picks', () => {
  const pick = (name: string) => ({ text: name, fit: 'core', source: 'dig', numbers: { volume: 10 } }) as unknown as Row

  test('W picks it, with whence it is; the shorter one is offered too', async () => {
    answers['/weave'] = () => ({
      text: 'cedar bird house kit',
      whole: true,
      together: 'bird house kit cedar',
      volume: 1300,
      unknownVolume: 1,
    })
    const kept: unknown[] = []
    const { hands, root } = show(
      <Woven
        picks={[pick('cedar bird house'), pick('bird house kit')]}
        known={[pick('Bird House Kit Cedar')]}
        keep={(...what) => kept.push(what)}
      />,
    )
    await screen.findByText('cedar bird house kit')
    await hands.keyboard('w')
    expect(kept).toEqual([[['cedar bird house kit'], { source: 'dig', saidBy: ['Combined from cedar bird house, bird house kit'] }]])
    expect(text(root)).toContain('Covers 1,300 searches/mo (1 without data).')
    expect(screen.getByText('picked')).toBeTruthy()
  })
})

describe('a platform’s rules', () => {
  const profile = {
    id: 'stall',
    name: 'Stall',
    about: '',
    search: { folds: ['plural'], wordsCombine: true },
    fields: [
      { key: 'title', label: 'Title', shape: 'line', indexed: true, weight: 0.8, limit: { max: 80, unit: 'characters' } },
      { key: 'category', label: 'Category', shape: 'path', tree: [{ name: 'Garden', under: [{ name: 'Birds' }] }] },
      { key: 'attributes', label: 'Attributes', shape: 'choices', attributes: [{ name: 'Colour', options: ['red'] }] },
    ],
    banned: [],
    checks: {},
  }
  const view = { id: 'stall', name: 'Stall', about: '', shipped: false, listings: 1, revision: 1, profile } as unknown as PlatformView

  const put = () => {
    const saved: string[] = []
    const sheet = (round: number) => (
      <>
        <ProfileSheet key={round} view={view} usual={{ unusedShare: 0.25 }} again={() => saved.push('again')} />
        <ToastLine />
      </>
    )
    const shown = show(sheet(0))
    return { ...shown, saved, anew: () => shown.again(sheet(1)) }
  }

  const sent = (path: string) => asked.filter((a) => a.url.endsWith(path)).map((a) => (a.body as { profile: typeof profile }).profile)

  beforeEach(() => {
    answers['/platforms/check'] = () => ({ unfit: [] })
    answers['/platforms/stall'] = () => ({ unfit: [], revision: 2, changed: { what: 'Changed Stall', id: 5 } })
    onSaved(afterSave(new QueryClient()))
    globalThis.indexedDB = new IDBFactory()
    return forgetDrafts()
  })

  test('a change says at once which listings would no longer fit, and is saved by key', async () => {
    answers['/platforms/check'] = () => ({
      unfit: [
        { listingId: 1, product: 'Wren box', before: true, why: ['Title is 13 over'] },
        { listingId: 2, product: 'Bat box', before: false, why: ['Tags are too many'] },
      ],
    })
    const { hands } = put()
    const most = screen.getByLabelText('Limit of title')
    await hands.clear(most)
    await hands.type(most, '40')
    const unfit = await screen.findByTestId('unfit')
    expect(text(unfit)).toBe('1 listing would no longer fit these rules:Wren box: Title is 13 overBat box: Tags are too many')
    await hands.keyboard('{Control>}s{/Control}')
    await screen.findByText('Changed Stall')
    expect(sent('/platforms/stall').map((p) => p.fields[0].limit)).toEqual([{ max: 40, unit: 'characters' }])
    await hands.click(screen.getByText('Undo'))
    await waitFor(() => expect(asked.some((a) => a.url.includes('/changes/undo'))).toBe(true))
  })

  test('what is wrong is told with its key, and is not saved', async () => {
    answers['/platforms/check'] = () => json({ errors: { 'profile.fields[0].limit.max': ['Enter a whole number, 1 or more.'] } }, 400)
    const { hands } = put()
    await hands.type(screen.getByLabelText('Limit of title'), '0')
    expect(text(await screen.findByTestId('problems'))).toBe('Title limit: Enter a whole number, 1 or more.')
    await hands.keyboard('{Control>}s{/Control}')
    await screen.findByText(/Fix the marked errors/)
    expect(sent('/platforms/stall')).toEqual([])
  })

  test('fields are added, moved and taken out; an empty limit is none', async () => {
    const { hands } = put()
    await hands.selectOptions(screen.getByLabelText('Role of the new field'), 'backend')
    await hands.type(screen.getByLabelText('Name of the new field'), 'Search words{Enter}')
    await hands.click(screen.getByLabelText('Move search-words up'))
    await hands.click(screen.getByLabelText('Delete category'))
    await hands.clear(screen.getByLabelText('Limit of title'))
    await waitFor(() =>
      expect(
        sent('/platforms/check')
          .at(-1)
          ?.fields.map((f) => [f.key, f.indexed, f.limit ?? null, f.weight]),
      ).toEqual([
        ['title', true, null, 0.8],
        ['search-words', true, null, 0.4],
        ['attributes', undefined, null, undefined],
      ]),
    )
  })

  test('what is no number stays as it was typed, for the check to name', async () => {
    const { hands } = put()
    await hands.type(screen.getByLabelText('Limit of title'), 'x')
    await hands.type(screen.getByLabelText('Weight of title'), '?')
    expect((screen.getByLabelText('Limit of title') as HTMLInputElement).value).toBe('80x')
    await waitFor(() => expect(sent('/platforms/check').at(-1)?.fields[0]).toMatchObject({ weight: '0.8?', limit: { max: '80x' } }))
  })

  test('folds, words dropped and thresholds of its own', async () => {
    const { hands } = put()
    await hands.click(screen.getByLabelText(/accents/))
    await hands.click(screen.getByLabelText(/plurals/))
    await hands.type(screen.getByLabelText('Ignored words'), 'for, the, ')
    await hands.type(screen.getByLabelText('Allowed unused space'), '50')
    await waitFor(() => {
      const last = sent('/platforms/check').at(-1) as unknown as { search: object; checks: object }
      expect([last.search, last.checks]).toEqual([
        { folds: ['diacritics'], wordsCombine: true, ignoredWords: ['for', 'the'] },
        { unusedShare: 0.5 },
      ])
    })
  })

  test('as JSON it can be typed too, and what is no JSON says where', async () => {
    const { hands } = put()
    await hands.click(screen.getByText('Edit as JSON'))
    const box = screen.getByLabelText('Platform as JSON') as HTMLTextAreaElement
    expect(JSON.parse(box.value)).toEqual(profile)
    await hands.clear(box)
    await hands.paste('{"id": "stall"')
    expect(text(await screen.findByTestId('problems'))).toMatch(/JSON/)
    await hands.click(screen.getByText('Edit as a form'))
    await screen.findByText('Fix the JSON first')
    answers['/platforms/check'] = () => json({ errors: { 'profile.fields': ['A profile has fields.'] } }, 400)
    await hands.type(box, '}')
    await hands.click(screen.getByText('Edit as a form'))
    await screen.findByText('Fix this first: Fields')
    answers['/platforms/check'] = () => ({ unfit: [] })
    await hands.clear(box)
    await hands.paste(JSON.stringify({ ...profile, name: 'Stall two' }))
    await hands.click(screen.getByText('Edit as a form'))
    expect(((await screen.findByLabelText('Name')) as HTMLInputElement).value).toBe('Stall two')
  })

  test('what is not saved yet is there again after something else was opened, until it is forgotten', async () => {
    const { hands, anew, saved } = put()
    await hands.type(screen.getByLabelText('Name'), ' of mine')
    anew()
    expect((screen.getByLabelText('Name') as HTMLInputElement).value).toBe('Stall of mine')
    await hands.click(screen.getByText('Discard changes'))
    expect(saved).toEqual(['again'])
    show(<ProfileSheet view={view} usual={{}} again={() => {}} />)
    expect((screen.getAllByLabelText('Name').at(-1) as HTMLInputElement).value).toBe('Stall')
  })
})

describe('categories and attributes of a platform', () => {
  test('the outline one types is the tree', async () => {
    const trees: FieldRule['tree'][] = []
    const { hands } = show(
      <Categories name="Category" tree={[{ name: 'Garden', under: [{ name: 'Birds' }] }]} change={(t) => trees.push(t)} />,
    )
    const box = screen.getByLabelText('Categories of Category') as HTMLTextAreaElement
    expect(box.value).toBe('Garden\n    Birds')
    await hands.type(box, '\n  Bats')
    expect(trees.at(-1)).toEqual([{ name: 'Garden', under: [{ name: 'Birds' }, { name: 'Bats' }] }])
  })

  test('an attribute has its values and the category that opens it', async () => {
    const rules: FieldRule['attributes'][] = []
    const one: FieldRule['attributes'] = [{ name: 'Perch', options: ['rope'], category: 'Birds' }]
    const { hands } = show(<Attributes name="Attributes" rules={one} categories={['Garden', 'Birds']} change={(r) => rules.push(r)} />)
    await hands.type(screen.getByLabelText('Values of Perch'), ', branch,')
    expect(rules.at(-1)).toEqual([{ name: 'Perch', options: ['rope', 'branch'], category: 'Birds' }])
    await hands.selectOptions(screen.getByLabelText('Category of Perch'), 'every category')
    expect(rules.at(-1)).toEqual([{ name: 'Perch', options: ['rope'] }])
    await hands.type(screen.getByLabelText('Name of the new attribute'), 'Colour{Enter}')
    expect(rules.at(-1)).toEqual([...one, { name: 'Colour', options: [] }])
    await hands.click(screen.getByLabelText('Delete Perch'))
    expect(rules.at(-1)).toEqual([])
  })
})

test('the address of a deleted product brings it back', async () => {
  const change = { id: 4, what: 'deleted the product “Box”', at: '2026-11-26T06:00:00Z', canUndo: true, undoneAt: null, isLarge: false }
  answers['/api/changes'] = () => [
    { ...change, id: 5, what: 'deleted the product “Other”', bringsBack: [3] },
    { ...change, bringsBack: [9] },
  ]
  answers['/api/changes/undo'] = () => ({ what: change.what, id: 4 })
  const { hands } = show(
    <Routes>
      <Route path="/:productId/:marketId/write" element={<Gone />} />
    </Routes>,
    [],
    '/9/fair-us/write',
  )
  await hands.click(await screen.findByText('Bring it back'))
  await waitFor(() => expect(asked.some((a) => a.url === '/api/changes/undo' && a.method === 'POST')).toBe(true))
})

test('the address of a product that never was leads to the shop', async () => {
  answers['/api/changes'] = () => []
  show(<Gone />)
  await screen.findByText('This product or place isn’t in your shop')
  expect([screen.queryByText('Bring it back'), screen.getByText('Go to my shop').getAttribute('href')]).toEqual([null, '/'])
})

test('a term’s search at the marketplace is one key away where its address is known', async () => {
  const opened: unknown[] = []
  const before = window.open
  window.open = (...args) => {
    opened.push(args[0])
    return null
  }
  const market = { ...desk.market, searchAddress: 'https://market.example/search?q={term}&page=1' }
  const { hands, again } = show(<MarketLink market={market} term="owl & barn box" />)
  const address = 'https://market.example/search?q=owl%20%26%20barn%20box&page=1'
  expect(screen.getByText(/Open at The fair/).getAttribute('href')).toBe(address)
  await hands.keyboard('o')
  again(<MarketLink market={{ ...market, searchAddress: null }} term="owl box" />)
  await hands.keyboard('o')
  expect([opened, screen.queryByText(/Open at/)]).toEqual([[address], null])
  window.open = before
})
