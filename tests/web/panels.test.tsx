import { screen, waitFor } from '@testing-library/react'
import { IDBFactory } from 'fake-indexeddb'
import { beforeEach, describe, expect, test } from 'vitest'
import type { Checked, Field, Finding, Take, Version } from '../../src/web/src/kit/api'
import { forgetDrafts, listingDraft } from '../../src/web/src/kit/drafts/drafts'
import { queryKey } from '../../src/web/src/kit/queries'
import type { Desk } from '../../src/web/src/kit/shop'
import { ToastLine } from '../../src/web/src/kit/toast'
import { weighKey } from '../../src/web/src/kit/weighing'
import { FillPanel } from '../../src/web/src/write/fill'
import { AllFindings, FieldFindings, type FindingActions } from '../../src/web/src/write/findings'
import { Pictures, PicturesState, usePictures } from '../../src/web/src/write/pictures'
import { Reading } from '../../src/web/src/write/reading'
import { SendOut } from '../../src/web/src/write/sendout'
import { Takes } from '../../src/web/src/write/takes'
import { Tile } from '../../src/web/src/write/tile'
import { Versions } from '../../src/web/src/write/versions'
import { show, text } from './screen'
import { type Asked, json, serve } from './server'

const desk = {
  product: { id: 1, name: 'Box', pictures: ['A box', 'A wren'], picturesRevision: 0, revision: 0, listings: {} },
  market: { id: 'fair-us', platformId: 'fair', platformName: 'The fair', simulated: true, own: false, currency: 'USD' },
  listingId: 7,
  base: '/1/fair-us',
} as unknown as Desk

const field = (shape: Field['shape'], more: Partial<Field> = {}) =>
  ({
    key: shape,
    label: 'Tags',
    role: '',
    shape,
    max: null,
    maxItems: null,
    unit: 'characters',
    shows: null,
    separator: ', ',
    ...more,
  }) as unknown as Field

let asked: Asked[]
let answers: Record<string, (asked: Asked) => unknown>

beforeEach(() => {
  asked = []
  serve(async (a) => {
    asked.push(a)
    const how = Object.entries(answers).find(([path]) => a.url.endsWith(path))?.[1]
    const body = await how?.(a)
    return body instanceof Response ? body : how ? json(body) : new Response(null, { status: 404 })
  })
})

const bodies = (path: string) => asked.filter((a) => a.url.endsWith(path)).map((a) => a.body as Record<string, unknown>)

describe('takes', () => {
  const take = (title: string, more: Partial<Take> = {}) =>
    ({
      text: title,
      used: title.length,
      fits: true,
      reach: 40,
      grip: 30,
      inUse: false,
      mix: { low: 1, medium: 0, high: 2, unknown: 0 },
      holds: [{ text: 'bird house', volume: 900, grade: 'whole' }],
      ...more,
    }) as unknown as Take

  const put = (takes: Take[]) => {
    answers = { '/takes/weighed': () => takes }
    const used: string[] = []
    const shown = show(
      <Takes
        desk={desk}
        field={field('line', { max: 120 })}
        copy={() => ({ line: 'x' })}
        version={1}
        use={(t) => used.push(t)}
        keep={() => used.push('keep')}
      />,
    )
    return { ...shown, used }
  }

  test('each says its room, what it reaches and how hard its picks are', async () => {
    const { root } = put([
      take('Cedar bird house', { inUse: true }),
      take('A long one', { fits: false, mix: { low: 0, medium: 0, high: 0, unknown: 0 } as Take['mix'], holds: [] }),
    ])
    await screen.findByText('Cedar bird house')
    expect(text(root)).toContain('16 of 120; reach 40%, grip 30.0; 1 pick; competition: 1 low, 2 high')
    expect(text(root)).toContain('competition: no data')
    expect(bodies('/takes/weighed')).toEqual([{ marketId: 'fair-us', fields: { line: 'x' } }])
  })

  test('by key: Enter uses another, never the one in use; K keeps', async () => {
    const { hands, used } = put([take('In use', { inUse: true }), take('Another')])
    await screen.findByText('Another')
    await hands.keyboard('{Enter}{ArrowDown}{Enter}k')
    expect(used).toEqual(['Another', 'keep'])
  })

  test('K keeps the title before any take is there', async () => {
    const { hands, used } = put([])
    await screen.findByText(/No takes yet/)
    await hands.keyboard('k{Enter}')
    expect(used).toEqual(['keep'])
  })

  test('two lie side by side: what is not shared is set off, and picks that not all hold are told', async () => {
    const { hands } = put([
      take('Cedar bird house', { grip: 40 }),
      take('Cedar owl box', { holds: [{ text: 'owl box', volume: null, grade: 'inflected' }] as unknown as Take['holds'] }),
    ])
    await screen.findByText('Cedar owl box')
    await hands.keyboard(' {ArrowDown} ')
    const beside = await screen.findByTestId('side-by-side')
    expect([...beside.querySelectorAll('thead b')].map(text)).toEqual(['bird', 'house', 'owl', 'box'])
    expect([...beside.querySelectorAll<HTMLTableRowElement>('tbody tr')].map((r) => text(r.cells[0]))).toEqual([
      'Length',
      'Reach',
      'Grip',
      'Picks',
      'Competition',
      'bird house 900',
      'owl box –No data',
    ])
    // The higher figure is the strong one.
    expect(
      [...beside.querySelectorAll<HTMLTableRowElement>('tbody tr')[2].cells].map((c) => c.className.includes('font-semibold')),
    ).toEqual([false, true, false])
    // The fourth pushes the first out: more than three do not fit.
    await hands.keyboard(' ')
    expect(screen.queryByTestId('side-by-side')).toBeNull()
  })
})

