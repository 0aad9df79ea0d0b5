import { useQuery } from '@tanstack/react-query'
import { api, ask } from '../kit/api'
import { queryKey } from '../kit/queries'

/** The web shop's settings. */
export const useSite = () => useQuery({ queryKey: queryKey('site'), queryFn: () => ask(api.GET('/api/site')) })

/** Its pages, in the order of the tree, and its redirects. */
export const usePages = () => useQuery({ queryKey: queryKey('pages'), queryFn: () => ask(api.GET('/api/pages')) })
