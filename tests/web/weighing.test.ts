import { QueryClient } from '@tanstack/react-query'
import { beforeEach, describe, expect, test } from 'vitest'
import { ask, opened, type Pick, type Weighed } from '../../src/web/src/kit/api'
import { type Desk, marketFor } from '../../src/web/src/kit/shop'
import { lines } from '../../src/web/src/kit/stream'
import { inTurn } from '../../src/web/src/kit/turn'
import { weigh, weighKey } from '../../src/web/src/kit/weighing'
import { json, serve } from './server'

const desk = { product: { id: 1, name: 'Box', listings: {} }, market: { id: 'fair-us' }, listingId: 7, base: '' } as unknown as Desk

const term = (key: string, more: object = {}) => ({ key, grade: 'missing', grip: 0, ...more }) as Weighed['terms'][number]

const weighed = (id: string, since: string | null, terms: Weighed['terms']) =>
  ({ id, since, terms, fields: ['title', 'tags'] }) as unknown as Weighed

const pick = (key: string, more: object = {}) =>
  ({ key, text: key.toUpperCase(), fit: 'core', numbers: { volume: 10, headroom: 40 }, demand: 10, worth: 7, ...more }) as unknown as Pick

describe('the next weighing says only what changed', () => {
  let asked: { fields: unknown; since: string | null }[]
  let answers: Weighed[]

  beforeEach(() => {
    asked = []
    serve((question) => {
      asked.push(question.body as (typeof asked)[number])
      return json(answers.shift())
    })
  })

  test('what is not said again is the very same object, in its place', async () => {
    const cache = new QueryClient({ defaultOptions: { queries: { structuralSharing: false } } })
    answers = [
      weighed('1', null, [term('a'), term('b'), term('c')]),
      weighed('2', '1', [term('b', { grade: 'whole', grip: 0.8 })]),
      weighed('3', '2', []),
    ]
    const first = await weigh(cache, desk, { title: '' })
    cache.setQueryData(weighKey(desk), first)
    const second = await weigh(cache, desk, { title: 'b' })
    cache.setQueryData(weighKey(desk), second)
    const third = await weigh(cache, desk, { title: 'b ' })
    expect(asked.map((a) => a.since)).toEqual([null, '1', '2'])
    expect(second.terms.map((t) => [t.key, t.grade])).toEqual([
      ['a', 'missing'],
      ['b', 'whole'],
      ['c', 'missing'],
    ])
    expect([second.terms[0], second.terms[2]]).toEqual([first.terms[0], first.terms[2]])
    expect(second.terms[0]).toBe(first.terms[0])
    expect(third.terms).toBe(second.terms)
  })

  test('an answer to another question is taken as it is', async () => {
    const cache = new QueryClient({ defaultOptions: { queries: { structuralSharing: false } } })
    cache.setQueryData(weighKey(desk), weighed('1', null, [term('a'), term('b')]))
    answers = [weighed('5', null, [term('a'), term('z')])]
    expect((await weigh(cache, desk, null)).terms.map((t) => t.key)).toEqual(['a', 'z'])
  })
})

describe('what is held, beside the pick itself', () => {
  test('nothing said means nothing held, by every field', () => {
    const [a] = opened(weighed('1', null, [term('a')]), [pick('a')]).terms
    expect(a).toMatchObject({
      text: 'A',
      volume: 10,
      grades: ['missing', 'missing'],
      strengths: [0, 0],
      missing: [],
      spans: [],
      apart: false,
    })
  })

  test('a term whose pick is gone is left out', () =>
    expect(opened(weighed('1', null, [term('a'), term('b')]), [pick('b')]).terms.map((t) => t.key)).toEqual(['b']))

  test('the same saying of the same pick is the same object; a pick with other numbers is another', () => {
    const [said, picks] = [term('a'), [pick('a')]]
    const first = opened(weighed('1', null, [said]), picks).terms[0]
    expect(opened(weighed('2', null, [said]), picks).terms[0]).toBe(first)
    const other = opened(weighed('2', null, [said]), [pick('a', { numbers: { volume: 99, headroom: null } })]).terms[0]
    expect([other.volume, other.headroom]).toEqual([99, null])
  })
})

describe('answers', () => {
  const call = (response: Response, body: object) => Promise.resolve({ response, ...body })

  test('a problem becomes an error in its own words', async () => {
    await expect(ask(call(new Response(null, { status: 400 }), { error: { title: 'Bad', detail: 'Row 3 has no term.' } }))).rejects.toThrow(
      'Row 3 has no term.',
    )
    await expect(ask(call(new Response(null, { status: 404 }), { error: { title: 'Not found' } }))).rejects.toThrow('Not found')
    await expect(ask(call(new Response(null, { status: 500 }), { error: undefined }))).rejects.toThrow('The server answered 500.')
    await expect(ask(call(new Response(null, { status: 200 }), { data: { a: 1 } }))).resolves.toEqual({ a: 1 })
  })

  test('lines come one by one, wherever the network cuts them', async () => {
    const bytes = new TextEncoder().encode('{"n":1}\n{"n":"pájaro"}\n\n{"n":3}\n')
    for (const size of [1, 2, 3, 7, 100]) {
      serve(() => {
        const body = new ReadableStream({
          start(to) {
            for (let at = 0; at < bytes.length; at += size) to.enqueue(bytes.slice(at, at + size))
            to.close()
          },
        })
        return new Response(body)
      })
      const got: unknown[] = []
      for await (const line of lines<unknown>('/x', {}, new AbortController().signal)) got.push(line)
      expect(got).toEqual([{ n: 1 }, { n: 'pájaro' }, { n: 3 }])
    }
  })

  test('a stream that is refused says why', async () => {
    serve(() => json({ detail: 'That market is unknown.' }, 404))
    await expect(lines('/x', {}, new AbortController().signal).next()).rejects.toThrow('That market is unknown.')
    serve(() => new Response('oops', { status: 502 }))
    await expect(lines('/x', {}, new AbortController().signal).next()).rejects.toThrow('The server answered 502.')
  })
})

describe('changes', () => {
  test('they reach the server in the order they were made, also after one that failed', async () => {
    const done: string[] = []
    const slow = inTurn(() => new Promise((r) => setTimeout(() => r(done.push('slow')), 20)))
    const wrong = inTurn(async () => {
      done.push('wrong')
      throw new Error('no')
    })
    const quick = inTurn(async () => done.push('quick'))
    await expect(wrong).rejects.toThrow('no')
    await Promise.all([slow, quick])
    expect(done).toEqual(['slow', 'wrong', 'quick'])
  })
})

describe('the market to go to for a product', () => {
  const market = (id: string, platformId: string, country: string) =>
    ({ id, platformId, country }) as Parameters<typeof marketFor>[1][number]
  const all = [market('a-us', 'a', 'us'), market('a-uk', 'a', 'uk'), market('b-us', 'b', 'us'), market('b-uk', 'b', 'uk')]
  const product = (...platforms: string[]) =>
    ({ listings: Object.fromEntries(platforms.map((p, i) => [p, i + 1])) }) as unknown as Desk['product']

  test.each([
    [['a', 'b'], 'b-uk', 'b-uk'],
    [['b'], 'a-uk', 'b-uk'],
    [['b'], undefined, 'b-us'],
    [[], 'b-uk', 'a-us'],
  ])('a product on %s, coming from %s, goes to %s', (platforms, now, to) =>
    expect(
      marketFor(
        product(...platforms),
        all,
        all.find((m) => m.id === now),
      ).id,
    ).toBe(to),
  )
})