describe('findings', () => {
  const finding = (key: string, more: Partial<Finding> = {}) =>
    ({
      key,
      id: key,
      level: 'should',
      field: 'phrases',
      item: 0,
      start: 0,
      length: 3,
      why: `About ${key}.`,
      cost: 0,
      fix: null,
      otherFixes: [],
      claim: null,
      aside: false,
      ...more,
    }) as unknown as Finding
  const fixable = (key: string, more: Partial<Finding> = {}) =>
    finding(key, { fix: { label: 'Remove', field: 'phrases', value: [] } as unknown as Finding['fix'], ...more })

  const checked = (findings: Finding[]): Checked => ({ findings, passed: [], leadPlaces: [] })
  const hands = () => {
    const log: string[] = []
    const actions: FindingActions = {
      fix: (f) => log.push(`fix ${f.key}`),
      dismiss: (f) => log.push(`dismiss ${f.key}`),
      addToFacts: (f) => log.push(`fact ${f.claim?.word}`),
      noClaim: (f) => log.push(`no claim ${f.claim?.word}`),
      go: (f) => log.push(`go ${f.key}`),
    }
    return { log, actions }
  }

  test('under a field the first two stand open, the rest is a click away', async () => {
    const h = hands()
    const shown = show(
      <FieldFindings
        findings={[finding('a'), fixable('b', { cost: 3.14 }), finding('c'), finding('d', { aside: true })]}
        actions={h.actions}
      />,
    )
    expect(document.querySelectorAll('[data-finding]')).toHaveLength(2)
    await shown.hands.click(screen.getByText('Show 1 more'))
    expect(document.querySelectorAll('[data-finding]')).toHaveLength(3)
    await shown.hands.click(screen.getByText('Remove (+3.1 grip)'))
    await shown.hands.click(screen.getAllByText('Dismiss')[2])
    expect(h.log).toEqual(['fix b', 'dismiss c'])
  })

  test('nothing open says nothing', () => {
    const { root } = show(<FieldFindings findings={[finding('a', { aside: true })]} actions={hands().actions} />)
    expect(text(root)).toBe('')
  })

  test('all of them: Enter fixes or goes there, A puts aside, those put aside can come back', async () => {
    const h = hands()
    const shown = show(
      <AllFindings
        fields={[field('phrases')]}
        checked={checked([
          fixable('a', { level: 'must' }),
          finding('b', { item: 3 }),
          finding('c', { aside: true }),
          finding('p', { field: '$pictures' }),
        ])}
        actions={h.actions}
      />,
    )
    screen.getByTestId('findings').focus()
    await shown.hands.keyboard('{Enter}{ArrowDown}{Enter}d')
    await shown.hands.click(screen.getByText('Restore'))
    expect(h.log).toEqual(['fix a', 'go b', 'dismiss b', 'dismiss c'])
    expect(screen.getByText('Tags 4')).toBeTruthy()
    expect(screen.getByText('Alt text')).toBeTruthy()
  })

  test('a claim is shown once for its word, and goes to the facts by one key', async () => {
    const h = hands()
    const claim = { facet: 'colour', word: 'white', start: 0, length: 5 } as Finding['claim']
    const shown = show(
      <AllFindings
        fields={[field('phrases')]}
        checked={checked([finding('w', { claim }), finding('w', { claim, item: 2 }), finding('w', { claim, item: 4 })])}
        actions={h.actions}
      />,
    )
    expect(document.querySelectorAll('[data-finding]')).toHaveLength(1)
    expect(text(shown.root)).toContain('2 more places.')
    screen.getByTestId('findings').focus()
    await shown.hands.keyboard('f{Enter}')
    await shown.hands.click(screen.getByText('Not a claim'))
    expect(h.log).toEqual(['fact white', 'fact white', 'no claim white'])
  })

  test('where several fixes would do, the seller chooses', async () => {
    const fixes: string[] = []
    const other = [{ label: 'Keep the last', field: 'phrases', value: [] }] as unknown as Finding['otherFixes']
    const shown = show(
      <FieldFindings
        findings={[fixable('r', { otherFixes: other })]}
        actions={{ ...hands().actions, fix: (_, label) => fixes.push(label ?? '') }}
      />,
    )
    await shown.hands.click(screen.getByText('Keep the last'))
    await shown.hands.click(screen.getByText('Remove'))
    expect(fixes).toEqual(['Keep the last', 'Remove'])
  })

  test('before the first check there is none, and none is said when there is nothing', () => {
    const h = hands()
    expect(text(show(<AllFindings fields={[]} checked={null} actions={h.actions} />).root)).toBe('Checking…')
    expect(text(show(<AllFindings fields={[]} checked={checked([])} actions={h.actions} />).root)).toContain('No findings.')
  })

  test('checks that found nothing are counted, and say what was looked at; the lead is followed place by place', () => {
    const { root } = show(
      <AllFindings
        fields={[field('phrases')]}
        checked={{
          ...checked([finding('a'), finding('b')]),
          passed: [{ id: 'title-long', text: 'The title fits.', how: '80 of 120 characters.' }],
          leadPlaces: [
            { place: 'title', field: 'line', label: 'Title', held: true },
            { place: 'alt', field: '', label: 'Alt text', held: false },
          ],
        }}
        actions={hands().actions}
      />,
    )
    expect(text(screen.getByTestId('passed'))).toContain('1 of 3 checks passed')
    expect(text(root)).toContain('80 of 120 characters.')
    expect(text(screen.getByTestId('lead-places'))).toContain('The lead is in 1 of 2 places')
    expect([...root.querySelectorAll('li')].map(text)).toEqual(['✓ Title: there', '– Alt text: not there'])
  })
})

