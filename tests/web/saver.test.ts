import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { json, serve } from './server'
import { Saver, type SaveState, saverOf, settled, type Theirs } from '../../src/web/src/write/saver'

type Sent = { url: string; method: string; body: { fields: unknown; revision: number; keep: string | null } }

// The server as the saver sees it: each answer is made by hand.
let sent: Sent[]
let answer: (request: Sent) => Promise<Response> | Response

const accepts = (request: Sent) => json({ revision: request.body.revision + 1 })

beforeEach(() => {
  vi.useFakeTimers()
  sent = []
  answer = accepts
  serve((asked) => {
    sent.push(asked as Sent)
    return answer(asked as Sent)
  })
})

afterEach(() => {
  vi.useRealTimers()
})

const titles = () => sent.map((s) => (s.body.fields as { title: string }).title)

function made(revision = 3) {
  const saver = new Saver(7, revision)
  const states: SaveState['state'][] = []
  const conflicts: Theirs[] = []
  saver.onState = (s) => states.push(s.state)
  saver.onConflict = (c) => conflicts.push(c)
  return { saver, states, conflicts }
}

describe('saving as one writes', () => {
  test('what is typed in one go is sent once, after a pause, with the revision it was made from', async () => {
    const { saver, states } = made()
    saver.change({ title: 'B' })
    saver.change({ title: 'Bo' })
    saver.change({ title: 'Box' })
    expect(sent).toEqual([])
    await vi.advanceTimersByTimeAsync(300)
    expect(sent).toEqual([{ url: '/api/listings/7/copy', method: 'PUT', body: { fields: { title: 'Box' }, revision: 3, keep: null } }])
    expect(saver.revision).toBe(4)
    expect(states).toEqual(['waiting', 'waiting', 'waiting', 'saving', 'saved'])
  })

  test('a state that is to be kept is not merged with what came before', async () => {
    const { saver } = made()
    saver.change({ title: 'A' })
    saver.change({ title: 'B' }, 'before a fill')
    saver.change({ title: 'C' })
    await saver.flush()
    expect(sent.map((s) => [(s.body.fields as { title: string }).title, s.body.keep, s.body.revision])).toEqual([
      ['A', null, 3],
      ['C', 'before a fill', 4],
    ])
  })

  test('what is typed while one save is on its way is saved after it, and nothing at the same time', async () => {
    const { saver } = made()
    let finish = () => {}
    answer = (r) => new Promise((done) => (finish = () => done(accepts(r))))
    saver.change({ title: 'A' })
    await vi.advanceTimersByTimeAsync(300)
    saver.change({ title: 'AB' })
    await vi.advanceTimersByTimeAsync(300)
    expect(titles()).toEqual(['A'])
    answer = accepts
    finish()
    await vi.advanceTimersByTimeAsync(300)
    expect(titles()).toEqual(['A', 'AB'])
    expect(sent.map((s) => s.body.revision)).toEqual([3, 4])
  })

  test('a flush is done only when everything is on disk', async () => {
    const { saver } = made()
    saver.change({ title: 'A' })
    saver.change({ title: 'B' }, 'before a fix')
    const flushed = saver.flush()
    await flushed
    expect(titles()).toEqual(['A', 'B'])
    await saver.flush()
    expect(sent).toHaveLength(2)
  })
})

describe('when the server does not take it', () => {
  test('a save that failed is tried again, and says so meanwhile', async () => {
    const { saver, states } = made()
    answer = () => Promise.reject(new TypeError('Failed to fetch'))
    saver.change({ title: 'A' })
    await vi.advanceTimersByTimeAsync(300)
    expect(states.at(-1)).toBe('failed')
    answer = accepts
    await vi.advanceTimersByTimeAsync(2100)
    expect(titles()).toEqual(['A', 'A'])
    expect(states.at(-1)).toBe('saved')
  })

  test('what the server says is wrong is handed on in its words', async () => {
    const { saver } = made()
    let said = ''
    saver.onState = (s) => (said = s.message ?? said)
    answer = () => json({ detail: 'There is no field “titel”.' }, 400)
    saver.change({ title: 'A' })
    await vi.advanceTimersByTimeAsync(300)
    expect(said).toContain('There is no field “titel”.')
  })

  test('another window’s text is told and never written over', async () => {
    const { saver, conflicts, states } = made()
    answer = () => json({ copy: { title: 'Theirs' }, revision: 9, savedAt: '2026-01-01' }, 409)
    saver.change({ title: 'Mine' })
    await vi.advanceTimersByTimeAsync(300)
    expect(conflicts).toEqual([{ copy: { title: 'Theirs' }, revision: 9, savedAt: '2026-01-01' }])
    expect(states.at(-1)).toBe('failed')
    answer = accepts
    await vi.advanceTimersByTimeAsync(5000)
    expect(titles()).toEqual(['Mine'])
    // Keeping what is here goes on from their revision.
    saver.revision = 9
    saver.change({ title: 'Mine' })
    await vi.advanceTimersByTimeAsync(300)
    expect(sent.at(-1)?.body.revision).toBe(9)
  })

  test('taking theirs forgets what was not saved', async () => {
    const { saver, states } = made()
    saver.change({ title: 'Mine' })
    saver.take(12)
    await vi.advanceTimersByTimeAsync(1000)
    expect(sent).toEqual([])
    expect([saver.revision, states.at(-1)]).toEqual([12, 'saved'])
  })
})

test('a listing has one saver, which goes on from the newest revision it has seen', async () => {
  const saver = saverOf(41, 2)
  expect(saverOf(41, 5)).toBe(saver)
  expect(saver.revision).toBe(5)
  expect(saverOf(41, 1).revision).toBe(5)
  saver.change({ title: 'A' })
  await settled(41)
  expect(titles()).toEqual(['A'])
  await expect(settled(999)).resolves.toBeUndefined()
})
