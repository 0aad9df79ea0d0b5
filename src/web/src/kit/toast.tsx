import { useEffect, useSyncExternalStore } from 'react'

type Toast = { text: string; act?: () => void; label: string; stays: boolean }
let current: Toast | null = null
const listeners = new Set<() => void>()

function show(next: Toast) {
  current = next
  for (const l of listeners) l()
}

/** Says in one line what was done, and offers Undo. */
export const toast = (text: string, undo?: () => void) => show({ text, act: undo, label: 'Undo', stays: false })

/** Says what could not be done, and offers to try again until the seller does or dismisses it. */
export const toastAgain = (text: string, again: () => void) => show({ text, act: again, label: 'Try again', stays: true })

/** Asks whether to do something large, until the seller answers or dismisses it. */
export const toastAsk = (text: string, label: string, act: () => void) => show({ text, act, label, stays: true })

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
    if (!shown || shown.stays) return
    const timer = setTimeout(clear, shown.act ? 7000 : 4500)
    return () => clearTimeout(timer)
  }, [shown])
  if (!shown) return null
  return (
    <div className="toast-line" role="status" data-testid="toast">
      {shown.text}
      {shown.act && (
        <button
          type="button"
          onClick={() => {
            const { act } = shown
            clear()
            act?.()
          }}
        >
          {shown.label}
        </button>
      )}
      {shown.stays && (
        <button type="button" onClick={clear}>
          Dismiss
        </button>
      )}
    </div>
  )
}
