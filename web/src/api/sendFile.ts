import { Failure } from './client'

/** Send a file as it is; the answer's data, or a `Failure` that says what is wrong with the file. */
export async function sendFile<T>(address: string, file: Blob): Promise<T> {
  const token = /csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
  const answer = await fetch(address, {
    method: 'POST',
    body: file,
    headers: { 'X-CSRFToken': token, 'Content-Type': 'application/octet-stream' },
  }).catch(() => null)
  if (!answer) throw new Failure(0, 'offline', 'The workshop’s server can’t be reached.')
  const body = (await answer.json().catch(() => ({}))) as Record<string, unknown>
  if (!answer.ok)
    throw new Failure(answer.status, String(body.code ?? 'fault'), String(body.message ?? 'The file was not taken.'))
  return body as T
}
