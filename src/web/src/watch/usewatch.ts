import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { api, ask, type Check } from '../kit/api'
import { useChanges } from '../kit/changes'
import { foundQuery } from '../kit/listingqueries'
import { messages } from '../kit/messages'
import { queryKey, refresh } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { toast } from '../kit/toast'
import { upload } from '../kit/upload'

const AskedEvery = 250

/** How the desk's listing is watched in its market. */
export function useWatch(desk: Desk) {
  const cache = useQueryClient()
  const path = { id: desk.listingId }
  const query = useQuery({
    queryKey: queryKey('watch', desk.listingId, desk.market.id),
    queryFn: () => ask(api.GET('/api/listings/{id}/watch', { params: { path, query: { marketId: desk.market.id } } })),
  })
  const save = async (changed: { checksDaily?: boolean; pageSize?: number }) => {
    if (!query.data) return
    const { checksDaily, pageSize } = query.data
    try {
      await ask(
        api.PUT('/api/listings/{id}/watch', { params: { path }, body: { marketId: desk.market.id, checksDaily, pageSize, ...changed } }),
      )
    } catch (e) {
      toast(messages.notSaved((e as Error).message))
    }
    await refresh(cache, 'watch')
  }
  return { watch: query.data, problem: query.error?.message, save }
}

/** What was found of a listing, and the check that is under way. */
export function useFound(desk: Desk) {
  const cache = useQueryClient()
  const { run, attempt } = useChanges()
  const path = { id: desk.listingId }
  const marketId = desk.market.id
  const query = useQuery(foundQuery(desk))
  const latest = query.data?.checks.find((c) => c.state !== 'finished')
  const [progress, setProgress] = useState<Check | null>(null)
  const stale = () => refresh(cache, 'watch')
  // Asked again while it runs; what it found is shown once it has ended.
  const watching = useRef<number | null>(null)
  const follow = async (check: Check) => {
    if (watching.current === check.id) return
    watching.current = check.id
    let now = check
    try {
      while (now.state === 'running' && watching.current === check.id) {
        setProgress(now)
        await new Promise((done) => setTimeout(done, AskedEvery))
        now = await ask(api.GET('/api/listings/{id}/checks/{check}', { params: { path: { ...path, check: check.id } } }))
      }
    } catch (e) {
      toast((e as Error).message)
    }
    if (watching.current !== check.id) return
    watching.current = null
    setProgress(null)
    await stale()
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: when another check is under way
  useEffect(() => {
    if (latest?.state === 'running') follow(latest)
  }, [latest?.id, latest?.state])
  useEffect(
    () => () => {
      watching.current = null
    },
    [],
  )
  /** The problem; null once the check is under way. */
  const begin = async (terms?: string[]) => {
    try {
      follow(await ask(api.POST('/api/listings/{id}/checks', { params: { path }, body: { marketId, terms: terms ?? null } })))
      return null
    } catch (e) {
      return (e as Error).message
    }
  }
  const stop = async (check: number) => {
    try {
      await ask(api.POST('/api/listings/{id}/checks/{check}/stop', { params: { path: { ...path, check } } }))
    } catch (e) {
      toast((e as Error).message)
    }
    await stale()
  }
  const resume = async (check: number) => {
    try {
      await follow(await ask(api.POST('/api/listings/{id}/checks/{check}/resume', { params: { path: { ...path, check } } })))
    } catch (e) {
      toast((e as Error).message)
    }
  }
  const add = (file: Blob, name: string) =>
    attempt(
      () => upload(`/api/listings/${desk.listingId}/checks/import?marketId=${marketId}&name=${encodeURIComponent(name)}`, file),
      stale,
    )
  const unfollow = (terms: number[]) =>
    run(() => ask(api.POST('/api/listings/{id}/checks/unfollow', { params: { path }, body: { terms } })), undefined, stale)
  const remove = (check: number) =>
    run(() => ask(api.DELETE('/api/listings/{id}/checks/{check}', { params: { path: { ...path, check } } })), undefined, stale)
  return { query, progress, unfinished: progress ? null : (latest ?? null), begin, stop, resume, add, unfollow, remove }
}

/** Moves the simulated clock day by day, so that it can be stopped between two. */
export function useClock() {
  const cache = useQueryClient()
  const [moving, setMoving] = useState<{ day: number; of: number } | null>(null)
  const stopped = useRef(false)
  const move = async (days: number) => {
    if (moving) return
    stopped.current = false
    let now = ''
    const problems = new Set<string>()
    try {
      for (let day = 1; day <= days && !stopped.current; day++) {
        setMoving({ day, of: days })
        const moved = await ask(api.POST('/api/clock', { body: { days: 1 } }))
        now = moved.now
        for (const problem of moved.problems) problems.add(problem)
      }
      toast([stopped.current ? messages.clockStopped(now) : messages.clockMoved(now), ...problems].join('. '))
    } catch (e) {
      toast((e as Error).message)
    }
    setMoving(null)
    await refresh(cache, 'watch', 'versions', 'numbers')
  }
  const stop = () => {
    stopped.current = true
  }
  return { moving, move, stop }
}
