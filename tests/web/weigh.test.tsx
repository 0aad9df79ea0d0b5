import { screen, waitFor } from '@testing-library/react'
import { beforeEach, describe, expect, test } from 'vitest'
import type { BuyerPhrase, Listing, ListingLine, Move, Rival, Weighing } from '../../src/web/src/kit/api'
import { useListings } from '../../src/web/src/kit/listings'
import type { Desk } from '../../src/web/src/kit/shop'
import { ToastLine } from '../../src/web/src/kit/toast'
import { EditMany } from '../../src/web/src/shop/listings/editmany'
import { Buyers } from '../../src/web/src/weigh/buyers'
import { NewFindings } from '../../src/web/src/weigh/newfindings'
import { RivalDetail } from '../../src/web/src/weigh/rivaldetail'
import { TopListings } from '../../src/web/src/weigh/top'
import { show, text } from './screen'
import { type Asked, json, serve } from './server'

const desk = {
  product: { id: 1, name: 'Feeder', listings: {} },
  market: { id: 'fair-us', platformId: 'fair', platformName: 'The fair', simulated: true, currency: 'USD' },
  listingId: 7,
  base: '/1/fair-us',
} as unknown as Desk

const listing = {
  id: 7,
  platformName: 'The fair',
  fields: [{ key: 'title', label: 'Title', shape: 'line' }],
  copy: { title: 'Feeder' },
} as unknown as Listing

const weighing = {
  reach: 9,
  grip: 8,
  totalVolume: 100,
  terms: [{ key: 'bird feeder', text: 'bird feeder', volume: 900 }],
} as unknown as Weighing

let asked: Asked[]
let answers: Record<string, (asked: Asked) => unknown>
let replaced: unknown[][]

beforeEach(() => {
  asked = []
  replaced = []
  answers = {}
  serve(async (a) => {
    asked.push(a)
    const how = Object.entries(answers).find(([path]) => a.url.endsWith(path))?.[1]
    const body = await how?.(a)
    return body instanceof Response ? body : how ? json(body) : new Response(null, { status: 404 })
  })
})

const bodies = (path: string) => asked.filter((a) => a.url.endsWith(path)).map((a) => a.body as Record<string, unknown>)

const steps = {
  replace: (...all: unknown[]) => replaced.push(all),
  replaceField: (...all: unknown[]) => replaced.push(all),
  undoLast: false as const,
}

const frame = { desk, listing, steps, weighing, head: null, tabs: null, moves: null } as unknown as Parameters<typeof Buyers>[0]

describe('a rival', () => {
  const rival = (more: Partial<Rival> = {}) =>
    ({
      id: 3,
      title: 'Window bird feeder',
      source: 'Sample data',
      isFromMarket: true,
      savedAt: '2026-11-26T10:00:00Z',
      seenAt: '2026-11-26T10:00:00Z',
      grip: 50,
      reach: 57,
      state: { shop: 'Fen & Fern', price: 19.5, ratings: 1 },
      fields: {},
      seen: ['Title', 'Tags'],
      onlyTheirs: ['bird feeder'],
      onlyMine: [],
      changes: [{ what: 'Price', before: '21', after: '19.5' }],
      ...more,
    }) as unknown as Rival

  const put = (more: Partial<Rival> = {}) =>
    show(<RivalDetail {...frame} rival={rival(more)} read={() => undefined} remove={() => undefined} update={() => undefined} />)

  test('says what it holds alone, what is unknown of it, and what changed', () => {
    const { root } = put()
    expect(text(root)).toContain('It holds, and yours doesn’tbird feeder900')
    expect(text(root)).toContain('Known: title, tags; what it has in other fields would add to its grip.')
    expect(text(root)).toContain('$19.50, 1 rating')
    expect(text(root)).toContain('Price21 19.5')
  })

  test('Shift T finds the moves that pass it, and again applies all of them as one step', async () => {
    answers = {
      '/rivals/3/pass': () => ({
        rivalGrip: 50,
        grip: 64,
        passes: true,
        moves: [
          {
            kind: 'front',
            sentence: 'Start the title with “bird feeder”',
            field: 'title',
            text: 'bird feeder',
            before: '',
            after: '',
            gain: 56.2,
            loses: ['owl box'],
          },
        ],
        fields: { title: 'Bird feeder, Feeder' },
      }),
    }
    const { root, hands } = put()
    await hands.keyboard('{Shift>}t{/Shift}')
    await screen.findByText(/past its 50/)
    expect(text(root)).toContain('1 move: grip 8 → 64')
    expect(text(root)).toContain('Start the title with “bird feeder” +56.2 loses “owl box”')
    await hands.keyboard('{Shift>}t{/Shift}')
    expect(replaced).toEqual([[{ title: 'Bird feeder, Feeder' }, 'Applied 1 move to pass Fen & Fern', 'moves']])
    expect(bodies('/pass')).toEqual([{ marketId: 'fair-us', fields: { title: 'Feeder' } }])
  })

  test('moves that are not enough say so, and a rival below offers none', async () => {
    answers = { '/rivals/3/pass': () => ({ rivalGrip: 50, grip: 30, passes: false, moves: [], fields: {} }) }
    const { root, hands } = put()
    await hands.keyboard('{Shift>}t{/Shift}')
    await screen.findByText(/no move passes it/)
    await hands.keyboard('{Shift>}t{/Shift}')
    expect(replaced).toEqual([])
    expect(text(root)).not.toContain('Apply')
    const below = put({ grip: 3 })
    expect(text(below.root)).not.toContain('To pass it')
  })
})

