import { api, type Copy, type Facts, messageOf, type Profile, type SiteTexts } from '../api'
import type { Answer, Sender, Theirs } from './draft'

/** Sends a text. With the status 409 the error is the text that somebody else saved. */
async function asked<T, D>(
  call: Promise<{ data?: D; error?: unknown; response: Response }>,
  saved: (data: D) => Answer<T>,
  // The generated types name every answer that is no success; which one this is, the status tells.
  theirs: (error: unknown) => Theirs<T>,
): Promise<Answer<T>> {
  try {
    const { data, error, response } = await call
    if (response.ok) return saved(data as D)
    if (response.status === 409) return { kind: 'conflict', theirs: theirs(error) }
    const message = messageOf(error, response.status)
    return { kind: response.status === 400 || response.status === 413 || response.status === 404 ? 'refused' : 'failed', message }
  } catch {
    return { kind: 'failed', message: 'The server cannot be reached.' }
  }
}

const listing: Sender<Copy> = {
  send: (id, { value, keep }, revision, keepalive) =>
    asked(
      api.PUT('/api/listings/{id}/copy', { params: { path: { id: Number(id) } }, body: { fields: value, revision, keep }, keepalive }),
      (data) => ({ kind: 'saved', revision: data.revision, savedAt: data.savedAt }),
      (e) => {
        const { copy, revision, savedAt } = e as { copy: Copy; revision: number; savedAt: string }
        return { value: copy, revision, savedAt }
      },
    ),
}

const pictures: Sender<string[]> = {
  send: (id, { value }, revision, keepalive) =>
    asked(
      api.PUT('/api/products/{id}/pictures', { params: { path: { id: Number(id) } }, body: { pictures: value, revision }, keepalive }),
      (data) => ({ kind: 'saved', revision: data.picturesRevision }),
      (e) => {
        const { pictures, picturesRevision } = e as { pictures: string[]; picturesRevision: number }
        return { value: pictures, revision: picturesRevision, savedAt: null }
      },
    ),
}

/** Merges by key: each key that only one side changed is that side's. */
export function mergeByKey<T extends object>(base: T, mine: T, theirs: T): T | null {
  const merged = { ...theirs }
  for (const key of Object.keys(mine) as (keyof T)[]) {
    const [was, my, their] = [base[key], mine[key], theirs[key]].map((v) => JSON.stringify(v))
    if (my === was) continue
    if (their !== was && their !== my) return null
    merged[key] = mine[key]
  }
  return merged
}

const facts: Sender<Facts> = {
  send: (id, { value }, revision, keepalive) =>
    asked(
      api.PUT('/api/products/{id}/facts', { params: { path: { id: Number(id) } }, body: { facts: value, revision }, keepalive }),
      (data) => ({ kind: 'saved', revision: data.revision ?? revision, report: data }),
      (e) => {
        const { facts, revision } = e as { facts: Facts; revision: number }
        return { value: facts, revision, savedAt: null }
      },
    ),
  merge: mergeByKey,
}

/** The name of a pick's note: its product and its key. */
export const noteId = (productId: number, key: string) => `${productId} ${key}`

const note: Sender<string> = {
  send: (id, { value }, noteRevision, keepalive) => {
    const [product, ...words] = String(id).split(' ')
    const body = { texts: [words.join(' ')], source: null, fit: null, home: null, note: value, saidBy: null, language: null, noteRevision }
    return asked(
      api.POST('/api/products/{id}/picks', { params: { path: { id: Number(product) } }, body, keepalive }),
      (data) => ({ kind: 'saved', revision: data.revision ?? noteRevision, report: data }),
      (e) => {
        const { note, noteRevision } = e as { note: string; noteRevision: number }
        return { value: note, revision: noteRevision, savedAt: null }
      },
    )
  },
}

const profile: Sender<Profile> = {
  byButton: true,
  send: (id, { value }, revision, keepalive) =>
    asked(
      api.PUT('/api/platforms/{id}', { params: { path: { id: String(id) } }, body: { profile: value, like: null, revision }, keepalive }),
      (data) => ({ kind: 'saved', revision: data.revision ?? revision, report: data.changed ?? undefined }),
      (e) => {
        const { profile, revision } = e as { profile: Profile; revision: number }
        return { value: profile, revision, savedAt: null }
      },
    ),
}

const site: Sender<SiteTexts> = {
  byButton: true,
  send: (_, { value }, revision, keepalive) =>
    asked(
      api.PUT('/api/site', { body: { ...value, revision }, keepalive }),
      (data) => ({ kind: 'saved', revision: data.revision ?? revision, report: data }),
      (e) => {
        const { brand, address, language, country, titleSuffix, revision } = e as SiteTexts & { revision: number }
        return { value: { brand, address, language, country, titleSuffix }, revision, savedAt: null }
      },
    ),
  merge: mergeByKey,
}

// biome-ignore lint/suspicious/noExplicitAny: each kind has its own type
export const senders: Record<string, Sender<any>> = { listing, pictures, facts, note, profile, site }
