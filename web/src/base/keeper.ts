/** What keeping something asks of it, and says of it. */

/** kept: on the server · keeping: on its way · away: only in this browser, tried again · behind: another window was first. */
export type Keeping = 'kept' | 'keeping' | 'away' | 'behind'

/** How one kind of thing is had from the server and sent there. */
export interface Keeper<T, S, K extends number | string = number> {
  /** Stands in the name of the copy in this browser. */
  kind: string
  empty: () => T
  fetch: (id: K) => Promise<S>
  start: (body: T) => Promise<S>
  put: (id: K, body: T, version: number) => Promise<S>
  /** What the server's state says of it. */
  read: (state: S) => { id: K; version: number; body: T }
  /** A copy in this browser as it would be now, where an earlier release may have left it. */
  broughtUp?: (body: T) => T
  /** It as one of its own, beside what another window left. */
  asOwn?: (body: T) => T
  /** A new one got its number. */
  started: (id: K) => void
}
