import { useQuery, useQueryClient } from '@tanstack/react-query'
import { api, ask } from './api'
import { messages } from './messages'
import { queryKey, refresh } from './queries'
import { toast } from './toast'

// Sets of columns are kept among the filters, which have one list of names.
const columns = 'cols='

/** What the shop keeps under a name: filters, and sets of columns. */
export function useSaved() {
  const cache = useQueryClient()
  const all = useQuery({ queryKey: queryKey('filters'), queryFn: () => ask(api.GET('/api/filters')), staleTime: Infinity }).data ?? []
  const filters = all.filter((f) => !f.filters.startsWith(columns))
  const sets = all.filter((f) => f.filters.startsWith(columns)).map((f) => ({ ...f, keys: f.filters.slice(columns.length).split(',') }))
  const save = async (name: string, text: string, others: readonly { name: string }[], said: string) => {
    if (others.some((f) => f.name === name)) return toast(messages.nameIsTaken(name))
    try {
      await ask(api.POST('/api/filters', { body: { name, filters: text } }))
      await refresh(cache, 'filters')
      toast(said)
    } catch (e) {
      toast(messages.notSaved((e as Error).message))
    }
  }
  return {
    filters,
    sets,
    saveFilters: (name: string, text: string) => save(name, text, sets, messages.filtersSaved(name)),
    saveColumns: (name: string, keys: readonly string[]) => save(name, columns + keys.join(','), filters, messages.columnsSaved(name)),
  }
}
