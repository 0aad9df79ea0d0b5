import { createStore, del, entries, set, type UseStore } from 'idb-keyval'
import { api, type Copy, messageOf } from './api'

/** What another window saved meanwhile. */
export type Theirs<T> = { value: T; revision: number; savedAt: string | null }

/**
 * `waiting`: typed a moment ago. `saving`: on its way. `failed`: the server could not be reached or could not save; it is tried again.
 * `refused`: the server says that the text is wrong; it is tried again when the text changes. `conflict`: another window saved first.
 */
export type DraftState = 'saved' | 'waiting' | 'saving' | 'failed' | 'refused' | 'conflict'

/** A draft as a screen shows it. A new object after each change. */
export type DraftView<T> = {
  value: T
  revision: number
  state: DraftState
  message: string
  theirs: Theirs<T> | null
  /** Whether the text comes from an earlier visit and is still not saved. */
  restored: boolean
}

export type Answer<T> =
  | { kind: 'saved'; revision: number; savedAt?: string }
  | { kind: 'conflict'; theirs: Theirs<T> }
  | { kind: 'refused'; message: string }
  | { kind: 'failed'; message: string }

type Change<T> = { value: T; keep: string | null; sent: boolean }

/** Sends one change to the server. It never throws. */
export type Send<T> = (id: number, change: { value: T; keep: string | null }, revision: number, keepalive: boolean) => Promise<Answer<T>>

type Stored = {
  kind: string
  id: number
  tab: string
  at: number
  revision: number
  queue: Change<unknown>[]
  theirs: Theirs<unknown> | null
  value: unknown
}

const Pause = 250
const FirstRetry = 1000
const LongestRetry = 15_000
// The browser sends no more than 64 KiB when a page is left; all requests together count.
const KeepaliveBytes = 50_000

/**
 * One text that is being written: what stands here, what of it is not on disk yet, and another window's text where both changed. It lives
 * outside the screens, for as long as the window is open, and in the browser's own database until the server has it.
 *
 * Changes are sent in order, each from the revision that the one before it made. A change whose answer was lost is sent again as it was:
 * the server takes the same text as saved. Only an answer moves the revision on, so a text is never saved over another window's.
 */
export class Draft<T> {
  private queue: Change<T>[] = []
  private theirs: Theirs<T> | null = null
  private state: DraftState = 'saved'
  private message = ''
  private restored = false
  private timer: ReturnType<typeof setTimeout> | undefined
  private running: Promise<void> | null = null
  private retry = FirstRetry
  private listeners = new Set<() => void>()
  private view: DraftView<T>

  constructor(
    readonly kind: string,
    readonly id: number,
    private value: T,
    private revision: number,
    private readonly send: Send<T>,
    private readonly store: (draft: Stored | null) => void,
  ) {
    this.view = this.look()
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => {
      this.listeners.delete(listener)
    }
  }

  snapshot = () => this.view

  /** Whether something of it is not on disk. */
  get unsaved() {
    return this.queue.length > 0 || this.theirs !== null
  }

  /** Takes the server's text, unless something here is not saved yet, or the answer is older than what was saved from here. */
  open(value: T, revision: number) {
    if (this.unsaved || revision < this.revision) return
    const same = revision === this.revision && JSON.stringify(value) === JSON.stringify(this.value)
    if (same) return
    this.value = value
    this.revision = revision
    this.tell()
  }

  /** Changes the text. `keep` keeps the state before it as a version, for this reason. */
  change(value: T, keep: string | null = null) {
    this.value = value
    const last = this.queue[this.queue.length - 1]
    if (keep === null && last && !last.sent) last.value = value
    else this.queue.push({ value, keep, sent: false })
    if (this.theirs === null) {
      this.state = 'waiting'
      this.plan(Pause)
    }
    this.save()
    this.tell()
  }

  /** Saves the text here over the other window's, which is kept as a version. */
  keepMine() {
    if (!this.theirs) return
    this.revision = this.theirs.revision
    this.theirs = null
    this.queue = [{ value: this.value, keep: 'before another window’s text was replaced', sent: false }]
    this.state = 'waiting'
    this.save()
    this.tell()
    return this.flush()
  }

  /** Takes the other window's text in the place of the one here. */
  takeTheirs() {
    if (!this.theirs) return
    this.value = this.theirs.value
    this.revision = this.theirs.revision
    this.theirs = null
    this.queue = []
    this.settle()
  }

  /** Sends what is waiting; done when nothing is left, or when it could not be sent. */
  async flush(keepalive = false): Promise<void> {
    clearTimeout(this.timer)
    while (this.queue.length > 0 && this.theirs === null) {
      this.running ??= this.sendFirst(keepalive).finally(() => {
        this.running = null
      })
      await this.running
      if (this.state === 'failed' || this.state === 'refused') return
    }
  }

