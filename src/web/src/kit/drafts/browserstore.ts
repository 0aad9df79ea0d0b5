import { createStore, del, entries, set, type UseStore } from 'idb-keyval'
import type { Stored } from './draft'

// The browser's own database. Writes go one after another; of several of one draft that wait, the last counts.
let database: UseStore | undefined
const store = () => {
  database ??= createStore('tin-rabbit-drafts', 'drafts')
  return database
}
const toStore = new Map<string, Stored | null>()
let storing: Promise<void> | null = null

/** Keeps a draft in the browser's database until it is on the server, under this window's name; null removes it. */
export function keep(key: string, stored: Stored | null) {
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

/** Gives this window the name that it had before a reload, or a new one. */
export async function nameWindow() {
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

/** Drafts of this window before a reload, and of windows that are closed, with their keys; the newest first. */
export async function leftBehind(): Promise<[string, Stored][]> {
  const open = new Set((await navigator.locks?.query())?.held?.map((l) => l.name))
  const left = (await entries<string, Stored>(store())).filter(([, s]) => s.tab === tab || !open.has(lockOf(s.tab)))
  return left.sort(([, a], [, b]) => b.at - a.at)
}

/** Removes a closed window's draft once this window has stored it under its own name. */
export async function removeAdopted(key: string, draft: Stored) {
  if (draft.tab === tab) return
  await stored()
  await del(key, store())
}

/** Removes drafts of this window. */
export const removeOwn = (keys: Iterable<string>) =>
  Promise.all([...keys].map((key) => del(`${key}:${tab}`, store()).catch(() => undefined)))
