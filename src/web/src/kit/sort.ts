import type { Changes } from './address'
import type { Sort } from './table'

/** The order that the address remembers; another where it remembers none. */
export const sortIn = (params: URLSearchParams, otherwise: Sort = null): Sort => {
  const key = params.get('sort')
  return key ? { key, down: params.get('dir') !== 'up' } : otherwise
}

/** What an order changes in the address. */
export const sortChanges = (sort: Sort): Changes => ({ sort: sort?.key ?? null, dir: sort && !sort.down ? 'up' : null })