  /** Goes on with what an earlier window, or this one before a reload, left behind. */
  restore(stored: Stored) {
    this.value = stored.value as T
    this.revision = stored.revision
    this.queue = stored.queue as Change<T>[]
    this.theirs = stored.theirs as Theirs<T> | null
    this.restored = true
    this.state = this.theirs ? 'conflict' : 'waiting'
    this.message = this.theirs ? 'Changed in another window' : ''
    this.save()
    this.tell()
    this.plan(0)
  }

  /** Tries again at once: the connection may be back. */
  wake() {
    if (this.state === 'failed') this.plan(0)
  }

  private async sendFirst(keepalive: boolean) {
    const change = this.queue[0]
    change.sent = true
    this.state = 'saving'
    this.save()
    this.tell()
    const small = keepalive && new Blob([JSON.stringify(change.value)]).size < KeepaliveBytes
    const answer = await this.send(this.id, change, this.revision, small)
    switch (answer.kind) {
      case 'saved':
        this.revision = answer.revision
        this.queue = this.queue.filter((c) => c !== change)
        this.retry = FirstRetry
        if (this.queue.length === 0) return this.settle()
        this.state = 'waiting'
        this.message = ''
        break
      case 'conflict':
        this.theirs = answer.theirs
        this.state = 'conflict'
        this.message = 'Changed in another window'
        break
      case 'refused':
        // What is wrong is put right by typing on, so the wrong text need not be sent first.
        change.sent = false
        this.state = 'refused'
        this.message = answer.message
        break
      case 'failed':
        this.state = 'failed'
        this.message = answer.message
        this.plan(this.retry)
        this.retry = Math.min(LongestRetry, this.retry * 2)
    }
    this.save()
    this.tell()
  }

  private settle() {
    this.state = 'saved'
    this.message = ''
    this.restored = false
    clearTimeout(this.timer)
    this.save()
    this.tell()
  }

  private plan(wait: number) {
    clearTimeout(this.timer)
    this.timer = setTimeout(() => this.flush(), wait)
  }

  private save() {
    this.store(
      this.unsaved
        ? {
            kind: this.kind,
            id: this.id,
            tab: '',
            at: Date.now(),
            revision: this.revision,
            queue: this.queue,
            theirs: this.theirs,
            value: this.value,
          }
        : null,
    )
  }

  private look(): DraftView<T> {
    return {
      value: this.value,
      revision: this.revision,
      state: this.state,
      message: this.message,
      theirs: this.theirs,
      restored: this.restored,
    }
  }

  private tell() {
    this.view = this.look()
    for (const listener of this.listeners) listener()
    changed()
  }
}

/** Sends a text. E is every answer that is not a success; the one with a revision is the text that somebody else saved. */
async function asked<T, D, E>(
  call: Promise<{ data?: D; error?: E; response: Response }>,
  saved: (data: D) => Answer<T>,
  theirs: (error: Extract<E, { revision: number }>) => Theirs<T>,
): Promise<Answer<T>> {
  try {
    const { data, error, response } = await call
    if (response.ok) return saved(data as D)
    if (response.status === 409 && (error as { revision?: unknown })?.revision !== undefined)
      return { kind: 'conflict', theirs: theirs(error as Extract<E, { revision: number }>) }
    const message = messageOf(error, response.status)
    return { kind: response.status === 400 || response.status === 413 || response.status === 404 ? 'refused' : 'failed', message }
  } catch {
    return { kind: 'failed', message: 'The server cannot be reached.' }
  }
}

const sendListing: Send<Copy> = (id, { value, keep }, revision, keepalive) =>
  asked(
    api.PUT('/api/listings/{id}/copy', { params: { path: { id } }, body: { fields: value, revision, keep }, keepalive }),
    (data) => ({ kind: 'saved', revision: data.revision, savedAt: data.savedAt }),
    (e) => ({ value: e.copy, revision: e.revision, savedAt: e.savedAt }),
  )

const sendPictures: Send<string[]> = (id, { value }, revision, keepalive) =>
  asked(
    api.PUT('/api/products/{id}/pictures', { params: { path: { id } }, body: { pictures: value, revision }, keepalive }),
    (data) => ({ kind: 'saved', revision: data.picturesRevision }),
    (e) => ({
      value: e.pictures,
      revision: e.picturesRevision,
      savedAt: null,
    }),
  )

// biome-ignore lint/suspicious/noExplicitAny: each kind has its own type, and its own function below
const kinds: Record<string, Send<any>> = { listing: sendListing, pictures: sendPictures }

const drafts = new Map<string, Draft<unknown>>()
const listeners = new Set<() => void>()
let stuck: Draft<unknown>[] = []