describe('versions', () => {
  const version = (id: number, name = '') =>
    ({ id, at: '2026-11-25T10:00:00Z', why: 'after a pause', name, copy: {} }) as unknown as Version

  const put = () => {
    const brought: number[] = []
    const shown = show(
      <>
        <Versions listingId={7} copy={() => ({ line: 'now' })} settle={async () => {}} restore={(v) => brought.push(v.id)} />
        <ToastLine />
      </>,
    )
    return { ...shown, brought }
  }

  beforeEach(() => {
    answers = {
      '/versions/compare': () => [
        {
          field: 'line',
          label: 'Title',
          words: [
            { text: 'Cedar ', are: 'same' },
            { text: 'owl', are: 'removed' },
            { text: 'bird', are: 'added' },
          ],
        },
      ],
      '/versions/2': () => ({ what: 'Renamed', id: 1, revision: null }),
      '/versions': (a) => (a.method === 'GET' ? [version(2), version(1, 'The first')] : { kept: (a.body as { name: string }).name !== '' }),
    }
  })

  test('Enter compares word by word with what is here, or with another', async () => {
    const { hands } = put()
    await screen.findByText('The first')
    await hands.keyboard('{Enter}')
    const changed = await screen.findByTestId('changed-field')
    expect([text(changed.querySelector('ins')), text(changed.querySelector('del'))]).toEqual(['bird', 'owl'])
    await hands.selectOptions(screen.getByLabelText('Compare with'), 'The first')
    await waitFor(() => expect(bodies('/versions/compare')).toHaveLength(2))
    expect(bodies('/versions/compare').map((b) => [b.from, b.to])).toEqual([
      [2, 0],
      [2, 1],
    ])
  })

  test('R restores, F2 renames in place', async () => {
    const { hands, brought } = put()
    await screen.findByText('The first')
    await hands.keyboard('{ArrowDown}r{ArrowUp}{F2}')
    await hands.keyboard('Better{Enter}')
    await waitFor(() => expect(bodies('/versions/2')).toEqual([{ name: 'Better' }]))
    expect(brought).toEqual([1])
    // And the keys are the list's again.
    await hands.keyboard('r')
    expect(brought).toEqual([1, 2])
  })

  test('what is kept is said, and what is not too', async () => {
    const { hands } = put()
    const box = await screen.findByLabelText('Name of the new version')
    await hands.type(box, 'With robins{Enter}')
    await screen.findByText('Saved as a version')
    await hands.click(screen.getByText('Save version'))
    await screen.findByText(/Nothing to save/)
  })
})

