/** Photos on their way to the book, one after the other. */
import { api, ask, refusedBy, Refused, UNREACHED, type PhotoHead } from '@/api/client'

/** What a browser is asked for; a telephone turns its own kind into one of them. */
export const PHOTO_KINDS = 'image/jpeg,image/png,image/webp'
export const photoAddress = (id: string, small = false): string => `/api/book/photos/${id}${small ? '?small=true' : ''}`

/** Throws `Refused`. Sent again under the same id, it is one photo. */
export async function sendPhoto(bake: string, id: string, file: Blob, square: boolean): Promise<PhotoHead> {
  let answer
  try {
    answer = await fetch(`/api/book/bakes/${bake}/photos?id=${id}&square=${square}`, { method: 'POST', body: file, headers: { 'Content-Type': 'application/octet-stream' } })
  } catch {
    throw new Refused(UNREACHED)
  }
  const told: unknown = await answer.json().catch(() => undefined)
  if (!answer.ok) throw refusedBy(answer, told)
  return told as PhotoHead
}

export const changePhoto = (photo: PhotoHead, change: Partial<PhotoHead>): Promise<PhotoHead> =>
  ask(api.PUT('/api/book/photos/{photo_id}', { params: { path: { photo_id: photo.id } }, body: { caption: change.caption ?? photo.caption, square: change.square ?? photo.square } }))
export const dropPhoto = (photo: PhotoHead): Promise<unknown> => ask(api.DELETE('/api/book/photos/{photo_id}', { params: { path: { photo_id: photo.id } } }))
