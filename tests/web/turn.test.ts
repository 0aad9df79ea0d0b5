import { expect, test } from 'vitest'
import { inBackground } from '../../src/web/src/kit/turn'

test('questions in the background are asked two at a time, in their order, and one that fails gives its place on', async () => {
  const begun: number[] = []
  const ends: (() => void)[] = []
  const all = [0, 1, 2, 3].map((n) =>
    inBackground(
      () =>
        new Promise<number>((done, fail) => {
          begun.push(n)
          ends[n] = () => (n === 1 ? fail(new Error('refused')) : done(n))
        }),
    ),
  )
  const settled = Promise.allSettled(all)
  const soon = () => new Promise((r) => setTimeout(r))
  await soon()
  expect(begun).toEqual([0, 1])
  ends[1]()
  await soon()
  expect(begun).toEqual([0, 1, 2])
  ends[0]()
  await soon()
  expect(begun).toEqual([0, 1, 2, 3])
  ends[2]()
  ends[3]()
  expect((await settled).map((s) => s.status)).toEqual(['fulfilled', 'rejected', 'fulfilled', 'fulfilled'])
  expect(await inBackground(async () => 'free again')).toBe('free again')
})
