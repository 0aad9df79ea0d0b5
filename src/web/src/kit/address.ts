import { useCallback, useContext, useEffect, useRef, useSyncExternalStore } from 'react'
import { UNSAFE_DataRouterContext as RouterContext, useLocation, useNavigationType, useSearchParams } from 'react-router'

export type Changes = Record<string, string | null | undefined>

/** Parameters with some of them changed; what has no value is taken out. */
export function withChanges(params: URLSearchParams, changes: Changes) {
  const next = new URLSearchParams(params)
  for (const [key, value] of Object.entries(changes)) value ? next.set(key, value) : next.delete(key)
  return next
}

/** What the address is about to become: one for all parts of a screen, so that none writes over what another has just changed. */
type Pending = { path: string; from: string; next: URLSearchParams }

const FollowsAfter = 120

let pending: Pending | null = null
// The addresses that were asked for and may still arrive, in a browser that is slow: none of them is somebody else's change.
const written = new Set<string>()
let timer: ReturnType<typeof setTimeout> | undefined
let users = 0
const listeners = new Set<() => void>()

function become(next: Pending | null) {
  clearTimeout(timer)
  pending = next
  if (!next) written.clear()
  for (const l of listeners) l()
}

const subscribe = (l: () => void) => {
  listeners.add(l)
  return () => listeners.delete(l)
}

/**
 * What the address remembers of a view. A change is there at once, in every part of the screen, so that no key is lost however fast one
 * types; the address itself follows a moment later. `push` makes a step that Back returns from.
 */
export function useAddress() {
  const [params, setParams] = useSearchParams()
  const { pathname } = useLocation()
  const router = useContext(RouterContext)?.router
  const type = useNavigationType()
  const waiting = useSyncExternalStore(subscribe, () => pending)
  const own = waiting?.path === pathname ? waiting.next : params
  const latest = useRef({ params, setParams, pathname, router })
  latest.current = { params, setParams, pathname, router }

  useEffect(() => {
    if (!pending) return
    const now = params.toString()
    const isThere = now === pending.next.toString()
    // A link, Back or Forward moved the address: the view follows.
    const wasMoved = pending.path !== pathname || (now !== pending.from && (type === 'POP' || !written.has(now)))
    if (isThere || wasMoved) become(null)
  }, [params, pathname, type])
  useEffect(() => {
    users++
    return () => {
      if (--users === 0) become(null)
    }
  }, [])

  const set = useCallback((changes: Changes, push = false) => {
    const at = latest.current
    const before = pending?.path === at.pathname ? pending : null
    const next = withChanges(before?.next ?? at.params, changes)
    become({ path: at.pathname, from: before?.from ?? at.params.toString(), next })
    const follow = () => {
      if (pending?.next !== next) return
      // Another screen is on its way, and this one has not been told yet: its address is not this one's.
      const now = latest.current.router?.state.location.pathname
      if (now !== undefined && now !== at.pathname) return become(null)
      const address = next.toString()
      if (address === latest.current.params.toString()) return become(null)
      written.add(address)
      latest.current.setParams(next, { replace: !push })
    }
    if (push) follow()
    else timer = setTimeout(follow, FollowsAfter)
  }, [])
  return [own, set] as const
}