describe('a fill', () => {
  const weight = (key: string, grade: string) => ({ key, grade, grip: grade === 'missing' ? 0 : 0.5 })
  const pick = (key: string, volume: number | null) => ({
    key,
    text: key,
    fit: 'core',
    numbers: { volume, headroom: null },
    demand: volume,
    worth: volume,
  })
  const weighing = (id: string, grades: Record<string, string>, grip: number, used = 0) => ({
    id,
    since: null,
    reach: grip,
    grip,
    fields: ['phrases'],
    avoided: [],
    totalVolume: 100,
    rooms: { phrases: { used: [used], items: used, over: 0 } },
    terms: Object.entries(grades).map(([k, g]) => weight(k, g)),
  })

  const put = (f: Field) => {
    const taken: unknown[] = []
    const draft = listingDraft(desk.listingId, { phrases: ['old'] }, 1)
    const shown = show(
      <>
        <FillPanel
          desk={desk}
          field={f}
          draft={draft}
          use={(value, what) => taken.push(value, what)}
          keepTake={(t) => taken.push(`keep ${t}`)}
          close={() => taken.push('closed')}
          used={() => taken.push('used')}
        />
        <ToastLine />
      </>,
      [
        [queryKey('picks', 1, 'fair-us'), { picks: [pick('owl box', 90), pick('bat box', null), pick('bird house', 900)] }],
        [weighKey(desk), weighing('0', { 'owl box': 'missing', 'bat box': 'missing', 'bird house': 'whole' }, 20)],
      ],
    )
    return { ...shown, taken, draft }
  }

  beforeEach(async () => {
    globalThis.indexedDB ??= new IDBFactory()
    await forgetDrafts()
    answers = {
      '/copy': (a) => ({ revision: (a.body as { revision: number }).revision + 1, savedAt: '2026-01-01' }),
      '/fill/phrases': () => ({
        value: ['old', 'owl box', 'bat box'],
        pieces: ['owl box', 'bat box'],
        limit: 24,
        gain: 90,
        bound: 100,
        takes: [],
        leftOut: [],
      }),
      '/fill/line': () => ({
        value: 'A',
        pieces: [],
        limit: 24,
        gain: null,
        bound: null,
        takes: [
          { text: 'A', used: 1, grip: 50, whole: ['owl box'] },
          { text: 'B', used: 1, grip: 40, whole: [] },
        ],
        leftOut: [{ text: 'wooden box', reason: 'untrue', claims: [{ facet: 'material', word: 'wooden', start: 0, length: 6 }] }],
      }),
      '/weigh': (a) => {
        const value = JSON.stringify((a.body as { fields: unknown }).fields)
        const held = (term: string) => (value.includes(term) ? 'whole' : 'missing')
        return weighing(
          '1',
          { 'owl box': held('owl box'), 'bat box': held('bat box'), 'bird house': value.includes('"B"') ? 'missing' : 'whole' },
          value === 'null' || value === '{"phrases":["old"]}' ? 20 : 30,
          value.split(' box').length,
        )
      },
      '/picks': () => ({ picks: [pick('owl box', 90), pick('bat box', null), pick('bird house', 900)] }),
    }
  })

  test('it says what the whole opens, how much room it takes and how near the best it is', async () => {
    const { root } = put(field('phrases', { maxItems: 12 }))
    await screen.findByText('Gains')
    expect(text(screen.getByTestId('fill-effect'))).toBe('Reach 20.0 → 30.0 (+10.0), grip 20.0 → 30.0 (+10.0)')
    expect([...root.querySelectorAll('table tr')].map(text)).toEqual(['owl box90', 'bat box–No data'])
    expect(text(root)).toContain('Space used: 3 of 12')
    expect(text(root)).toContain('90.0% of the best possible (90 of at most 100)')
  })

  test('a part of it opens less, and only that is taken', async () => {
    const { hands, taken, root } = put(field('phrases', { maxItems: 12 }))
    await screen.findByText('Gains')
    await hands.keyboard('{ArrowRight} ')
    await waitFor(() => expect([...root.querySelectorAll('table tr')].map(text)).toEqual(['owl box90']))
    expect(text(root)).toContain('Still missingbat box')
    await hands.keyboard('{Enter}')
    expect(taken).toEqual(['closed', ['old', 'owl box'], 'Filled Tags', 'used'])
  })

  test('what was typed meanwhile is not lost to it: it is made anew', async () => {
    const { hands, taken, draft } = put(field('phrases', { maxItems: 12 }))
    await screen.findByText('Gains')
    draft.change({ phrases: ['old', 'typed'] })
    answers['/fill/phrases'] = () => ({
      value: ['old', 'typed', 'owl box'],
      pieces: ['owl box'],
      limit: 24,
      gain: 90,
      bound: 90,
      takes: [],
      leftOut: [],
    })
    await hands.keyboard('{Enter}')
    await screen.findByText(/You edited Tags meanwhile/)
    await waitFor(() => expect(screen.queryAllByText('bat box', { selector: 'button' })).toEqual([]))
    await hands.keyboard('{Enter}')
    expect(taken).toEqual(['closed', ['old', 'typed', 'owl box'], 'Filled Tags', 'used'])
  })

  test('Enter on a button that one has gone to does what it says', async () => {
    const { hands, taken } = put(field('phrases', { maxItems: 12 }))
    await screen.findByText('Gains')
    screen.getByText(/Cancel/).focus()
    await hands.keyboard('{Enter}')
    expect(taken).toEqual(['closed'])
  })

  test('nothing chosen takes nothing', async () => {
    const { hands, taken } = put(field('phrases', { maxItems: 12 }))
    await screen.findByText('Gains')
    await hands.keyboard(' {ArrowRight} {Enter}')
    expect(taken).toEqual(['closed'])
  })

  test('each title says what it would lose as well; K keeps it as a take', async () => {
    const { hands, taken } = put(field('line', { role: 'title' }))
    await screen.findByText('Exact phrases in it')
    expect(screen.queryByText('Loses')).toBeNull()
    expect(text(screen.getByTestId('left-out'))).toContain('1 pick left out“wooden” isn’t in the facts (material): “wooden box”.')
    await hands.keyboard('{ArrowDown}')
    await screen.findByText('Loses')
    await hands.keyboard('k{Enter}')
    expect(taken).toEqual(['keep B', 'closed', 'B', 'Filled Tags', 'used'])
  })

  test('what went wrong is said', async () => {
    answers['/fill/phrases'] = () => json({ detail: 'The search does not read Tags.' }, 400)
    put(field('phrases'))
    await screen.findByText('The search does not read Tags.')
  })
})

