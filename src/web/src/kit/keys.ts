import { useEffect, useRef } from 'react'

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/**
 * Runs something when a key is pressed outside a text box. Names are as in KeyboardEvent.key, with Ctrl+ or Alt+ before them;
 * those with Ctrl or Alt work inside a text box too unless `outside` lists them.
 */
export function useKeys(keys: Record<string, (e: KeyboardEvent) => void>, outside: string[] = []) {
  const latest = useRef({ keys, outside })
  latest.current = { keys, outside }
  useEffect(() => {
    const pressed = (e: KeyboardEvent) => {
      const chord = e.ctrlKey || e.metaKey ? 'Ctrl+' : e.altKey ? 'Alt+' : ''
      const name = chord + (e.key.length === 1 ? e.key.toLowerCase() : e.key)
      const run = latest.current.keys[name]
      if (!run || e.defaultPrevented || (typing(e.target) && (chord === '' || latest.current.outside.includes(name)))) return
      e.preventDefault()
      run(e)
    }
    window.addEventListener('keydown', pressed)
    return () => window.removeEventListener('keydown', pressed)
  }, [])
}
