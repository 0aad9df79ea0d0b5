import { useEffect, useSyncExternalStore } from 'react'

type Toast = { text: string; undo?: () => void }
let current: Toast | null = null
const listeners = new Set<() => void>()

/** Says in one line what was done, and offers to undo it. */
export function toast(text: string, undo?: () => void) {
  current = { text, undo }
  for (const l of listeners) l()
}

function clear() {
  current = null
  for (const l of listeners) l()
}

export function ToastLine() {
  const shown = useSyncExternalStore(
    (l) => {
      listeners.add(l)
      return () => listeners.delete(l)
    },
    () => current,
  )
  useEffect(() => {
    if (!shown) return
    const timer = setTimeout(clear, shown.undo ? 7000 : 4500)
    return () => clearTimeout(timer)
  }, [shown])
  if (!shown) return null
  return (
    <div className="toast-line" role="status" data-testid="toast">
      {shown.text}
      {shown.undo && (
        <button
          type="button"
          onClick={() => {
            shown.undo?.()
            clear()
          }}
        >
          Undo
        </button>
      )}
    </div>
  )
}
