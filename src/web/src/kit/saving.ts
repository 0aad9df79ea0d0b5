import { useRef, useState } from 'react'

const kept = new Map<string, unknown>()

/** What is typed into a dialog: closed without saving, it is there again when the dialog is opened. `clear` forgets it once it is saved. */
export function useKept<T>(name: string, empty: T): [T, (value: T) => void, () => void] {
  const [value, setValue] = useState<T>(() => (kept.has(name) ? (kept.get(name) as T) : empty))
  const set = (next: T) => {
    kept.set(name, next)
    setValue(next)
  }
  return [value, set, () => kept.delete(name)]
}

/** Saves what a dialog has: `done` follows once it is saved, otherwise the problem is there to show. Enter pressed twice saves once. */
export function useSaving(done: () => void) {
  const [problem, setProblem] = useState('')
  const busy = useRef(false)
  /** `call` gives the problem, or null. */
  const save = async (call: () => Promise<string | null>) => {
    if (busy.current) return
    busy.current = true
    const said = await call().catch((e: Error) => e.message)
    busy.current = false
    setProblem(said ?? '')
    if (said === null) done()
  }
  return { problem, setProblem, save }
}
