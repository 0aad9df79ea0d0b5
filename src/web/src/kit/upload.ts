import { messageOf } from './api'

/** Sends a file as it is. Fails with the server's message where it is refused. */
export async function upload<T>(address: string, file: Blob): Promise<T> {
  const response = await fetch(address, { method: 'POST', headers: { 'content-type': 'application/octet-stream' }, body: file })
  const answer = await response.json()
  if (!response.ok) throw new Error(messageOf(answer, response.status))
  return answer
}
