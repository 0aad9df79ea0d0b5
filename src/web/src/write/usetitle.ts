import { useQueryClient } from '@tanstack/react-query'
import { useCallback } from 'react'
import { api, ask, type Copy, type Field } from '../kit/api'
import type { Draft } from '../kit/drafts/draft'
import type { ListingSteps } from '../kit/drafts/steps'
import { messages } from '../kit/messages'
import { refresh } from '../kit/queries'
import { toast } from '../kit/toast'

/** The title of a listing and its takes. */
export function useTitle(listingId: number, draft: Draft<Copy>, title: Field | undefined, replaceField: ListingSteps['replaceField']) {
  const cache = useQueryClient()
  const add = useCallback(
    (text: string) => ask(api.POST('/api/listings/{id}/takes', { params: { path: { id: listingId } }, body: { text } })),
    [listingId],
  )
  const now = useCallback(() => (title ? String(draft.snapshot().value[title.key] ?? '') : ''), [draft, title])
  /** Saves a title as a take. */
  const keep = useCallback(
    async (text: string) => {
      try {
        await add(text)
        toast(messages.takeSaved)
      } catch (e) {
        toast((e as Error).message)
      }
      refresh(cache, 'takes')
    },
    [add, cache],
  )
  /** Replaces the title. The one that stands there is saved as a take first: none is lost. */
  const replace = useCallback(
    async (text: string, what = 'Title changed') => {
      if (!title) return
      const before = now()
      if (before.trim()) await add(before)
      replaceField(title.key, text, what, 'title')
      refresh(cache, 'takes')
    },
    [add, cache, now, replaceField, title],
  )
  return { now, keep, replace }
}
