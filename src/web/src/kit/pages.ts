import { useQuery } from '@tanstack/react-query'
import { api, ask, type Page } from './api'
import { queryKey } from './queries'

/** The web shop's settings. */
export const useSite = () => useQuery({ queryKey: queryKey('site'), queryFn: () => ask(api.GET('/api/site')) })

/** Its pages, in the order of the tree, and its redirects. */
export const usePages = () => useQuery({ queryKey: queryKey('pages'), queryFn: () => ask(api.GET('/api/pages')) })

type PageChange = { inMenu?: boolean; isPublished?: boolean; isHome?: boolean; hasSuffix?: boolean; kind?: Page['kind'] }

/** Changes the state of a page; what is left out stays as it is. */
export const changePage = (id: number, what: PageChange) =>
  ask(
    api.PUT('/api/pages/{id}', {
      params: { path: { id } },
      body: { kind: null, inMenu: null, isPublished: null, hasSuffix: null, isHome: null, ...what },
    }),
  )
