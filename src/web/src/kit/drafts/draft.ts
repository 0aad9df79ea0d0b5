import type { VersionReason } from '../api'
import type { Changed } from '../changes'

/** What another window saved meanwhile. */
export type Theirs<T> = { value: T; revision: number; savedAt: string | null }

/**
 * `held`: typed, and sent only when the seller is done with it. `waiting`: typed a moment ago. `saving`: on its way. `failed`: the server could not be reached or could not save; it is tried again.
 * `refused`: the server says that the text is wrong; it is tried again when the text changes. `conflict`: another window saved first.
 */
export type DraftState = 'saved' | 'held' | 'waiting' | 'saving' | 'failed' | 'refused' | 'conflict'

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
  | { kind: 'saved'; revision: number; savedAt?: string; report?: Changed }
  | { kind: 'conflict'; theirs: Theirs<T> }
  | { kind: 'refused'; message: string }
  | { kind: 'failed'; message: string }

export type Change<T> = { value: T; keep: VersionReason | null; sent: boolean }

/** Sends one change to the server. It never throws. */
export type Send<T> = (
  id: DraftId,
  change: { value: T; keep: VersionReason | null },
  revision: number,
  keepalive: boolean,
) => Promise<Answer<T>>

/** What a text belongs to: a number of the server's, or a name where it has none. */
export type DraftId = number | string

/** How a kind of text is saved. */
export type Sender<T> = {
  send: Send<T>
  /** Both changes together, where they touch different parts; null where they touch the same one. Without it, every two changes conflict. */
  merge?: (base: T, mine: T, theirs: T) => T | null
  /** Whether it is saved only when the seller says so; otherwise what is held is sent when its screen or the window is left. */
  byButton?: true
}

