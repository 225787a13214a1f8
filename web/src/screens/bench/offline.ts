/** The bench's page, its fonts and scripts, and what it was told last, kept by the browser: a reload without the network goes on from there. */
let asked = false

export function keepsOffline(): void {
  if (asked || !('serviceWorker' in navigator) || !import.meta.env.PROD) return
  asked = true
  void navigator.serviceWorker.register('/sw.js').catch(() => undefined) // a browser that may not keep anything goes on without it
}
