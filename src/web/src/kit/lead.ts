import { useQueryClient } from '@tanstack/react-query'
import { api, ask } from './api'
import { messages } from './messages'
import { refresh } from './queries'
import type { Desk } from './shop'
import { toast, toastAgain } from './toast'
import { inTurn } from './turn'

/** Sets the lead of the listing, or none, says so, and offers to take it back. */
export function useLead(desk: Desk) {
  const cache = useQueryClient()
  const put = async (key: string | null, done: () => void) => {
    try {
      await inTurn(() => ask(api.PUT('/api/listings/{id}/lead', { params: { path: { id: desk.listingId } }, body: { key } })))
      done()
    } catch (e) {
      toastAgain(messages.notSaved((e as Error).message), () => put(key, done))
    }
    await refresh(cache, 'listing')
  }
  return (key: string | null, before: string | null, said: string) =>
    put(key, () => toast(said, () => put(before, () => toast(messages.undone(said)))))
}
