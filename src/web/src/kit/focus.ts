import { useEffect } from 'react'

const focusable = 'a[href], button:not([disabled]), input:not([disabled]), select:not([disabled]), textarea:not([disabled]), [tabindex="0"]'

/** Whether the focus is on nothing. */
const lost = () => document.activeElement === null || document.activeElement === document.body

/**
 * Keeps the focus from dropping to the page: when what had it goes away, the nearest part that is still there takes it, its
 * current row first.
 */
export function useFocusKeeper() {
  useEffect(() => {
    let trail: Element[] = []
    const remember = (e: FocusEvent) => {
      trail = []
      for (let at = e.target as Element | null; at && at !== document.body; at = at.parentElement) trail.push(at)
    }
    const keep = () => {
      if (!lost() || trail.length === 0 || trail[0].isConnected) return
      const home = trail.find((el) => el.isConnected && el !== document.documentElement)
      trail = []
      const next = home?.querySelector<HTMLElement>('[role=row][tabindex="0"]') ?? home?.querySelector<HTMLElement>(focusable)
      next?.focus({ preventScroll: true })
    }
    const observer = new MutationObserver(() => requestAnimationFrame(keep))
    document.addEventListener('focusin', remember)
    observer.observe(document.body, { childList: true, subtree: true })
    return () => {
      document.removeEventListener('focusin', remember)
      observer.disconnect()
    }
  }, [])
}

/** Puts the focus into a panel when it opens, and back where it was when it closes. */
export function useFocusInside<T extends HTMLElement>(box: React.RefObject<T | null>, selector = focusable) {
  useEffect(() => {
    const before = document.activeElement
    box.current?.querySelector<HTMLElement>(selector)?.focus()
    return () => {
      // Only when the focus goes away with the panel, and what had it is still there.
      requestAnimationFrame(() => {
        if (lost() && before instanceof HTMLElement && before.isConnected) before.focus({ preventScroll: true })
      })
    }
  }, [box, selector])
}
