import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode, useEffect } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, Navigate, Outlet, RouterProvider, useLocation, useOutletContext } from 'react-router'
import { Dig } from './dig/dig'
import type { Place } from './kit/shop'
import { PickList } from './pick/pick'
import { NewProduct, Start } from './shop/first'
import { Frame } from './shop/frame'
import { Platforms } from './shop/platforms'
import './theme.css'
import { Weigh } from './weigh/weigh'
import { Write } from './write/write'

const cache = new QueryClient({ defaultOptions: { queries: { staleTime: 10_000, refetchOnWindowFocus: false, retry: 1 } } })

/** The address remembers where one is; the next start goes there. */
function Remember() {
  const { pathname, search } = useLocation()
  useEffect(() => {
    if (pathname.split('/').length > 3) localStorage.setItem('last', pathname + search)
  }, [pathname, search])
  return <Outlet />
}

function Step({ of: Of }: { of: (p: { place: Place }) => React.ReactNode }) {
  return <Of place={useOutletContext<Place>()} />
}

const router = createBrowserRouter([
  {
    element: <Remember />,
    children: [
      { path: '/', element: <Start /> },
      { path: '/new', element: <NewProduct /> },
      { path: '/platforms', element: <Platforms /> },
      {
        path: '/:productId/:marketId',
        element: <Frame />,
        children: [
          { index: true, element: <Navigate to="dig" replace /> },
          { path: 'dig', element: <Step of={Dig} /> },
          { path: 'pick', element: <Step of={PickList} /> },
          { path: 'write', element: <Step of={Write} /> },
          { path: 'weigh', element: <Step of={Weigh} /> },
        ],
      },
      { path: '*', element: <Navigate to="/" replace /> },
    ],
  },
])

createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={cache}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
)
