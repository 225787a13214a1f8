/** What this browser keeps for us. Where it keeps nothing (site data blocked, a full store), this page keeps it until it is closed. */
function usable(store: () => Storage): Storage | null {
  try {
    const found = store()
    found.setItem('pancount:probe', '1')
    found.removeItem('pancount:probe')
    return found
  } catch {
    return null
  }
}

function keeping(store: Storage | null) {
  const page = new Map<string, string>()
  return {
    getItem: (key: string): string | null => page.get(key) ?? store?.getItem(key) ?? null,
    setItem(key: string, value: string): void {
      try {
        if (!store) throw new Error('this browser keeps nothing')
        store.setItem(key, value)
        page.delete(key)
      } catch {
        page.set(key, value)
      }
    },
    removeItem(key: string): void {
      page.delete(key)
      store?.removeItem(key)
    },
  }
}

/** Shared by all windows, and there after a restart. */
export const browserStore = keeping(usable(() => window.localStorage))
/** This window's own. */
export const windowStore = keeping(usable(() => window.sessionStorage))