/** A draft as the browser's database keeps it. */
export type Stored = {
  kind: string
  id: DraftId
  tab: string
  at: number
  revision: number
  queue: Change<unknown>[]
  theirs: Theirs<unknown> | null
  value: unknown
  /** What the server had before the changes; missing in what programs before this one kept. */
  base?: unknown
  held?: boolean
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
  private base: T

  constructor(
    readonly kind: string,
    readonly id: DraftId,
    private value: T,
    private revision: number,
    private readonly sender: Sender<T>,
    private readonly store: (draft: Stored | null) => void,
    private readonly changed: () => void,
    /** Is told of each save. */
    private readonly saved: (draft: Draft<T>, value: T, report: Changed | undefined) => void = () => undefined,
  ) {
    this.base = value
    this.view = this.viewNow()
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
    this.base = value
    this.revision = revision
    this.notify()
  }

  /** Keeps what is typed in the browser without sending it, until `release`. */
  hold(value: T) {
    if (this.queue.every((c) => !c.sent) && JSON.stringify(value) === JSON.stringify(this.base)) return this.discard()
    const last = this.queue[this.queue.length - 1]
    this.value = value
    if (last && !last.sent) last.value = value
    else this.queue.push({ value, keep: null, sent: false })
    if (this.theirs === null) this.state = 'held'
    clearTimeout(this.timer)
    this.save()
    this.notify()
  }

  /** Sends what was held. */
  release(keepalive = false): Promise<void> {
    if (this.state === 'held') this.state = 'waiting'
    return this.flush(keepalive)
  }

  /** Its screen or the window is left: sends what may be sent by itself. */
  leave(keepalive = false): Promise<void> {
    return this.sender.byButton ? this.flush(keepalive) : this.release(keepalive)
  }

  /** Drops what is not on its way yet, and shows what the server has. */
  discard() {
    if (this.queue.some((c) => c.sent)) return
    this.queue = []
    this.theirs = null
    this.value = this.base
    this.finish()
  }

  /** Changes the text. `keep` keeps the state before it as a version, for this reason. */
  change(value: T, keep: VersionReason | null = null) {
    this.value = value
    const last = this.queue[this.queue.length - 1]
    if (keep === null && last && !last.sent) last.value = value
    else this.queue.push({ value, keep, sent: false })
    if (this.theirs === null) {
      this.state = 'waiting'
      this.schedule(Pause)
    }
    this.save()
    this.notify()
  }

  /** Saves the text here over the other window's, which is kept as a version. */
  keepMine() {
    if (!this.theirs) return
    this.revision = this.theirs.revision
    this.theirs = null
    this.queue = [{ value: this.value, keep: 'otherWindow', sent: false }]
    this.state = 'waiting'
    this.save()
    this.notify()
    return this.flush()
  }

  /** Takes the other window's text in the place of the one here. */
  takeTheirs() {
    if (!this.theirs) return
    this.value = this.theirs.value
    this.base = this.theirs.value
    this.revision = this.theirs.revision
    this.theirs = null
    this.queue = []
    this.finish()
  }

  /** Sends what is waiting; done when nothing is left, or when it could not be sent. */
  async flush(keepalive = false): Promise<void> {
    clearTimeout(this.timer)
    while (this.queue.length > 0 && this.theirs === null && this.state !== 'held') {
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
    this.base = (stored.base ?? this.base) as T
    this.revision = stored.revision
    // Programs before this one kept the reason as words.
    this.queue = (stored.queue as Change<T>[]).map((c) => (c.keep?.includes(' ') ? { ...c, keep: 'other' } : c))
    this.theirs = stored.theirs as Theirs<T> | null
    this.restored = true
    this.state = this.theirs ? 'conflict' : stored.held && this.sender.byButton ? 'held' : 'waiting'
    this.message = this.theirs ? 'Changed in another window' : ''
    this.save()
    this.notify()
    if (this.state === 'waiting') this.schedule(0)
  }

  /** Tries again at once: the connection may be back. */
  wake() {
    if (this.state === 'failed') this.schedule(0)
  }

  private async sendFirst(keepalive: boolean) {
    const change = this.queue[0]
    change.sent = true
    this.state = 'saving'
    this.save()
    this.notify()
    const small = keepalive && new Blob([JSON.stringify(change.value)]).size < KeepaliveBytes
    const answer = await this.sender.send(this.id, change, this.revision, small)
    switch (answer.kind) {
      case 'saved':
        this.revision = answer.revision
        this.base = change.value
        this.queue = this.queue.filter((c) => c !== change)
        this.retry = FirstRetry
        this.saved(this, change.value, answer.report)
        if (this.queue.length === 0) return this.finish()
        // Typed on meanwhile: what is held waits for its own release.
        if (this.state === 'saving') this.state = 'waiting'
        this.message = ''
        break
      case 'conflict':
        if (this.merged(answer.theirs)) break
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
        this.schedule(this.retry)
        this.retry = Math.min(LongestRetry, this.retry * 2)
    }
    this.save()
    this.notify()
  }

  // What another window saved is taken in where it touches none of the parts that were changed here.
  private merged(theirs: Theirs<T>): boolean {
    const merged = this.sender.merge?.(this.base, this.value, theirs.value) ?? null
    if (merged === null) return false
    this.value = merged
    this.base = theirs.value
    this.revision = theirs.revision
    this.queue = [{ value: merged, keep: null, sent: false }]
    this.state = 'waiting'
    return true
  }

  private finish() {
    this.state = 'saved'
    this.message = ''
    this.restored = false
    clearTimeout(this.timer)
    this.save()
    this.notify()
  }

  private schedule(wait: number) {
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
            base: this.base,
            held: this.state === 'held',
          }
        : null,
    )
  }

  private viewNow(): DraftView<T> {
    return {
      value: this.value,
      revision: this.revision,
      state: this.state,
      message: this.message,
      theirs: this.theirs,
      restored: this.restored,
    }
  }

  private notify() {
    this.view = this.viewNow()
    for (const listener of this.listeners) listener()
    this.changed()
  }
}