describe('what buyers say', () => {
  const phrase = (words: string, z: number, more: Partial<BuyerPhrase> = {}) =>
    ({
      text: words,
      z,
      mine: z > 0 ? 9 : 0,
      theirs: z < 0 ? 12 : 0,
      ofRivals: z < 0,
      stars: 4.8,
      tone: 'praise',
      isTrueOfMine: false,
      volume: null,
      pick: null,
      holds: 'missing',
      notInFacts: [],
      within: null,
      sentences: [`They wrote ${words}.`],
      ...more,
    }) as unknown as BuyerPhrase

  const put = (phrases: BuyerPhrase[]) => {
    answers = {
      '/reviews/phrases': () => ({ mine: 20, theirs: 30, market: 400, phrases }),
      '/products/1/picks': () => ({ what: 'Picked “x”', id: 5 }),
    }
    return show(
      <>
        <Buyers {...frame} />
        <ToastLine />
      </>,
    )
  }

  test('praise and complaints stand apart, what is true of yours comes first, and phrases of the same sentence are told once', async () => {
    const { root } = put([
      phrase('clear acrylic', -4, { isTrueOfMine: true }),
      phrase('oak perch', 4),
      phrase('cloudy', -3, { tone: 'complaint', stars: 2 }),
      phrase('easy', -2.5, { within: 'clear acrylic' }),
      phrase('too small', 2.2, { tone: 'complaint', stars: 2.5 }),
    ])
    await waitFor(() => expect(root.querySelectorAll('[data-testid=phrase]')).toHaveLength(4))
    const list = text(root.querySelector('[data-testid=phrases]'))
    expect(
      [
        'Said about theirs, and true of yours by its factsclear acrylic',
        'Complaints about theirscloudy',
        'Praise for yoursoak perch',
        'Complaints about yourstoo small',
      ].map((part) => list.indexOf(part)),
    ).toEqual([0, expect.any(Number), expect.any(Number), expect.any(Number)])
    expect(list).not.toContain('Praise for theirs')
    const detail = text(root.querySelector('[data-testid=buyers-detail]'))
    expect(detail).toContain('In 0 reviews of yours and 12 of theirs')
    expect(detail).toContain('In the same sentenceseasy')
  })

  test('P picks the phrase with what it was said by, and says what it is searched for', async () => {
    const { hands } = put([phrase('clear acrylic', -4, { isTrueOfMine: true, volume: 320 })])
    await screen.findByText('They wrote clear acrylic.')
    await hands.keyboard('p')
    await screen.findByText('Picked “clear acrylic”: 320 searches/mo')
    expect(bodies('/picks')[0]).toMatchObject({ texts: ['clear acrylic'], source: 'What buyers say', saidBy: ['12 reviews of rivals'] })
  })

  test('what is a pick already is not picked twice', async () => {
    const { hands } = put([phrase('clear acrylic', -4, { pick: 'clear acrylic' })])
    await screen.findByText('They wrote clear acrylic.')
    await hands.keyboard('p')
    await screen.findByText('“clear acrylic” is a pick already')
    expect(bodies('/picks')).toEqual([])
  })
})

test('a value that the facts deny is not filled, and says why', async () => {
  answers = {
    '/top': () => ({
      term: 'bird feeder',
      found: 900,
      looked: 100,
      described: 100,
      seen: null,
      words: [],
      attributes: [
        {
          name: 'Colour',
          field: 'attributes',
          share: 0.9,
          mine: [],
          isOpen: true,
          values: [
            { text: 'green', held: 17, share: 0.17, byFacts: 'denies', differences: [], value: null },
            { text: 'clear', held: 26, share: 0.26, byFacts: 'says', differences: [], value: { Colour: 'clear' } },
          ],
        },
      ],
    }),
  }
  const { hands, root } = show(
    <>
      <TopListings {...frame} />
      <ToastLine />
    </>,
  )
  await waitFor(() => expect(text(root.querySelector('[data-testid=top-detail]'))).toContain('Colour: green'))
  await hands.keyboard('{Enter}')
  await screen.findByRole('status')
  expect(text(screen.getByRole('status'))).toContain('“green” isn’t in this product’s facts')
  expect(replaced).toEqual([])
  await hands.keyboard('{ArrowDown}{Enter}')
  expect(replaced).toEqual([['attributes', { Colour: 'clear' }, 'Filled Colour: clear', 'attribute']])
})

