/** What is only done the first time, in this window. */
import { windowStore } from './storage'

const TOUR = 'pancount:tour'

/** The next formula that is opened shows the way round. */
export const tourIsDue = (): void => windowStore.setItem(TOUR, 'due')

/** Whether it is due; it is not from then on. */
export function takeTourDue(): boolean {
  const due = windowStore.getItem(TOUR) === 'due'
  windowStore.removeItem(TOUR)
  return due
}

const WELCOMED = 'pancount:welcomed'

/** The welcome is offered once in a window; what was skipped is not asked again by itself. */
export const welcomed = (): void => windowStore.setItem(WELCOMED, 'yes')
export const wasWelcomed = (): boolean => windowStore.getItem(WELCOMED) !== null
