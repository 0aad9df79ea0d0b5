import { screen, waitFor } from '@testing-library/react'
import { Link, useLocation } from 'react-router'
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
})
