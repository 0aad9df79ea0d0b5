import { IDBFactory } from 'fake-indexeddb'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import type { Facts, Site } from '../../src/web/src/kit/api'
import type * as Drafts from '../../src/web/src/kit/drafts/drafts'
import { json, serve } from './server'

type Sent = { url: string; method: string; body: { fields: { title: string }; revision: number; keep: string | null } }

// The server as a draft sees it: each answer is made by hand.
let sent: Sent[]
let answer: (request: Sent) => Promise<Response> | Response

const accepts = (request: Sent) => json({ revision: request.body.revision + 1, savedAt: '2026-01-01' })
const lost = () => Promise.reject(new TypeError('Failed to fetch'))

/** The module as a window that was just opened has it: only the browser's database goes on from before. */
async function opened(): Promise<typeof Drafts & { stored: () => Promise<void> }> {
  vi.resetModules()
  const drafts = await import('../../src/web/src/kit/drafts/drafts')
  await drafts.restoreDrafts()
  const { stored } = await import('../../src/web/src/kit/drafts/browserstore')
  return { ...drafts, stored }
}

beforeEach(async () => {
  sent = []
  answer = accepts
  serve((asked) => {
    sent.push(asked as Sent)
    return answer(asked as Sent)
  })
  sessionStorage.clear()
  globalThis.indexedDB = new IDBFactory()
})

afterEach(() => vi.useRealTimers())

const titles = () => sent.map((s) => s.body.fields.title)
const after = (ms: number) => new Promise((done) => setTimeout(done, ms))

describe('saving as one writes', () => {
  test('what is typed in one go is sent once, after a pause, with the revision it was made from', async () => {
    const { listingDraft } = await opened()
    const draft = listingDraft(7, {}, 3)
    for (const title of ['B', 'Bo', 'Box']) draft.change({ title })
    expect(sent).toEqual([])
    expect(draft.snapshot().state).toBe('waiting')
    await after(320)
    expect(sent).toEqual([{ url: '/api/listings/7/copy', method: 'PUT', body: { fields: { title: 'Box' }, revision: 3, keep: null } }])
    expect(draft.snapshot()).toMatchObject({ state: 'saved', revision: 4, value: { title: 'Box' } })
  })

  test('a state that is to be kept is not merged with what came before', async () => {
    const { listingDraft } = await opened()
    const draft = listingDraft(7, {}, 3)
    draft.change({ title: 'A' })
    draft.change({ title: 'B' }, 'fill')
    draft.change({ title: 'C' })
    await draft.flush()
    expect(sent.map((s) => [s.body.fields.title, s.body.keep, s.body.revision])).toEqual([
      ['A', null, 3],
      ['C', 'fill', 4],
    ])
  })

  test('what is typed while one save is on its way is sent after it, never at the same time', async () => {
    const { listingDraft } = await opened()
    const draft = listingDraft(7, {}, 3)
    let finish = () => {}
    answer = (r) => new Promise((done) => (finish = () => done(accepts(r))))
    draft.change({ title: 'A' })
    const first = draft.flush()
    await after(10)
    draft.change({ title: 'AB' })
    await after(300)
    expect(titles()).toEqual(['A'])
    answer = accepts
    finish()
    await first
    await draft.flush()
    expect(sent.map((s) => [s.body.fields.title, s.body.revision])).toEqual([
      ['A', 3],
      ['AB', 4],
    ])
  })
})

describe('when the server does not answer', () => {
  test('a text whose answer was lost is sent again as it was, and what was typed since after it', async () => {
    const { listingDraft } = await opened()
    const draft = listingDraft(7, {}, 3)
    answer = lost
    draft.change({ title: 'A' })
    await draft.flush()
    expect(draft.snapshot()).toMatchObject({ state: 'failed', message: 'The server cannot be reached.' })
    draft.change({ title: 'AB' })
    answer = accepts
    await draft.flush()
    expect(sent.map((s) => [s.body.fields.title, s.body.revision])).toEqual([
      ['A', 3],
      ['A', 3],
      ['AB', 4],
    ])
    expect(draft.snapshot().state).toBe('saved')
  })

  test('the server’s older text never takes the place of what waits, and its newer revision is not taken for ours', async () => {
    const { listingDraft } = await opened()
    answer = lost
    const draft = listingDraft(7, { title: 'old' }, 3)
    draft.change({ title: 'mine' })
    await draft.flush()
    // The screen is left and opened again; meanwhile another window saved revision 9.
    expect(listingDraft(7, { title: 'theirs' }, 9)).toBe(draft)
    expect(draft.snapshot()).toMatchObject({ state: 'failed', revision: 3, value: { title: 'mine' } })
    answer = accepts
    await draft.flush()
    expect(sent.at(-1)?.body.revision).toBe(3)
  })

  test('what the server finds wrong is said in its words, is kept, and is not sent again until it changes', async () => {
    const { listingDraft } = await opened()
    const draft = listingDraft(7, {}, 3)
    answer = () => json({ detail: 'There is no field “titel”.' }, 400)
    draft.change({ title: 'A' })
    await draft.flush()
    expect(draft.snapshot()).toMatchObject({ state: 'refused', message: 'There is no field “titel”.', value: { title: 'A' } })
    await after(1300)
    expect(sent).toHaveLength(1)
    answer = accepts
    draft.change({ title: 'B' })
    await draft.flush()
    expect(titles()).toEqual(['A', 'B'])
  })

  test('a text over 64 KiB is sent without the browser’s limit for pages that are left', async () => {
    const { listingDraft } = await opened()
    const kept: boolean[] = []
    serve((asked, request) => {
      kept.push(request.keepalive)
      return accepts(asked as Sent)
    })
    const draft = listingDraft(7, {}, 3)
    draft.change({ title: 'ж'.repeat(60_000) })
    await draft.flush(true)
    draft.change({ title: 'short' })
    await draft.flush(true)
    expect(kept).toEqual([false, true])
    expect(draft.snapshot().state).toBe('saved')
  })
})