test('a move says which findings it would bring, and none that are there already or were dismissed', async () => {
  const finding = (id: string, level: string, more: object = {}) => ({
    key: `${id} ${level}`,
    id,
    level,
    field: 'title',
    why: `${id}.`,
    aside: false,
    ...more,
  })
  answers = {
    '/check': (a) => ({
      findings:
        (a.body as { fields: { title: string } }).fields.title === 'Feeder'
          ? [finding('short', 'should')]
          : [
              finding('short', 'should'),
              finding('over-limit', 'must'),
              finding('stuffed', 'should'),
              finding('caps', 'should', { aside: true }),
              finding('good', 'fine'),
            ],
    }),
  }
  const move = { kind: 'front', field: 'title', text: 'x', value: 'FEEDER FEEDER' } as unknown as Move
  const { root } = show(<NewFindings desk={desk} copy={{ title: 'Feeder' }} move={move} />)
  await screen.findByText(/over-limit/)
  expect([...root.querySelectorAll('[data-testid=new-finding]')].map(text)).toEqual([
    'Required afterwards: over-limit.',
    'Recommended afterwards: stuffed.',
  ])
})

describe('one edit of many listings', () => {
  const line = (id: number) => ({ id, product: `Product ${id}` }) as unknown as ListingLine
  const change = (key: string, more: object = {}) => ({
    key,
    listingId: Number(key.split('/')[0]),
    product: 'Box',
    platform: 'The fair',
    field: 'Title',
    before: 'white box',
    after: 'grey box',
    grip: -1.25,
    over: null,
    revision: 4,
    ...more,
  })

  const put = (changes: object[]) => {
    answers = {
      '/edit/preview': () => ({ listings: 1, changes }),
      '/listings/edit': () => ({ what: 'Changed 1 listing', id: 9, skipped: 1 }),
    }
    let closed = false
    const shown = show(
      <>
        <EditMany
          kind="replace"
          listings={[line(1), line(2)]}
          country="us"
          close={() => {
            closed = true
          }}
          change={() => undefined}
        />
        <ToastLine />
      </>,
    )
    return { ...shown, isClosed: () => closed }
  }

  test('every change shows first; what would not fit is left out; what another window changed is told', async () => {
    const { hands, root, isClosed } = put([change('1/title'), change('2/title', { over: 'Title is 3 characters too long' })])
    await hands.keyboard('white')
    await screen.findByText(/Title is 3 characters too long/)
    expect(text(root)).toContain('−1.3')
    await hands.keyboard('{Enter}')
    await screen.findByText(/Changed 1 listing\. 1 listing changed in another window/)
    expect(isClosed()).toBe(true)
    expect(bodies('/listings/edit')).toEqual([
      {
        edit: {
          ids: [1, 2],
          kind: 'replace',
          find: 'white',
          replacement: '',
          matchesCase: false,
          wholeWords: true,
          roles: [],
          country: 'us',
        },
        keys: ['1/title'],
        revisions: { '1': 4 },
      },
    ])
  })

  test('nothing is asked for an empty text, and nothing changed where nothing is found', async () => {
    const { hands, root } = put([])
    await hands.keyboard('   ')
    expect(asked).toEqual([])
    await hands.keyboard('owl')
    await screen.findByText('None of them has “owl”.')
    await hands.keyboard('{Enter}')
    expect(bodies('/listings/edit')).toEqual([])
    expect(text(root)).toContain('in 2 listings')
  })
})

describe('all listings', () => {
  const Probe = () => {
    const { rows, progress } = useListings('us')
    return (
      <p>
        {rows.map((r) => `${r.id}:${r.score?.grip ?? '?'}${r.isFresh ? '' : '~'}`).join(' ')}{' '}
        {progress ? `${progress.done}/${progress.all}` : 'done'}
      </p>
    )
  }
  const row = (id: number, more: object = {}) => ({ id, marketId: 'fair-us', archivedAt: null, score: null, isFresh: false, ...more })
  const scored = (id: number, grip: number) => ({ id, grip })

  test('what is known shows at once, and what is not comes in line by line', async () => {
    answers = {
      '/api/listings': () => ({
        country: 'us',
        countries: {},
        listings: [row(1), row(2, { score: scored(2, 5) }), row(3, { score: scored(3, 7), isFresh: true })],
      }),
      '/scores': () =>
        new Response(
          [
            { done: 0, all: 2, score: null },
            { done: 1, all: 2, score: scored(1, 40) },
            { done: 2, all: 2, score: scored(2, 50) },
          ]
            .map((l) => `${JSON.stringify(l)}\n`)
            .join(''),
        ),
    }
    const { root } = show(<Probe />)
    await waitFor(() => expect(text(root)).toBe('1:40 2:50 3:7 done'))
    expect(bodies('/scores')).toEqual([{ country: 'us' }])
  })

  test('nothing is weighed where everything is fresh, archived or without a market', async () => {
    answers = {
      '/api/listings': () => ({
        country: 'us',
        countries: {},
        listings: [row(1, { isFresh: true }), row(2, { archivedAt: '2026-11-01T00:00:00Z' }), row(3, { marketId: null })],
      }),
    }
    const { root } = show(<Probe />)
    await waitFor(() => expect(text(root)).toContain('1:?'))
    expect(asked.map((a) => a.url)).toEqual(['/api/listings'])
  })
})
