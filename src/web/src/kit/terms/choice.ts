import { useCallback, useMemo, useSyncExternalStore } from 'react'

const listeners = new Set<() => void>()
const subscribe = (l: () => void) => {
  listeners.add(l)
  return () => listeners.delete(l)
}
const nameOf = (table: string) => `columns ${table}`

/** Which columns a table shows: those that were chosen in this browser, otherwise the usual ones. */
export function useColumnChoice(table: string, usual: readonly string[]) {
  const kept = useSyncExternalStore(subscribe, () => localStorage.getItem(nameOf(table)))
  const choose = useCallback(
    (keys: readonly string[] | null) => {
      if (keys === null || keys.join() === usual.join()) localStorage.removeItem(nameOf(table))
      else localStorage.setItem(nameOf(table), keys.join())
      for (const l of listeners) l()
    },
    [table, usual],
  )
  const chosen = useMemo(() => (kept === null ? usual : kept.split(',').filter(Boolean)), [kept, usual])
  return [chosen, choose] as const
}
