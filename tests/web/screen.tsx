import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, render } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactNode } from 'react'
import { MemoryRouter } from 'react-router'
import { afterEach } from 'vitest'

afterEach(cleanup)

/** Puts a part of the screen up as the application does, with what is known already, and gives hands to work it with. */
export function show(part: ReactNode, known: [readonly unknown[], unknown][] = [], at = '/1/fair-us/write') {
  const cache = new QueryClient({ defaultOptions: { queries: { retry: false, structuralSharing: false } } })
  for (const [key, data] of known) cache.setQueryData(key, data)
  const around = (inner: ReactNode) => (
    <QueryClientProvider client={cache}>
      <MemoryRouter initialEntries={[at]}>{inner}</MemoryRouter>
    </QueryClientProvider>
  )
  const shown = render(around(part))
  return { hands: userEvent.setup(), cache, again: (next: ReactNode) => shown.rerender(around(next)), root: shown.container }
}

export const text = (at: Element | null | undefined) => (at?.textContent ?? '').replace(/\u200b/g, '')