describe('alt texts', () => {
  function Held() {
    const pictures = usePictures(desk)
    return (
      <>
        <PicturesState pictures={pictures} />
        <output>{pictures.view.revision}</output>
        <Pictures
          draft={pictures.draft}
          texts={pictures.view.value}
          locked={[]}
          findings={[]}
          actions={{ fix: () => {}, dismiss: () => {}, addToFacts: () => {}, noClaim: () => {}, go: () => {} }}
        />
      </>
    )
  }

  beforeEach(async () => {
    globalThis.indexedDB ??= new IDBFactory()
    await forgetDrafts()
    answers = { '/pictures': (a) => ({ picturesRevision: (a.body as { revision: number }).revision + 1 }) }
  })

  const revisionIs = (revision: string) => () => expect(text(screen.getByRole('status'))).toBe(revision)
  const texts = () => screen.getAllByRole('textbox').map((b) => (b as HTMLTextAreaElement).value)

  test('they are saved together after a pause', async () => {
    const { hands } = show(<Held />)
    expect(texts()).toEqual(['A box', 'A wren', ''])
    await hands.type(screen.getByLabelText('Alt text 1'), ' of cedar')
    await waitFor(revisionIs('1'))
    expect(bodies('/pictures')).toEqual([{ pictures: ['A box of cedar', 'A wren'], revision: 0 }])
  })

  test('another listing of the product that is opened then has them', async () => {
    const { hands, cache } = show(<Held />, [[['shop'], { products: [desk.product] }]])
    await hands.type(screen.getByLabelText('Alt text 2'), ' box')
    await waitFor(() =>
      expect(cache.getQueryData<{ products: { pictures: string[] }[] }>(['shop'])?.products[0].pictures).toEqual(['A box', 'A wren box']),
    )
    expect(bodies('/pictures')).toHaveLength(1)
  })

  test('Enter goes on, the last adds another, Backspace takes an empty one out', async () => {
    const { hands } = show(<Held />)
    await hands.click(screen.getByLabelText('Alt text 2'))
    await hands.keyboard('{Enter}')
    await waitFor(() => expect(document.activeElement?.getAttribute('aria-label')).toBe('Alt text 3'))
    await hands.keyboard('An owl')
    expect(texts()).toEqual(['A box', 'A wren', 'An owl', ''])
    await hands.clear(screen.getByLabelText('Alt text 2'))
    await hands.type(screen.getByLabelText('Alt text 2'), '{Backspace}')
    expect(texts()).toEqual(['A box', 'An owl', ''])
  })

  test('a save that fails is said, and tried again', async () => {
    let fails = 1
    answers['/pictures'] = () => (fails-- > 0 ? json({ detail: 'The disk is full.' }, 507) : { picturesRevision: 1 })
    const { hands } = show(<Held />)
    await hands.type(screen.getByLabelText('Alt text 1'), '!')
    await screen.findByText(/The disk is full/)
    await waitFor(revisionIs('1'), { timeout: 4000 })
    expect(bodies('/pictures')).toHaveLength(2)
    expect(screen.queryByText(/The disk is full/)).toBeNull()
  })

  test('another window’s alt texts are shown beside these, and nothing is written over until one is chosen', async () => {
    answers['/pictures'] = () => json({ ...desk.product, pictures: ['Theirs'], picturesRevision: 4, revision: 0 }, 409)
    const { hands } = show(<Held />)
    await hands.type(screen.getByLabelText('Alt text 1'), '!')
    await screen.findByText(/was changed in another window/)
    answers['/pictures'] = () => ({ picturesRevision: 5 })
    await hands.click(screen.getByText('Keep this window’s text'))
    await waitFor(() => expect(bodies('/pictures')).toHaveLength(2))
    expect(bodies('/pictures')[1]).toEqual({ pictures: ['A box!', 'A wren'], revision: 4 })
  })
})

