import { expect, test } from 'vitest'
import { difference } from '../../src/web/src/kit/difference'

test.each([
  ['Garden gift, wren box', 'Birdhouse, garden gift, wren box', '', 'Garden ', 'Birdhouse, garden ', 'gift, wren box'],
  ['a b', 'a c b', 'a ', '', 'c ', 'b'],
  ['', 'wren box', '', '', 'wren box', ''],
  ['a a', 'a', '', 'a ', '', 'a'],
  ['same', 'same', 'same', '', '', ''],
])('%j becomes %j', (before, after, start, gone, come, end) => {
  expect(difference(before, after)).toEqual({ start, gone, come, end })
  expect([start + gone + end, start + come + end]).toEqual([before, after])
})
