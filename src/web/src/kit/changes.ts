import { type QueryClient, useQueryClient } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api, ask } from './api'
import { messages } from './messages'
import { refreshAll } from './queries'
import { toast, toastAgain, toastAsk } from './toast'
import { inTurn } from './turn'

export type Changed = { what: string | null; id?: number | null; revision?: number | null; asks?: string | null }

/** Where one is: the undo key takes back what was changed here, and nothing else. */
export type Place = { screen: string; product?: number; listing?: number; page?: number }

/** Undo, or make again. */
export type Turn = 'undo' | 'redo'

let opened = new Date().toISOString()

/** A screen is opened: picks made from here on are made on it. */
export const openScreen = (_address: string) => {
  opened = new Date().toISOString()
}

type Query = { change?: number; since?: string; opened?: string } & Partial<Place>

async function turn(cache: QueryClient, to: Turn, query: Query) {
  try {
    const turned = await inTurn(() => ask(api.POST('/api/changes/{way}', { params: { path: { way: to }, query } })))
    if (turned.what) await refreshAll(cache)
    return turned
  } catch (e) {
    toast(messages.notUndone((e as Error).message))
    await refreshAll(cache)
    return null
  }
}

const turned = (to: Turn, what: string) => (to === 'undo' ? messages.undone(what) : messages.redone(what))

/** Takes one change back, or makes it again, and says so. */
export async function turnChange(cache: QueryClient, to: Turn, change: number) {
  const done = await turn(cache, to, { change })
  if (done) toast(done.what ? turned(to, done.what) : messages.nothingToUndo)
}

/** Takes back what was changed here last, or makes it again; asks first where it is large. False where there is nothing. */
export async function turnHere(cache: QueryClient, to: Turn, place: Place, since?: string) {
  const done = await turn(cache, to, { ...place, opened, since })
  if (done?.asks && done.id) {
    const { id, asks } = done
    toastAsk(messages.asksFirst(to, asks), to === 'undo' ? 'Undo' : 'Make again', () => turnChange(cache, to, id))
    return true
  }
  if (done?.what) toast(turned(to, done.what))
  return done === null || done.what !== null
}

type Refresh = (cache: QueryClient) => Promise<unknown>

/** Does something that can be undone: says what was done, offers Undo, and makes every screen ask again. */
export function useChanges() {
  const cache = useQueryClient()
  return useMemo(() => {
    const undo = (change: number) => turnChange(cache, 'undo', change)
    const make = async (call: () => Promise<Changed>, refresh: Refresh = refreshAll) => {
      let problem: string | null = null
      try {
        const { what, id } = await inTurn(call)
        if (what) toast(what, id ? () => undo(id) : undefined)
      } catch (e) {
        problem = messages.notSaved((e as Error).message)
      }
      return { problem, refreshed: refresh(cache) }
    }
    /** The problem, for a dialog that stays open with what was typed; null when it is done. What shows the change may come in after it. */
    const attempt = async (call: () => Promise<Changed>, refresh?: Refresh) => (await make(call, refresh)).problem
    /** Whether it was done; what shows the change has come in. */
    const run = async (call: () => Promise<Changed>, then?: () => void, refresh?: Refresh): Promise<boolean> => {
      const { problem, refreshed } = await make(call, refresh)
      await refreshed
      if (problem) toastAgain(problem, () => run(call, then, refresh))
      else then?.()
      return problem === null
    }
    return { undo, run, attempt }
  }, [cache])
}
