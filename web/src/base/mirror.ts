/** What has not reached the server, kept by this window in this browser, so that a reload does not lose it. */
import { browserStore, windowStore } from './storage'

const tab = windowStore.getItem('pancount:tab') ?? crypto.randomUUID()
windowStore.setItem('pancount:tab', tab)

export interface Mirrored<T> {
  /** The version that it rests on. */
  version: number
  body: T
  /** What was sent and never answered: it may be on the server all the same. */
  unanswered: T | null
}

/** `of` names what is kept; `broughtUp` makes a copy that an earlier release left one of today. */
export function useMirror<T>(of: () => string, broughtUp?: (body: T) => T) {
  const key = () => `pancount:${of()}:${tab}`
  return {
    write: (kept: Mirrored<T>): void => browserStore.setItem(key(), JSON.stringify(kept)),
    drop: (): void => browserStore.removeItem(key()),
    /** Null where nothing is kept, or nothing that can be read. */
    read(): Mirrored<T> | null {
      try {
        const own = JSON.parse(browserStore.getItem(key()) ?? 'null') as Mirrored<T> | null
        return own && { ...own, body: broughtUp?.(own.body) ?? own.body }
      } catch {
        return null
      }
    },
  }
}
