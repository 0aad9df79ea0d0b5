import { act, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Suspense, use } from 'react'
import { createMemoryRouter, createPath, Link, NavigationType, parsePath, Router, RouterProvider, type To, useLocation } from 'react-router'
import { describe, expect, test } from 'vitest'
import { useAddress } from '../../src/web/src/kit/address'
import { show } from './screen'

function View() {
  const [params, set] = useAddress()
  const { search } = useLocation()
  return (
    <>
      <p data-testid="view">{params.toString()}</p>
      <p data-testid="bar">{search}</p>
      <button type="button" onClick={() => set({ at: 'bird house', side: null })}>
        at
      </button>
      <button type="button" onClick={() => set({ side: 'takes' })}>
        side
      </button>
      <button type="button" onClick={() => set({ term: 'owl' }, true)}>
        push
      </button>
      <Link to="/1/fair-us/write?at=linked">link</Link>
    </>
  )
}

const view = () => screen.getByTestId('view').textContent
const bar = () => screen.getByTestId('bar').textContent

describe('what the address remembers', () => {
  test('a change is there at once, the address a moment later, and none is lost on the way', async () => {
    const { hands } = show(<View />)
    await hands.click(screen.getByText('side'))
    await hands.click(screen.getByText('at'))
    expect(view()).toBe('at=bird+house')
    await waitFor(() => expect(bar()).toBe('?at=bird+house'))
    await hands.click(screen.getByText('side'))
    await hands.click(screen.getByText('push'))
    expect([view(), bar()]).toEqual(['at=bird+house&side=takes&term=owl', '?at=bird+house&side=takes&term=owl'])
  })

  test('a link moves the view', async () => {
    const { hands } = show(<View />, [], '/1/fair-us/write?side=read')
    expect(view()).toBe('side=read')
    await hands.click(screen.getByText('link'))
    await waitFor(() => expect(view()).toBe('at=linked'))
  })

  test('an address that arrives late does not take back what was changed since; Back does', async () => {
    const asked: To[] = []
    const navigator = { createHref: () => '', go: () => {}, push: (to: To) => asked.push(to), replace: (to: To) => asked.push(to) }
    const at = (to: To, type = NavigationType.Replace) => (
      <Router navigator={navigator} navigationType={type} location={typeof to === 'string' ? parsePath(to) : createPath(to)}>
        <View />
      </Router>
    )
    const { rerender } = render(at('/1/fair-us/write'))
    const hands = userEvent.setup()
    await hands.click(screen.getByText('side'))
    await waitFor(() => expect(asked).toHaveLength(1))
    await hands.click(screen.getByText('at'))
    await waitFor(() => expect(asked).toHaveLength(2))
    act(() => rerender(at(asked[0] as To)))
    expect(view()).toBe('at=bird+house')
    act(() => rerender(at(asked[1] as To)))
    expect([view(), bar()]).toEqual(['at=bird+house', '?at=bird+house'])
    await hands.click(screen.getByText('side'))
    act(() => rerender(at('/1/fair-us/write?at=before', NavigationType.Pop)))
    expect(view()).toBe('at=before')
  })

  test('a change does not follow to another screen that is still on its way', async () => {
    const never = new Promise<never>(() => {})
    function Slow() {
      return use(never)
    }
    const router = createMemoryRouter(
      [
        { path: '/a', element: <View /> },
        { path: '/b', element: <Slow /> },
      ],
      { initialEntries: ['/a'] },
    )
    render(
      <Suspense>
        <RouterProvider router={router} />
      </Suspense>,
    )
    await userEvent.click(screen.getByText('at'))
    await router.navigate('/b')
    await new Promise((done) => setTimeout(done, 300))
    expect(router.state.location.pathname + router.state.location.search).toBe('/b')
  })

  test('the parts of a screen change one address: none writes over another, and what a part changed before it went stays', async () => {
    function Part() {
      const [, set] = useAddress()
      return (
        <button type="button" onClick={() => set({ at: 'clear', go: '1' })}>
          part
        </button>
      )
    }
    function Whole() {
      const [params, set] = useAddress()
      const { search } = useLocation()
      return (
        <>
          <p data-testid="view">{params.toString()}</p>
          <p data-testid="bar">{search}</p>
          {params.get('go') === null && <Part />}
          <button type="button" onClick={() => set({ view: 'places', go: null })}>
            whole
          </button>
        </>
      )
    }
    const { hands } = show(<Whole />)
    await hands.click(screen.getByText('part'))
    expect(view()).toBe('at=clear&go=1')
    expect(screen.queryByText('part')).toBeNull()
    await hands.click(screen.getByText('whole'))
    expect(view()).toBe('at=clear&view=places')
    await waitFor(() => expect(bar()).toBe('?at=clear&view=places'))
    expect(view()).toBe('at=clear&view=places')
  })
})
