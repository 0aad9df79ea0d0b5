/**
 * A server made by hand for tests of the front end. To be imported before what it serves: the client takes hold of fetch when it is made.
 */
export type Asked = { url: string; method: string; body: unknown }

let answer: (asked: Asked, request: Request) => Promise<Response> | Response = () => new Response(null, { status: 404 })

/** Answers every question from now on in this way. */
export function serve(how: typeof answer) {
  answer = how
}

export const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } })

const Plain = globalThis.Request

globalThis.Request = class extends Plain {
  constructor(url: RequestInfo | URL, init?: RequestInit) {
    super(typeof url === 'string' ? new URL(url, 'http://shop') : url, init)
    // The page that is stood in for does not tell it.
    Object.defineProperty(this, 'keepalive', { value: init?.keepalive ?? false })
  }
}

globalThis.fetch = async (input, init) => {
  const request = new globalThis.Request(input as RequestInfo, init)
  const text = await request.text()
  return answer({ url: new URL(request.url).pathname, method: request.method, body: text ? JSON.parse(text) : null }, input as Request)
}
