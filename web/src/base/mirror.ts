/** What has not reached the server, kept by this window in this browser, so that a reload does not lose it. */
import { browserStore, windowStore } from './storage'

const tab = windowStore.getItem('pancount:tab') ?? crypto.randomUUID()
windowStore.setItem('pancount:tab', tab)

export interface Mirrored<T> {
  /** The version that it rests on. */
  version: number
  body: T
}

/** `of` names what is kept; `broughtUp` makes a copy that an earlier release left one of today. */
export function useMirror<T>(of: () => string, broughtUp?: (body: T) => T) {
  const key = () => `pancount:${of()}:${tab}`
  return {
    write: (version: number, body: T): void => browserStore.setItem(key(), JSON.stringify({ version, body })),
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