describe('two windows', () => {
  const theirs = () => json({ copy: { title: 'Theirs' }, revision: 9, savedAt: '2026-01-01' }, 409)

  test('another window’s text is kept beside this one’s for as long as nobody chose, whichever screen is open', async () => {
    const { listingDraft, stuckDrafts } = await opened()
    const draft = listingDraft(7, {}, 3)
    answer = theirs
    draft.change({ title: 'Mine' })
    await draft.flush()
    draft.change({ title: 'Mine too' })
    await after(320)
    expect(sent).toHaveLength(1)
    const again = listingDraft(7, { title: 'Theirs' }, 9)
    expect(again.snapshot()).toMatchObject({
      state: 'conflict',
      value: { title: 'Mine too' },
      theirs: { value: { title: 'Theirs' }, revision: 9 },
    })
    expect(stuckDrafts.snapshot()).toEqual([draft])
    answer = accepts
    await draft.keepMine()
    expect(sent.at(-1)?.body).toMatchObject({ fields: { title: 'Mine too' }, revision: 9 })
    expect(stuckDrafts.snapshot()).toEqual([])
  })

  test('taking theirs goes on from their revision', async () => {
    const { listingDraft } = await opened()
    const draft = listingDraft(7, {}, 3)
    answer = theirs
    draft.change({ title: 'Mine' })
    await draft.flush()
    draft.takeTheirs()
    expect(draft.snapshot()).toMatchObject({ state: 'saved', revision: 9, value: { title: 'Theirs' }, theirs: null })
    await after(320)
    expect(sent).toHaveLength(1)
  })
})

describe('after a reload or a closed window', () => {
  test('what was not saved is there again, says so, and is sent from the revision it was made from', async () => {
    let drafts = await opened()
    answer = lost
    const draft = drafts.listingDraft(7, { title: 'old' }, 3)
    draft.change({ title: 'typed' })
    await draft.flush()
    await drafts.stored()
    sessionStorage.clear() // the window was closed
    let release = () => {}
    answer = (r) => new Promise((done) => (release = () => done(accepts(r))))
    sent = []
    drafts = await opened()
    const found = drafts.listingDraft(7, { title: 'old' }, 3)
    expect(found.snapshot()).toMatchObject({ restored: true, value: { title: 'typed' }, revision: 3 })
    await after(20)
    release()
    await found.flush()
    expect(sent.map((s) => [s.body.fields.title, s.body.revision])).toEqual([['typed', 3]])
    expect(found.snapshot()).toMatchObject({ restored: false, state: 'saved' })
    await drafts.stored()
    expect((await opened()).listingDraft(7, { title: 'typed' }, 4).snapshot().restored).toBe(false)
  })

  test('a conflict is there again too', async () => {
    let drafts = await opened()
    answer = () => json({ copy: { title: 'Theirs' }, revision: 9, savedAt: '2026-01-01' }, 409)
    const draft = drafts.listingDraft(7, {}, 3)
    draft.change({ title: 'Mine' })
    await draft.flush()
    await drafts.stored()
    drafts = await opened()
    expect(drafts.listingDraft(7, { title: 'Theirs' }, 9).snapshot()).toMatchObject({ state: 'conflict', value: { title: 'Mine' } })
  })

  test('what is saved leaves nothing behind', async () => {
    let drafts = await opened()
    const draft = drafts.picturesDraft(2, [], 0)
    answer = () => json({ picturesRevision: 1 })
    draft.change(['A cedar box'])
    await draft.flush()
    await drafts.stored()
    drafts = await opened()
    expect(drafts.picturesDraft(2, ['A cedar box'], 1).unsaved).toBe(false)
  })
})

test('a listing has one draft', async () => {
  const { listingDraft } = await opened()
  const draft = listingDraft(41, {}, 2)
  expect(listingDraft(41, { title: 'B' }, 5)).toBe(draft)
  expect(draft.snapshot()).toMatchObject({ revision: 5, value: { title: 'B' } })
  listingDraft(41, { title: 'stale' }, 1)
  expect(draft.snapshot()).toMatchObject({ revision: 5, value: { title: 'B' } })
  draft.change({ title: 'A' })
  await draft.flush()
  expect(titles()).toEqual(['A'])
})

