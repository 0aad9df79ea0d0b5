import { api, type Copy } from '../kit/api'

export type SaveState = { state: 'saved' | 'waiting' | 'saving' | 'failed'; message?: string }
export type Theirs = { copy: Copy; revision: number; savedAt: string }

const Pause = 250

/**
 * Saves one listing as it is written. A change waits for a short pause, is sent, and counts as saved only when the server says
 * that it is on disk. Another window's save is never written over: it is handed to whoever listens.
 */
export class Saver {
  private next: Copy | null = null
  private timer: ReturnType<typeof setTimeout> | undefined
  private running: Promise<void> | null = null
  onState: (s: SaveState) => void = () => undefined
  onConflict: (theirs: Theirs) => void = () => undefined

  constructor(
    private readonly id: number,
    public revision: number,
  ) {}

  change(copy: Copy) {
    this.next = copy
    this.onState({ state: 'waiting' })
    clearTimeout(this.timer)
    this.timer = setTimeout(() => this.flush(), Pause)
  }

  /** Forgets what is not saved yet: the other window's text was taken. */
  take(revision: number) {
    this.next = null
    this.revision = revision
    clearTimeout(this.timer)
    this.onState({ state: 'saved' })
  }

  /** Sends what is waiting; done when nothing is. */
  async flush(): Promise<void> {
    clearTimeout(this.timer)
    if (this.running) await this.running
    if (!this.next) return
    this.running = this.send(this.next).finally(() => {
      this.running = null
    })
    await this.running
    if (this.next) {
      clearTimeout(this.timer)
      this.timer = setTimeout(() => this.flush(), Pause)
    }
  }

  private async send(copy: Copy) {
    this.onState({ state: 'saving' })
    try {
      const { data, error, response } = await api.PUT('/api/listings/{id}/copy', {
        params: { path: { id: this.id } },
        body: { fields: copy as never, revision: this.revision },
        keepalive: JSON.stringify(copy).length < 50_000,
      })
      if (response.status === 409) {
        this.next = null
        this.onState({ state: 'failed', message: 'Saved in another window' })
        this.onConflict(error as unknown as Theirs)
      } else if (data) {
        this.revision = data.revision
        if (this.next === copy) this.next = null
        this.onState({ state: this.next ? 'waiting' : 'saved' })
      } else throw new Error((error as { detail?: string })?.detail ?? `The server answered ${response.status}`)
    } catch (e) {
      this.onState({ state: 'failed', message: `Not saved: ${(e as Error).message}. Trying again.` })
      this.timer = setTimeout(() => this.flush(), 2000)
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
