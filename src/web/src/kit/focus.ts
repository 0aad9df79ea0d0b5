import { useEffect } from 'react'

// No text box: shortcuts are to go on working there.
const focusable = 'a[href], button:not([disabled]), [tabindex="0"]'

/** Whether the focus is on nothing. */
const lost = () => document.activeElement === null || document.activeElement === document.body

/**
 * Keeps the focus from dropping to the page: when what had it goes away, its panel takes it, or else the nearest part that is
 * still there, its current row first.
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
      const next =
        home?.closest<HTMLElement>('[data-panel]') ??
        home?.querySelector<HTMLElement>('[role=row][tabindex="0"]') ??
        home?.querySelector<HTMLElement>(focusable)
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
