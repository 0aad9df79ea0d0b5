import { type QueryClient, useQueryClient } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api, ask } from './api'
import { messages } from './messages'
import { refreshAll } from './queries'
import { toast, toastAgain } from './toast'
import { inTurn } from './turn'

export type Changed = { what: string | null; id?: number | null; revision?: number | null }

/** Takes a change back, says so, and makes every screen ask again. */
export async function undoChange(cache: QueryClient, product?: number, change?: number | null) {
  try {
    const { what } = await inTurn(() => ask(api.POST('/api/changes/undo', { params: { query: { product, change: change ?? undefined } } })))
    toast(what ? messages.undone(what) : messages.nothingToUndo)
  } catch (e) {
    toast(messages.notUndone((e as Error).message))
  }
  await refreshAll(cache)
}

/** Does something that can be undone: says what was done, offers Undo, and makes every screen ask again. */
export function useChanges(product?: number) {
  const cache = useQueryClient()
  return useMemo(() => {
    const undo = (change?: number | null) => undoChange(cache, product, change)
    /** The problem, for a dialog that stays open with what was typed; null when it is done. */
    const attempt = async (call: () => Promise<Changed>, refresh: (cache: QueryClient) => Promise<unknown> = refreshAll) => {
      let problem: string | null = null
      try {
        const { what, id } = await inTurn(call)
        if (what) toast(what, () => undo(id))
      } catch (e) {
        problem = messages.notSaved((e as Error).message)
      }
      await refresh(cache)
      return problem
    }
    const run = async (call: () => Promise<Changed>, then?: () => void, refresh?: (cache: QueryClient) => Promise<unknown>) => {
      const problem = await attempt(call, refresh)
      if (problem) toastAgain(problem, () => run(call, then, refresh))
      else then?.()
    }
    return { undo, run, attempt }
  }, [cache, product])
}
