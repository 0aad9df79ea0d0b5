import { useCallback, useEffect, useRef, useState } from 'react'
import { useSearchParams } from 'react-router'

export type Changes = Record<string, string | null | undefined>

/**
 * What the address remembers of a view. A change is there at once, so that no key is lost however fast one types; the address
 * itself follows a moment later. `push` makes a step that Back returns from.
 */
export function useAddress() {
  const [params, setParams] = useSearchParams()
  const [own, setOwn] = useState(() => new URLSearchParams(params))
  const latest = useRef(own)
  const written = useRef(params.toString())
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const write = useRef(setParams)
  write.current = setParams

  // A link, Back or Forward moved the address: the view follows.
  useEffect(() => {
    const now = params.toString()
    if (now === written.current) return
    clearTimeout(timer.current)
    written.current = now
    latest.current = new URLSearchParams(now)
    setOwn(latest.current)
  }, [params])
  useEffect(() => () => clearTimeout(timer.current), [])

  const set = useCallback((changes: Changes, push = false) => {
    const next = new URLSearchParams(latest.current)
    for (const [key, value] of Object.entries(changes)) value ? next.set(key, value) : next.delete(key)
    latest.current = next
    setOwn(next)
    clearTimeout(timer.current)
    const follow = () => {
      written.current = next.toString()
      write.current(next, { replace: !push })
    }
    if (push) follow()
    else timer.current = setTimeout(follow, 120)
  }, [])
  return [own, set] as const
}