describe('the result as it shows elsewhere', () => {
  const title = field('line', { key: 'title', role: 'title', shows: 10 })

  test('a title is cut where the platform cuts it, and what is not seen is told', () => {
    const { root } = show(<Tile picture="A box" fields={[title]} copy={{ title: 'Cedar bird 🐦 house' }} platform="The fair" />)
    expect(text(root)).toContain('Cedar bird…')
    expect(text(root)).toContain('Cut off after 10 characters; hidden: “🐦 house”')
    // A word that is cut in two is told whole.
    const { root: within } = show(<Tile picture="A box" fields={[title]} copy={{ title: 'Cedar birdhouse kit' }} platform="The fair" />)
    expect(text(within)).toContain('hidden: “birdhouse kit”')
  })

  test('a short one is shown whole, an empty one says so', () => {
    expect(text(show(<Tile picture={undefined} fields={[title]} copy={{ title: 'Cedar' }} platform="The fair" />).root)).toBe(
      'No alt text yetCedarThe fair shows the whole title',
    )
    expect(text(show(<Tile picture="" fields={[title]} copy={{}} platform="The fair" />).root)).toContain('No title')
  })
})

describe('a reading of the title', () => {
  const known = (name: string, volume: number | null) => ({ text: name, volume, competition: 3, band: volume === null ? null : 'low' })

  const put = (title: string) => {
    const chosen: string[] = []
    return { ...show(<Reading desk={desk} text={title} copy={() => ({ title: 'draft' })} put={(t) => chosen.push(t)} />), chosen }
  }

  beforeEach(() => {
    answers = {
      '/read': () => ({
        holds: [known('bird house', 900), known('bird', null)],
        could: [
          { term: known('cedar house', 50), text: 'Cedar house bird', gain: 3.21 },
          { term: known('house bird', null), text: null, gain: null },
          { term: known('cedar bird', 5), text: 'Cedar bird house', gain: 0.01 },
        ],
        mix: { low: 1, medium: 0, high: 0, unknown: 1 },
      }),
    }
  })

  test('what it holds is counted by competition, and any of it can be picked', async () => {
    answers['/picks'] = (a) => (a.method === 'GET' ? { picks: [] } : { what: 'Picked', id: 1, revision: null })
    const { root, hands } = put('bird house cedar')
    await screen.findByText('bird house')
    expect(text(screen.getByTestId('mix'))).toBe('2 known terms in the title. Competition: 1 low, 1 no data.')
    expect([...root.querySelectorAll('.take')].slice(0, 2).map(text)).toEqual(['bird house low competitionPick900', 'birdPick–No data'])
    await hands.keyboard('p')
    await waitFor(() =>
      expect(
        bodies('/picks')
          .filter((b) => b)
          .map((b) => b.texts),
      ).toEqual([['bird house']]),
    )
    expect(bodies('/read')).toEqual([{ marketId: 'fair-us', text: 'bird house cedar', fields: { title: 'draft' } }])
  })

  test('each better order shows its gain; Enter uses it, where there is one', async () => {
    const { hands, chosen, root } = put('bird house cedar')
    await screen.findByText('Use this order (+3.2 grip)')
    expect([...root.querySelectorAll('.take button')].map(text).filter((t) => t !== 'Pick')).toEqual([
      'Use this order (+3.2 grip)',
      'Use this order',
    ])
    await hands.keyboard('{ArrowDown}{ArrowDown}{Enter}{ArrowDown}{Enter}{ArrowDown}{Enter}')
    expect(chosen).toEqual(['Cedar house bird', 'Cedar bird house'])
  })

  test('an empty title is not asked about', () => {
    const { root } = put('  ')
    expect(text(root)).toContain('The title is empty.')
    expect(bodies('/read')).toEqual([])
  })
})

