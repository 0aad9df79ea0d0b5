import { useSyncExternalStore } from 'react'

const query = () => window.matchMedia('(max-width: 760px)')

const subscribe = (changed: () => void) => {
  const narrow = query()
  narrow.addEventListener('change', changed)
  return () => narrow.removeEventListener('change', changed)
}

/** Whether the screen is as narrow as a phone's. */
export const useNarrow = () => useSyncExternalStore(subscribe, () => query().matches)
