import { api, type Copy, messageOf } from '../api'
import type { Answer, Send, Theirs } from './draft'

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

// biome-ignore lint/suspicious/noExplicitAny: each kind has its own type
export const senders: Record<string, Send<any>> = { listing: sendListing, pictures: sendPictures }