describe('sending', () => {
  const put = () => {
    const log: string[] = []
    const shown = show(
      <>
        <SendOut desk={desk} isPage={false} settle={async () => void log.push('settled')} copyAll={() => log.push('copied')} />
        <ToastLine />
      </>,
    )
    return { ...shown, log }
  }

  test('what was written is on disk before it is sent, and it is said when the index notices', async () => {
    const sent: object[] = []
    answers = {
      '/sent': () => sent,
      '/send': () => {
        sent.push({ at: '2026-11-25T10:00:00Z', noticedAt: '2099-11-26T10:00:00Z', changed: true })
        return sent[0]
      },
    }
    const { hands, log, root } = put()
    await hands.click(screen.getByText('Send listing'))
    await screen.findByText(/Sent to the simulated The fair \(sample data\)\. Search results update about/)
    await waitFor(() => expect(root.querySelectorAll('tbody tr')).toHaveLength(1))
    expect(text(root)).toContain('edited since')
    expect([log, bodies('/send')]).toEqual([['settled'], [{ marketId: 'fair-us' }]])
  })

  test('what the market refuses is said in its words', async () => {
    answers = { '/sent': () => [], '/send': () => json({ detail: 'Title is 13 characters over.' }, 400) }
    const { hands } = put()
    await hands.click(screen.getByText('Send listing'))
    await screen.findByText('Title is 13 characters over.')
  })

  test('on a platform of one’s own it is marked as published', async () => {
    answers = {
      '/sent': () => [],
      '/send': () => ({ at: '2026-11-25T10:00:00Z', noticedAt: '2026-11-25T10:00:00Z', changed: false, byHand: true }),
    }
    const own = { ...desk, market: { ...desk.market, own: true } } as Desk
    const { hands, root } = show(
      <>
        <SendOut desk={own} isPage={false} settle={async () => {}} copyAll={() => {}} />
        <ToastLine />
      </>,
    )
    expect(text(root)).not.toContain('Send listing')
    await hands.click(screen.getByText('Mark as published'))
    await screen.findByText('Marked as published')
  })
})