// Said at every key, so it looks at little: only a draft that got stuck, or came free, is news.
function changed() {
  const now = [...drafts.values()].filter((d) => ['failed', 'refused', 'conflict'].includes(d.snapshot().state))
  if (now.length === stuck.length && now.every((d, i) => d === stuck[i])) return
  stuck = now
  for (const listener of listeners) listener()
}

/** Every draft that could not be saved so far. */
export const stuckDrafts = {
  subscribe: (listener: () => void) => {
    listeners.add(listener)
    return () => {
      listeners.delete(listener)
    }
  },
  snapshot: () => stuck,
}

function draftOf<T>(kind: string, id: number, value: T, revision: number): Draft<T> {
  const key = `${kind}:${id}`
  let draft = drafts.get(key) as Draft<T> | undefined
  if (!draft) {
    draft = new Draft<T>(kind, id, value, revision, kinds[kind] as Send<T>, (stored) => keep(key, stored))
    drafts.set(key, draft as Draft<unknown>)
  } else draft.open(value, revision)
  return draft
}

/** The draft of a listing, which begins with what the server has. */
export const listingDraft = (id: number, copy: Copy, revision: number) => draftOf<Copy>('listing', id, copy, revision)

/** The draft of a product's alt texts. */
export const picturesDraft = (productId: number, pictures: string[], revision: number) =>
  draftOf<string[]>('pictures', productId, pictures, revision)

/** Forgets every draft: the whole shop was replaced. */
export async function forgetDrafts() {
  await Promise.all([...drafts.keys()].map((key) => del(`${key}:${tab}`, store()).catch(() => undefined)))
  drafts.clear()
  changed()
}

// The browser's own database. Writes go one after another; of several of one draft that wait, the last counts.
let database: UseStore | undefined
const store = () => {
  database ??= createStore('tin-rabbit-drafts', 'drafts')
  return database
}
const toStore = new Map<string, Stored | null>()
let storing: Promise<void> | null = null

function keep(key: string, stored: Stored | null) {
  toStore.set(key, stored && { ...stored, tab, queue: stored.queue.map((c) => ({ ...c })) })
  storing ??= write().finally(() => {
    storing = null
  })
}

async function write() {
  await Promise.resolve()
  for (let next = toStore.entries().next(); !next.done; next = toStore.entries().next()) {
    const [key, stored] = next.value
    toStore.delete(key)
    try {
      await (stored ? set(`${key}:${tab}`, stored, store()) : del(`${key}:${tab}`, store()))
    } catch (e) {
      // A browser that keeps nothing, as in some private windows: the text stays in this window, and is sent as always.
      console.warn('Unsaved text cannot be kept in this browser.', e)
    }
  }
}

/** Waits until the browser's database has every draft. */
export const stored = async () => {
  while (storing) await storing
}

// Each window has a name; a lock on it, which ends with the window, tells the others that it is open. A copied window gets a name of its own.
let tab = ''
const lockOf = (name: string) => `tin-rabbit window ${name}`

async function nameWindow() {
  const held = (name: string) =>
    new Promise<boolean>((done) => {
      if (!navigator.locks) return done(true)
      navigator.locks.request(lockOf(name), { ifAvailable: true }, (lock) => {
        done(lock !== null)
        return lock ? new Promise(() => undefined) : undefined
      })
    })
  const before = sessionStorage.getItem('window')
  if (before && (await held(before))) tab = before
  else {
    tab = crypto.randomUUID()
    await held(tab)
    sessionStorage.setItem('window', tab)
  }
}

// Takes over what this window kept before a reload, and what windows that are closed left behind; the newest of each text.
async function adopt() {
  const open = new Set((await navigator.locks?.query())?.held?.map((l) => l.name))
  const left = (await entries<string, Stored>(store())).filter(([, s]) => kinds[s.kind] && (s.tab === tab || !open.has(lockOf(s.tab))))
  left.sort(([, a], [, b]) => b.at - a.at)
  for (const [key, one] of left) {
    const draft = draftOf(one.kind, one.id, one.value, one.revision)
    if (draft.unsaved) continue
    draft.restore(one)
    if (one.tab !== tab) {
      await stored()
      await del(key, store())
    }
  }
}

let started: Promise<void> | undefined

/** Brings back what was not saved, once; screens wait for it before they show a text. */
export function restoreDrafts(): Promise<void> {
  started ??= (async () => {
    try {
      await nameWindow()
      if (navigator.locks) await navigator.locks.request('tin-rabbit adopts drafts', adopt)
      else await adopt()
    } catch (e) {
      console.warn('Unsaved text of an earlier visit could not be read.', e)
    }
    const wake = () => {
      for (const d of drafts.values()) d.wake()
    }
    window.addEventListener('online', wake)
    window.addEventListener('focus', wake)
    window.addEventListener('pagehide', () => {
      for (const d of drafts.values()) d.flush(true)
    })
  })()
  return started
}
