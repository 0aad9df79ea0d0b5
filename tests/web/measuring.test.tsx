import { screen, waitFor } from '@testing-library/react'
import { beforeEach, expect, test } from 'vitest'
import { Measuring } from '../../src/web/src/kit/measuring'
import { show } from './screen'
import { type Asked, json, serve } from './server'

const idle = { done: 0, all: 0, measured: 0, isRunning: false, isStopped: false, problem: null, perDay: null, left: null }
let asked: Asked[] = []

function says(first: object, then: object = first) {
  asked = []
  serve((a) => {
    asked.push(a)
    if (a.method === 'POST') return new Response(null, { status: 204 })
    return json({ ...idle, ...(asked.some((b) => b.method === 'POST') ? then : first) })
  })
  show(<Measuring />)
}

const line = () => screen.findByTestId('measuring')

beforeEach(() => {
  asked = []
})

test('where nothing waits and nothing is limited, it says nothing', async () => {
  says({})
  await waitFor(() => expect(asked).toHaveLength(1))
  expect(screen.queryByTestId('measuring')).toBeNull()
})

test('while it works it says how many terms, and can be stopped and resumed', async () => {
  says({ done: 40, all: 120, isRunning: true }, { done: 40, all: 120, isStopped: true })
  expect((await line()).textContent).toContain('Looking up 120 terms without numbers')
  expect(screen.getByRole('progressbar').getAttribute('value')).toBe('40')
  screen.getByText('Stop').click()
  expect(await screen.findByText('Resume')).toBeTruthy()
  expect(asked.map((a) => `${a.method} ${a.url}`)).toContain('POST /api/measuring/stop')
  screen.getByText('Resume').click()
  await waitFor(() => expect(asked.map((a) => a.url)).toContain('/api/measuring/resume'))
})

test('what a metered source leaves of the day is said, and what waits for tomorrow', async () => {
  says({ done: 50, all: 80, perDay: 100, left: 1 })
  expect((await line()).textContent).toBe('30 terms without numbers wait until tomorrow.1 of 100 lookups left today')
})

test('a problem of the source is said', async () => {
  says({ done: 0, all: 8, problem: 'The market source can’t be reached.' })
  expect((await line()).textContent).toBe('The market source can’t be reached.')
})