describe('what is sent only when the seller is done with it', () => {
  const facts = { what: 'box', materials: ['cedar'], colours: [], sizes: [], audiences: [], occasions: [], others: [] } as unknown as Facts
  const bodies = () => sent.map((s) => s.body as unknown as { facts: Facts; revision: number })

  test('what is typed is kept in the browser, and sent once when the box is left', async () => {
    const { factsDraft, stored } = await opened()
    const draft = factsDraft(3, facts, 5)
    draft.hold({ ...facts, what: 'nest' })
    draft.hold({ ...facts, what: 'nest box' })
    await after(320)
    expect([sent.length, draft.snapshot().state]).toEqual([0, 'held'])
    await stored()

    // A reload: it is there again, and is sent by itself, as leaving the box would have done.
    const again = (await opened()).factsDraft(3, facts, 5)
    expect(again.snapshot()).toMatchObject({ value: { what: 'nest box' }, restored: true })
    await again.flush()
    expect(bodies()).toEqual([{ facts: { ...facts, what: 'nest box' }, revision: 5 }])
    expect(again.snapshot().state).toBe('saved')
  })

  test('what is typed into facts is sent when the window is left; what has a button waits for it, also after a reload', async () => {
    const { factsDraft, siteDraft, stored } = await opened()
    const texts = { brand: 'Plover', address: '', language: 'en', country: 'gb', titleSuffix: '' }
    const site = { ...texts, revision: 2 } as unknown as Site
    factsDraft(4, facts, 5).hold({ ...facts, what: 'nest box' })
    siteDraft(site).hold({ ...texts, brand: 'Plover & Pine' })
    window.dispatchEvent(new Event('pagehide'))
    await after(50)
    // Windows of earlier tests are left as well, so only these two are looked at.
    const those = () => sent.map((s) => s.url).filter((url) => url === '/api/products/4/facts' || url === '/api/site')
    expect(those()).toEqual(['/api/products/4/facts'])
    await stored()

    const again = (await opened()).siteDraft(site)
    await after(50)
    expect(again.snapshot()).toMatchObject({ value: { brand: 'Plover & Pine' }, state: 'held' })
    expect(those()).toEqual(['/api/products/4/facts'])
    await again.release()
    expect(sent.at(-1)).toMatchObject({ url: '/api/site', body: { brand: 'Plover & Pine', revision: 2 } })
  })

  test('what is typed back to what is saved is no change, and what is discarded is gone', async () => {
    const { factsDraft } = await opened()
    const draft = factsDraft(3, facts, 5)
    draft.hold({ ...facts, what: 'nest' })
    draft.hold(facts)
    expect([draft.unsaved, draft.snapshot().state]).toEqual([false, 'saved'])
    draft.hold({ ...facts, what: 'nest' })
    draft.discard()
    expect([draft.unsaved, draft.snapshot().value]).toEqual([false, facts])
    await draft.release()
    expect(sent).toEqual([])
  })

  test('lines that only one window changed are both kept; the same line changed in both is asked about', async () => {
    const { factsDraft } = await opened()
    const draft = factsDraft(3, facts, 5)
    const theirs = { ...facts, materials: ['larch'] }
    answer = (r) =>
      r.body.revision === 5 ? json({ facts: theirs, revision: 6 }, 409) : json({ what: 'Changed the facts', id: 1, revision: 7 })
    draft.hold({ ...facts, what: 'nest box' })
    await draft.release()
    expect(bodies().at(-1)).toEqual({ facts: { ...theirs, what: 'nest box' }, revision: 6 })
    expect(draft.snapshot()).toMatchObject({ state: 'saved', revision: 7, value: { what: 'nest box', materials: ['larch'] } })

    answer = () => json({ facts: { ...theirs, what: 'owl box' }, revision: 9 }, 409)
    draft.hold({ ...theirs, what: 'bat box' })
    await draft.release()
    expect(draft.snapshot()).toMatchObject({ state: 'conflict', theirs: { value: { what: 'owl box' }, revision: 9 } })
    answer = () => json({ what: 'Changed the facts', id: 2, revision: 10 })
    await draft.keepMine()
    expect(bodies().at(-1)).toMatchObject({ facts: { what: 'bat box' }, revision: 9 })
  })

  test('each save is told of, with what it changed', async () => {
    const { noteDraft, onSaved } = await opened()
    const told: unknown[] = []
    onSaved((draft, value, report) => told.push([draft.kind, draft.id, value, report?.what]))
    answer = () => json({ what: 'Changed the note', id: 4, revision: 1 })
    const draft = noteDraft(3, 'bird house', '', 0)
    draft.hold('for May')
    await draft.release()
    expect(told).toEqual([['note', '3 bird house', 'for May', 'Changed the note']])
    expect(sent[0]).toMatchObject({ url: '/api/products/3/picks', body: { texts: ['bird house'], note: 'for May', noteRevision: 0 } })
  })
})
