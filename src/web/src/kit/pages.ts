import { useQuery } from '@tanstack/react-query'
import { api, ask, type Page } from './api'
import { queryKey } from './queries'

/** The web shop's settings. */
export const useSite = () => useQuery({ queryKey: queryKey('site'), queryFn: () => ask(api.GET('/api/site')) })

/** Its pages, in the order of the tree, and its redirects. */
export const usePages = () => useQuery({ queryKey: queryKey('pages'), queryFn: () => ask(api.GET('/api/pages')) })

/** What can be changed of a page beside its texts and its place. */
export type PageChange = { inMenu?: boolean; isPublished?: boolean; isHome?: boolean; hasSuffix?: boolean; kind?: Page['kind'] }

/** Changes the state of a page as it is shown; what is left out stays as it is. */
export const changePage = (page: { id: number; revision: number }, what: PageChange) =>
  ask(
    api.PUT('/api/pages/{id}', {
      params: { path: { id: page.id } },
      body: { kind: null, inMenu: null, isPublished: null, hasSuffix: null, isHome: null, revision: page.revision, ...what },
    }),
  )
