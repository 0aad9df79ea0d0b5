import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { api, ask } from '../kit/api'
import { measure } from '../kit/measure'
import { queryKey, refresh } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { toast } from '../kit/toast'
import { termsIn as allTermsIn, useSettled } from '../kit/words'

const mostTerms = 50

/** The terms of a text that names several: as many as are looked at side by side. */
export const termsIn = (text: string) => allTermsIn(text).slice(0, mostTerms)

/** Several terms side by side: each is measured, and stays on the shelf. */
export function useSeveral(desk: Desk, terms: string[]) {
  const cache = useQueryClient()
  const isSeveral = terms.length > 1
  return useQuery({
    queryKey: queryKey('several', desk.market.id, terms),
    queryFn: async ({ signal }) => {
      const measured = await measure(desk.market.id, terms, signal)
      await refresh(cache, 'numbers')
      return measured
    },
    enabled: isSeveral,
    staleTime: 60_000,
  })
}

/** What the market suggests while one types, each with its searches/mo. */
export function useSuggestions(desk: Desk, typed: string) {
  const settled = useSettled(typed, 200)
  const text = (settled.split(/[;\t,]/).at(-1) ?? '').trim()
  return useQuery({
    queryKey: queryKey('suggestions', desk.market.id, text.toLowerCase()),
    queryFn: async ({ signal }) => {
      const path = { marketId: desk.market.id }
      const found = await ask(api.GET('/api/markets/{marketId}/suggest', { params: { path, query: { typed: text } }, signal }))
      return found.length === 0 ? [] : measure(desk.market.id, found, signal)
    },
    enabled: text.length > 2,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  }).data
}

const Batch = 100

/** Looks up terms that have no numbers yet, in batches; it can be stopped. */
export function useLookUp(desk: Desk) {
  const cache = useQueryClient()
  const running = useRef<AbortController>(undefined)
  const [progress, setProgress] = useState<{ done: number; of: number } | null>(null)
  // What the market does not know is not offered to be looked up again.
  const [tried, setTried] = useState<ReadonlySet<string>>(new Set())
  const start = async (texts: string[]) => {
    running.current?.abort()
    const control = new AbortController()
    running.current = control
    try {
      for (let done = 0; done < texts.length && !control.signal.aborted; done += Batch) {
        setProgress({ done, of: texts.length })
        const batch = texts.slice(done, done + Batch)
        await measure(desk.market.id, batch, control.signal)
        setTried((before) => new Set([...before, ...batch]))
      }
    } catch (e) {
      if (!control.signal.aborted) toast((e as Error).message)
    } finally {
      setProgress(null)
      await refresh(cache, 'numbers')
    }
  }
  return { progress, tried, start, stop: () => running.current?.abort() }
}
