import { useEffect } from 'react'

// No text box: shortcuts are to go on working there.
const focusable = 'a[href], button:not([disabled]), [tabindex="0"]'

/** Whether the focus is on nothing. */
const lost = () => document.activeElement === null || document.activeElement === document.body

/** The work of the screen, which takes the focus where nothing in it has it: Tab goes on from there, not from the top of the page. */
function work() {
  const main = document.querySelector<HTMLElement>('main')
  if (main && !main.hasAttribute('tabindex')) main.tabIndex = -1
  return main
}

/** What takes the focus in a part of the screen: its panel, its current row, or what can be pressed; in a whole screen, its work. */
const heir = (part: Element) =>
  part.closest<HTMLElement>('[data-panel]') ??
  part.querySelector<HTMLElement>('[role=row][tabindex="0"]') ??
  (part.querySelector('main') ? work() : part.querySelector<HTMLElement>(focusable))

/**
 * Keeps the focus from dropping to the page, when a screen opens and when what had it goes away: then the nearest part that is still
 * there takes it.
 */
export function useFocusKeeper() {
  useEffect(() => {
    let trail: Element[] = []
    const remember = (e: FocusEvent) => {
      trail = []
      for (let at = e.target as Element | null; at && at !== document.body; at = at.parentElement) trail.push(at)
    }
    const keep = () => {
      if (!lost() || trail[0]?.isConnected) return
      const parts = trail.filter((el) => el.isConnected && el !== document.documentElement)
      trail = []
      let next: HTMLElement | null = null
      for (const part of parts) next ??= heir(part)
      next ??= work()
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
