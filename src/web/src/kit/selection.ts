import { useCallback, useState } from 'react'

const none: ReadonlySet<string> = new Set()

/** The rows that are selected, by id. Each change is made to the selection before it, also where that was not drawn yet: no key is lost. */
export function useSelection() {
  const [selected, setSelected] = useState(none)
  const mark = useCallback((ids: string[], on: boolean) => setSelected((before) => changed(before, ids, on)), [])
  const clear = useCallback(() => setSelected(none), [])
  return [selected, mark, clear] as const
}

/** A selection with rows added or removed. */
export function changed(before: ReadonlySet<string>, ids: string[], on: boolean): ReadonlySet<string> {
  const next = new Set(before)
  for (const id of ids) on ? next.add(id) : next.delete(id)
  return next
}
