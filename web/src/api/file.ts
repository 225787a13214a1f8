/** A file from the server, saved by the browser. A refusal is told like any other, and the screen stays. */
import { refusedBy, Refused, UNREACHED } from './client'

/** Throws `Refused`. */
export async function takeOut(address: string): Promise<void> {
  let answer
  try {
    answer = await fetch(address)
  } catch {
    throw new Refused(UNREACHED)
  }
  if (!answer.ok) throw refusedBy(answer, await answer.json().catch(() => undefined))
  const name = /filename\*=UTF-8''([^;]+)/.exec(answer.headers.get('Content-Disposition') ?? '')?.[1] ?? 'formula'
  const link = document.createElement('a')
  link.href = URL.createObjectURL(await answer.blob())
  link.download = decodeURIComponent(name)
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000) // long after the browser has begun to save it
}
