import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useRef, useState } from 'react'
import { api, ask, type ListingLine, type Schemas, type WeighedListing } from './api'
import { queryKey } from './queries'
import { lines } from './stream'
import { inBackground } from './turn'
import { useSettled } from './words'

type ScoreLine = { done: number; all: number; score: WeighedListing | null }
export type Progress = { done: number; all: number; problem?: string; stopped?: boolean }

const DrawnEvery = 200
const AskedAfter = 250
// A search for moves takes a while; what changes in the shop makes it stale.
const KnownFor = 60_000

/** All listings of the shop, and their weighing in the background: what is not known yet comes in while one works. */
export function useListings(country: string | null) {
  const cache = useQueryClient()
  const key = queryKey('listings', country)
  const query = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => ask(api.GET('/api/listings', { params: { query: { country: country ?? undefined } }, signal })),
    placeholderData: (before) => before,
    // The list is asked for again whenever one comes back: what was changed elsewhere shows.
    refetchOnMount: 'always',
  })
  const [scores, setScores] = useState<ReadonlyMap<number, WeighedListing>>(new Map())
  const [progress, setProgress] = useState<Progress | null>(null)
  const running = useRef<AbortController | null>(null)
  const chosen = query.data?.country
  const asked = query.dataUpdatedAt
  const isNeeded = (query.data?.listings ?? []).some((l) => l.marketId !== null && l.archivedAt === null && !l.isFresh)
  const stop = () => {
    running.current?.abort()
    setProgress((p) => p && { ...p, stopped: true })
  }
  const weigh = async (place: string) => {
    running.current?.abort()
    const control = new AbortController()
    running.current = control
    const found = new Map<number, WeighedListing>()
    setScores(found)
    let latest: Progress = { done: 0, all: 0 }
    const draw = () => {
      setScores(new Map(found))
      setProgress(latest)
    }
    const timer = setInterval(draw, DrawnEvery)
    try {
      for await (const line of lines<ScoreLine>('/api/listings/scores', { country: place }, control.signal)) {
        latest = { done: line.done, all: line.all }
        if (line.score) found.set(line.score.id, line.score)
      }
      if (!control.signal.aborted) {
        draw()
        setProgress(null)
        cache.setQueryData<{ listings: ListingLine[] }>(
          key,
          (before) =>
            before && {
              ...before,
              listings: before.listings.map((l) => {
                const score = found.get(l.id)
                return score ? { ...l, score, isFresh: true } : l
              }),
            },
        )
      }
    } catch (e) {
      if (!control.signal.aborted) setProgress({ ...latest, problem: (e as Error).message })
    } finally {
      clearInterval(timer)
    }
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: weighed again when the list was asked for again
  useEffect(() => {
    if (chosen !== undefined && isNeeded && !query.isPlaceholderData) weigh(chosen)
    return () => running.current?.abort()
  }, [chosen, asked])
  const listings = query.data?.listings
  const rows = useMemo(
    () =>
      (listings ?? []).map((l) => {
        const score = l.isFresh ? undefined : scores.get(l.id)
        return score ? { ...l, score, isFresh: true } : l
      }),
    [listings, scores],
  )
  return { query, rows, progress, stop, resume: () => chosen !== undefined && weigh(chosen) }
}

/** The next step of each listing in sight, by listing: null where there is nothing to do; those that are not known yet are left out. */
export function useNextSteps(listings: readonly ListingLine[]) {
  // Who scrolls on asks for the rows where they stop.
  const settled = useSettled(
    listings.flatMap((l) => (l.marketId === null || l.archivedAt !== null ? [] : [`${l.id} ${l.marketId}`])).join(),
    AskedAfter,
  )
  return useQueries({
    queries: settled
      .split(',')
      .filter(Boolean)
      .map((at) => {
        const [id, marketId] = at.split(' ')
        return {
          queryKey: queryKey('next', Number(id), marketId),
          queryFn: ({ signal }: { signal: AbortSignal }) =>
            inBackground(() =>
              ask(
                api.POST('/api/listings/{id}/next', {
                  params: { path: { id: Number(id) } },
                  body: { marketId, fields: null },
                  signal,
                }),
              ),
            ).then((next) => [Number(id), next.steps[0] ?? null] as const),
          staleTime: KnownFor,
        }
      }),
    combine,
  })
}

const combine = (queries: { data: readonly [number, Schemas['NextStep'] | null] | undefined }[]) =>
  new Map(queries.flatMap((q) => (q.data ? [q.data] : [])))
