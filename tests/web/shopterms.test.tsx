import { screen, waitFor } from '@testing-library/react'
import { beforeEach, describe, expect, test } from 'vitest'
import type { ListingLine, TermView } from '../../src/web/src/kit/api'
import { useNextSteps } from '../../src/web/src/kit/listings'
import { ResultCards } from '../../src/web/src/kit/results'
import type { Desk } from '../../src/web/src/kit/shop'
import { OwnTerms } from '../../src/web/src/watch/ownterms'
import { show, text } from './screen'
import { type Asked, json, serve } from './server'

const market = {
  id: 'fair-us',
  platformId: 'fair',
  platformName: 'The fair',
  countryName: 'United States',
  simulated: false,
  currency: 'USD',
}
const desk = { product: { id: 1, name: 'Feeder', listings: {} }, market, listingId: 7, base: '/1/fair-us' } as unknown as Desk

let asked: Asked[] = []
let answers: Record<string, (a: Asked) => unknown> = {}
const bodies = (end: string) => asked.filter((a) => a.url.endsWith(end) && a.body).map((a) => a.body)

beforeEach(() => {
  asked = []
  answers = {}
  serve((a) => {
    asked.push(a)
    const found = Object.keys(answers).find((end) => a.url.endsWith(end))
    return found ? json(answers[found](a)) : new Response(null, { status: 404 })
  })
})

describe('results as cards', () => {
  type Result = NonNullable<TermView['seen']>['first'][number]
  const result = (id: string | null, title: string, more: Partial<Result> = {}) =>
    ({
      id,
      title,
      shop: 'Fen',
      price: 12.5,
      shipping: 0,
      rating: 4.5,
      ratings: 30,
      photos: 3,
      isAd: false,
      alt: null,
      picture: null,
      ...more,
    }) as Result

  test('Y and N judge one each and go on; what is judged already is taken back by the same key', async () => {
    const judged: Record<string, boolean> = {}
    answers['/likeness'] = (a) => {
      if (a.method === 'GET')
        return Object.keys(judged).length === 0 ? [] : [{ key: 'owl box', judged, like: Object.values(judged).filter(Boolean).length }]
      const { result, isLike } = a.body as { result: string; isLike: boolean | null }
      if (isLike === null) delete judged[result]
      else judged[result] = isLike
      return { what: 'Judged', id: 1 }
    }
    const { root, hands } = show(
      <ResultCards desk={desk} term="Owl box" results={[result('a', 'Oak owl box'), result(null, 'Owl print')]} />,
    )
    await waitFor(() => expect(asked.length).toBeGreaterThan(0))
    expect(text(root)).toContain('Is this what shoppers of yours look for?')
    root.querySelector('li')?.focus()
    await hands.keyboard('y')
    await screen.findByText('100% like yours')
    expect(document.activeElement?.textContent).toContain('Owl print')
    await hands.keyboard('n')
    await screen.findByText('50% like yours')
    root.querySelector('li')?.focus()
    await hands.keyboard('y')
    await screen.findByText('0% like yours')
    // A result without a name of its own is known by its title.
    expect(bodies('/likeness')).toEqual([
      { marketId: 'fair-us', term: 'Owl box', result: 'a', isLike: true },
      { marketId: 'fair-us', term: 'Owl box', result: 'Owl print', isLike: false },
      { marketId: 'fair-us', term: 'Owl box', result: 'a', isLike: null },
    ])
  })

  test('a card says what is known, and draws nothing where no picture is', () => {
    answers['/likeness'] = () => []
    const { root } = show(
      <ResultCards
        desk={desk}
        term="Owl box"
        results={[result('a', 'Oak owl box', { isAd: true, alt: 'An owl looks out' }), result('b', 'Owl', { price: null, rating: null })]}
      />,
    )
    const cards = [...root.querySelectorAll('li')].map(text)
    expect(cards[0]).toContain('$12.50ad')
    expect(cards[0]).toContain('free shipping · 4.5★ 30 · 3 photos')
    expect(cards[0]).toContain('Alt text: An owl looks out')
    expect(cards[1]).toContain('price unknown')
    expect(root.querySelectorAll('img')).toHaveLength(0)
  })
})

describe('own terms', () => {
  const term = (key: string, more: object = {}) => ({
    key,
    text: key,
    volume: 100,
    picked: 1,
    held: 1,
    leads: 0,
    checked: 0,
    found: 0,
    bestRank: null,
    ...more,
  })
  const known: [readonly unknown[], unknown][] = [
    [['shop'], { products: [{ id: 1, listings: { fair: 7 } }], markets: [market, { ...market, id: 'other', platformId: 'none' }] }],
  ]

  test('repeated terms are told, and who competes for one', async () => {
    answers['/ownterms'] = () => ({
      listings: 3,
      terms: [term('owl box', { picked: 2, checked: 2, found: 2, bestRank: 4 }), term('bat box')],
    })
    answers['/ownterms/listings'] = () => ({
      text: 'owl box',
      key: 'owl box',
      listings: [
        {
          listingId: 7,
          productId: 1,
          product: 'Oak box',
          home: 'title',
          isLead: true,
          holds: 'whole',
          fields: ['Title'],
          found: true,
          rank: 4,
        },
        { listingId: 8, productId: 2, product: 'Pine box', home: null, isLead: true, holds: 'spread', fields: [], found: true, rank: null },
      ].map((u) => ({ ...u, checkedOn: '2026-11-26' })),
    })
    const { root } = show(<OwnTerms head={null} />, known, '/watch?view=terms')
    await screen.findByText('2 terms of 3 listings, 1 in more than one')
    await screen.findByText(/2 listings compete in its results\./)
    expect(text(root)).toContain('It is the lead of 2 listings: give each a lead of its own.')
    const [oak, pine] = [...root.querySelectorAll('[data-testid=across] li')].map(text)
    expect(oak).toContain('rank 4')
    expect(oak).toContain('Title; pick, home title')
    expect(pine).toContain('over several fields')
  })

  test('a shop without a pick is told so, and where no listing has anything to do with a term', async () => {
    answers['/ownterms'] = () => ({ listings: 1, terms: [] })
    answers['/ownterms/listings'] = () => ({ text: 'owl', key: 'owl', listings: [] })
    const { root } = show(<OwnTerms head={null} />, known, '/watch?view=terms&term=owl')
    await screen.findByText(/No picks yet/)
    await screen.findByText('None of your listings there picks it or holds it.')
    expect(text(root)).toContain('0 terms of 1 listing, 0 in more than one')
  })
})

describe('what comes next, in the list', () => {
  const line = (id: number, more: object = {}) => ({ id, marketId: 'fair-us', archivedAt: null, ...more }) as ListingLine
  const Probe = ({ lines }: { lines: ListingLine[] }) => (
    <p>{[...useNextSteps(lines)].map(([id, step]) => `${id}:${step?.text ?? 'nothing'}`).join(' ')}</p>
  )

  test('each listing in sight is asked about once, and none that is archived or has no market', async () => {
    answers['/listings/1/next'] = () => ({ steps: [{ text: 'Publish it' }], putOff: 0 })
    answers['/listings/2/next'] = () => ({ steps: [], putOff: 1 })
    const lines = [line(1), line(2), line(3, { archivedAt: '2026-11-26' }), line(4, { marketId: null })]
    const { root, again } = show(<Probe lines={lines} />)
    await waitFor(() => expect(text(root)).toBe('1:Publish it 2:nothing'))
    again(<Probe lines={[...lines]} />)
    expect(asked.map((a) => a.url)).toEqual(['/api/listings/1/next', '/api/listings/2/next'])
  })
})
