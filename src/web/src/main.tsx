import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { lazy, StrictMode, Suspense } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, Navigate, RouterProvider, useOutletContext } from 'react-router'
import { Dig } from './dig/page'
import { onSaved, restoreDrafts } from './kit/drafts/drafts'
import { afterSave } from './kit/drafts/saved'
import type { Desk } from './kit/shop'
import { WebShop } from './pages/page'
import { PickList } from './pick/page'
import { Broken, NotFound } from './shop/broken'
import { NewProduct, Start } from './shop/first'
import { Frame } from './shop/frame'
import { ListingsPage } from './shop/listings/page'
import { Login } from './shop/login'
import { Platforms } from './shop/platforms'
import { Settings } from './shop/settings'
import './theme.css'
import { Watch } from './watch/page'
import { ShopWatch } from './watch/shopwatch'
import { Weigh } from './weigh/page'
import { Write } from './write/page'

const cache = new QueryClient({ defaultOptions: { queries: { staleTime: 10_000, refetchOnWindowFocus: false, retry: 1 } } })
onSaved(afterSave(cache))

// The help brings a reader of Markdown with it, which no other screen needs.
const Help = lazy(async () => ({ default: (await import('./shop/help')).Help }))

function Step({ of: Of }: { of: (p: { desk: Desk }) => React.ReactNode }) {
  return <Of desk={useOutletContext<Desk>()} />
}

// A screen that fails is replaced by itself; what is around it goes on.
const screen = (path: string, element: React.ReactNode) => ({ path, element, errorElement: <Broken /> })

const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    children: [
      screen('/', <Start />),
      screen('/listings', <ListingsPage />),
      screen('/watch', <ShopWatch />),
      screen('/new', <NewProduct />),
      screen('/platforms', <Platforms />),
      screen('/pages', <WebShop />),
      screen('/settings', <Settings />),
      screen(
        '/help',
        <Suspense>
          <Help />
        </Suspense>,
      ),
      screen('/login', <Login />),
      {
        path: '/:productId/:marketId',
        element: <Frame />,
        errorElement: <Broken />,
        children: [
          { index: true, element: <Navigate to="dig" replace /> },
          screen('dig', <Step of={Dig} />),
          screen('pick', <Step of={PickList} />),
          screen('write', <Step of={Write} />),
          screen('weigh', <Step of={Weigh} />),
          screen('watch', <Step of={Watch} />),
          { path: '*', element: <NotFound /> },
        ],
      },
      { path: '*', element: <NotFound /> },
    ],
  },
])

restoreDrafts()
createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={cache}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
)
