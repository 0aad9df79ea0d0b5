import { useEffect, useSyncExternalStore } from 'react'
import type { Copy, Facts, PlatformView, Profile, Site, SiteTexts } from '../api'
import type { Changed } from '../changes'
import { keep, leftBehind, nameWindow, removeAdopted, removeOwn } from './browserstore'
import { Draft, type DraftId, type DraftView, type Sender } from './draft'
import { noteId, senders } from './senders'

// Every draft of this window: the only place where a text is held while it is edited.
const drafts = new Map<string, Draft<unknown>>()
const listeners = new Set<() => void>()
let stuck: Draft<unknown>[] = []

// Called on every keystroke; notifies only when the set of stuck drafts changes.
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

type Saved = (draft: Draft<unknown>, value: unknown, report: Changed | undefined) => void
let saved: Saved = () => undefined

/** Has every save told of: what it changed, and what shows it. */
export const onSaved = (tell: Saved) => {
  saved = tell
}

function draftOf<T>(kind: string, id: DraftId, value: T, revision: number): Draft<T> {
  const key = `${kind}:${id}`
  let draft = drafts.get(key) as Draft<T> | undefined
  if (!draft) {
    const tell = (of: Draft<T>, text: T, report: Changed | undefined) => saved(of as Draft<unknown>, text, report)
    draft = new Draft<T>(kind, id, value, revision, senders[kind] as Sender<T>, (stored) => keep(key, stored), changed, tell)
    drafts.set(key, draft as Draft<unknown>)
  } else draft.open(value, revision)
  return draft
}

/** The draft of a listing, which begins with what the server has. */
export const listingDraft = (id: number, copy: Copy, revision: number) => draftOf<Copy>('listing', id, copy, revision)

/** A listing's text as it stands here, where some of it is not saved yet; null where the server has all of it. */
export function unsavedCopy(listingId: number): Copy | null {
  const draft = drafts.get(`listing:${listingId}`)
  return draft?.unsaved ? (draft.snapshot().value as Copy) : null
}

/** The draft of a product's alt texts. */
export const picturesDraft = (productId: number, pictures: string[], revision: number) =>
  draftOf<string[]>('pictures', productId, pictures, revision)

/** The draft of a product's facts. */
export const factsDraft = (productId: number, facts: Facts, revision: number) => draftOf<Facts>('facts', productId, facts, revision)

/** The draft of a pick's note. */
export const noteDraft = (productId: number, key: string, note: string, revision: number) =>
  draftOf<string>('note', noteId(productId, key), note, revision)

/** The draft of a platform's rules. */
export const profileDraft = (view: PlatformView) => draftOf<Profile>('profile', view.id, view.profile as unknown as Profile, view.revision)

/** Whether a platform's rules were changed here and are not saved. */
export const hasUnsavedProfile = (id: string) => drafts.get(`profile:${id}`)?.unsaved ?? false

/** The draft of the web shop's settings. */
export const siteDraft = ({ brand, address, language, country, titleSuffix, revision }: Site) =>
  draftOf<SiteTexts>('site', 'web shop', { brand, address, language, country, titleSuffix }, revision)

/** Shows a draft as it is at each moment; what is waiting is sent when the screen opens and when it is left. */
export function useDraftView<T>(draft: Draft<T>): DraftView<T> {
  useEffect(() => {
    draft.flush()
    return () => {
      draft.leave()
    }
  }, [draft])
  return useSyncExternalStore(draft.subscribe, draft.snapshot)
}

/** Forgets every draft: the whole shop was replaced. */
export async function forgetDrafts() {
  await removeOwn(drafts.keys())
  drafts.clear()
  changed()
}

// Takes over what this window kept before a reload, and what windows that are closed left behind; the newest of each text.
async function adopt() {
  for (const [key, one] of await leftBehind()) {
    if (!senders[one.kind]) continue
    const draft = draftOf(one.kind, one.id, one.value, one.revision)
    if (draft.unsaved) continue
    draft.restore(one)
    await removeAdopted(key, one)
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
      for (const d of drafts.values()) d.leave(true)
    })
  })()
  return started
}
