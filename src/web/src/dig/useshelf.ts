import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { api, ask, type ShelfQuery, type ShelfRow } from '../kit/api'
import { queryKey } from '../kit/queries'
import type { Rows } from '../kit/table'

const Page = 200

/** A market's shelf, searched and ordered by the server; its rows come by the page as they are looked at. */
export function useShelf(marketId: string, query: ShelfQuery | null) {
  const [pages, setPages] = useState<number[]>([0])
  const key = queryKey('shelf', marketId, query)
  const fetchPage = (page: number) =>
    ask(
      api.POST('/api/markets/{marketId}/shelf', {
        params: { path: { marketId } },
        body: { ...(query as ShelfQuery), skip: page * Page, take: Page },
      }),
    )
  const first = useQuery({
    queryKey: [...key, 0],
    queryFn: () => fetchPage(0),
    enabled: query !== null,
    placeholderData: keepPreviousData,
    staleTime: 30_000,
  })
  const more = useQueries({
    queries: pages
      .filter((n) => n > 0 && query !== null)
      .map((n) => ({ queryKey: [...key, n], queryFn: () => fetchPage(n), staleTime: 30_000, meta: { page: n } })),
    combine: (all) => all.map((q) => q.data),
  })
  const shown = pages.filter((n) => n > 0)
  const rows: Rows<ShelfRow> = useMemo(() => {
    const byPage = new Map<number, ShelfRow[]>()
    if (first.data) byPage.set(0, first.data.rows)
    more.forEach((data, i) => {
      if (data) byPage.set(shown[i], data.rows)
    })
    return { length: first.data?.passing ?? 0, at: (i) => byPage.get(Math.floor(i / Page))?.[i % Page] }
  }, [first.data, more, shown])
  const look = (from: number, to: number) => {
    const wanted = []
    for (let n = Math.floor(from / Page); n <= Math.floor(to / Page); n++) wanted.push(n)
    if (wanted.some((n) => !pages.includes(n))) setPages(wanted)
  }
  return { rows, data: first.data, fetching: first.isFetching, error: first.error, look }
}
