import { api, type Copy } from '../kit/api'

export type SaveState = { state: 'saved' | 'waiting' | 'saving' | 'failed'; message?: string }
export type Theirs = { copy: Copy; revision: number; savedAt: string }

type Waiting = { copy: Copy; keep: string | null }

const Pause = 250

/**
 * Saves one listing as it is written. A change waits for a short pause, is sent, and counts as saved only when the server says
 * that it is on disk. Another window's save is never written over: it is handed to whoever listens.
 */
export class Saver {
  // What is to be sent, in order; a change that keeps the state before it is not merged with what came before.
  private waiting: Waiting[] = []
  private timer: ReturnType<typeof setTimeout> | undefined
  private running: Promise<void> | null = null
  private sending: Waiting | null = null
  private failed = false
  onState: (s: SaveState) => void = () => undefined
  onConflict: (theirs: Theirs) => void = () => undefined

  constructor(
    private readonly id: number,
    public revision: number,
  ) {}

  /** Saves what is there now. `keep` keeps the state before it as a version, for this reason. */
  change(copy: Copy, keep: string | null = null) {
    const last = this.waiting[this.waiting.length - 1]
    if (keep === null && last && last !== this.sending) last.copy = copy
    else this.waiting.push({ copy, keep })
    this.onState({ state: 'waiting' })
    clearTimeout(this.timer)
    this.timer = setTimeout(() => this.flush(), Pause)
  }

  /** Forgets what is not saved yet: the other window's text was taken. */
  take(revision: number) {
    this.waiting = []
    this.revision = revision
    clearTimeout(this.timer)
    this.onState({ state: 'saved' })
  }

  /** Sends what is waiting; done when nothing is. */
  async flush(): Promise<void> {
    clearTimeout(this.timer)
    while (this.waiting.length > 0 && !this.failed) {
      if (this.running) {
        await this.running
        continue
      }
      this.running = this.send(this.waiting[0]).finally(() => {
        this.running = null
      })
      await this.running
    }
    if (this.running) await this.running
    this.failed = false
  }

  private async send(change: Waiting) {
    const { copy, keep } = change
    this.sending = change
    this.onState({ state: 'saving' })
    try {
      const { data, error, response } = await api.PUT('/api/listings/{id}/copy', {
        params: { path: { id: this.id } },
        body: { fields: copy as never, revision: this.revision, keep },
        keepalive: JSON.stringify(copy).length < 50_000,
      })
      if (response.status === 409) {
        this.waiting = []
        this.onState({ state: 'failed', message: 'Saved in another window' })
        this.onConflict(error as unknown as Theirs)
      } else if (data) {
        this.revision = data.revision
        this.waiting = this.waiting.filter((w) => w !== change)
        this.onState({ state: this.waiting.length > 0 ? 'waiting' : 'saved' })
      } else throw new Error((error as { detail?: string })?.detail ?? `The server answered ${response.status}`)
    } catch (e) {
      this.onState({ state: 'failed', message: `Not saved: ${(e as Error).message}. Trying again.` })
      this.failed = true
      this.timer = setTimeout(() => this.flush(), 2000)
    } finally {
      this.sending = null
    }
  }
}

const savers = new Map<number, Saver>()

/** The listing's saver; a new one begins at this revision. */
export function saverOf(id: number, revision: number): Saver {
  const saver = savers.get(id) ?? new Saver(id, revision)
  saver.revision = Math.max(saver.revision, revision)
  savers.set(id, saver)
  return saver
}

/** Waits until nothing of a listing is on its way to the server. */
export const settled = (id: number) => savers.get(id)?.flush() ?? Promise.resolve()
