import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import type { Dug, DugSources, Norm } from '../kit/api'
import { queryKey, refresh } from '../kit/queries'
import type { Desk } from '../kit/shop'
import { lines } from '../kit/stream'

type Part = {
  stepId: number
  key: string
  doing: string | null
  done: number
  of: number
  rows: Dug[]
  norm: Norm
  known: DugSources | null
}
export type Digging = Omit<Part, 'rows'> & { rows: Map<string, Dug>; stopped: boolean }

/** Looks a term up: rows come as they are found, in the order they are found in; it can be stopped and gone on with. */
export function useDig(desk: Desk, term: string, parent: string | null) {
  const cache = useQueryClient()
  const running = useRef<AbortController>(undefined)
  const key = queryKey('dig', desk.product.id, desk.market.id, term.toLowerCase())
  const dug = useQuery({
    queryKey: key,
    queryFn: async () => {
      const controller = new AbortController()
      running.current = controller
      let digging: Digging | undefined
      try {
        const body = { marketId: desk.market.id, text: term, parentId: parent ? Number(parent) : null }
        for await (const part of lines<Part>(`/api/products/${desk.product.id}/dig`, body, controller.signal)) {
          const rows = new Map(digging?.rows)
          for (const r of part.rows) rows.set(r.key, r)
          if (!digging) refresh(cache, 'trail')
          digging = { ...part, rows, stopped: false }
          cache.setQueryData(key, digging)
        }
      } catch (e) {
        if (digging) cache.setQueryData(key, { ...digging, doing: null, stopped: true })
        if (!controller.signal.aborted || !digging) throw e
        digging = { ...digging, doing: null, stopped: true }
      }
      return digging as Digging
    },
    enabled: term !== '',
    retry: false,
    staleTime: (q) => ((q.state.data as Digging | undefined)?.stopped ? 0 : 60_000),
  })
  // biome-ignore lint/correctness/useExhaustiveDependencies: another term ends what is looked up for this one
  useEffect(() => () => running.current?.abort(), [term, desk.market.id])
  return { ...dug, stop: () => running.current?.abort() }
}
