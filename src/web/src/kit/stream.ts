import { messageOf } from './api'
import { messages } from './messages'

/** An answer that goes on for a while, one JSON value a line. A problem becomes an error that says what was wrong. */
export async function* lines<T>(url: string, body: unknown, signal: AbortSignal): AsyncGenerator<T> {
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
    signal,
  })
  if (!response.ok || !response.body) {
    const problem = await response.json().catch(() => null)
    throw new Error(messageOf(problem, response.status))
  }
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (;;) {
    const { done, value } = await reader.read()
    rest += value ?? ''
    const whole = rest.split('\n')
    rest = whole.pop() ?? ''
    for (const line of whole) {
      if (!line) continue
      const value = JSON.parse(line)
      if (typeof value.problem === 'string') throw new Error(value.problem)
      yield value
    }
    if (done) return
  }
}

/** Saves an answer as a file. */
export async function download(url: string, body: unknown) {
  const response = await fetch(url, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
  if (!response.ok) throw new Error(messages.answered(response.status))
  const name = /filename\*?=(?:UTF-8'')?"?([^";]+)/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'terms'
  const link = document.createElement('a')
  link.href = URL.createObjectURL(await response.blob())
  link.download = decodeURIComponent(name)
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}
