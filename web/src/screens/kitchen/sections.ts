/** The sections of the kitchen's page, in the order of the work, and whether each has been told. */
import type { Settings } from '@/api/client'

export interface Section {
  key: 'name' | 'scale' | 'paper' | 'habits' | 'cups' | 'kit' | 'warmth' | 'practice' | 'book' | 'looks'
  title: string
  says: string
}
export const SECTIONS: readonly Section[] = [
  { key: 'name', title: 'Name', says: 'At the head of each sheet.' },
  { key: 'scale', title: 'Weights and scales', says: 'Sheets are rounded to the scale’s step, so that they add up on it.' },
  { key: 'habits', title: 'How this kitchen measures', says: 'Asked where a recipe comes in cups and spoons. What is not said stays a range.' },
  { key: 'cups', title: 'Your cups and spoons, weighed', says: 'Beats every table.' },
  { key: 'kit', title: 'Kit', says: 'What the kitchen bakes with. What is left open limits nothing.' },
  { key: 'warmth', title: 'Warmth', says: 'How warm it usually is, the mixer’s friction and the oven. What is otherwise today is said with the method.' },
  { key: 'paper', title: 'Lengths and paper', says: '' },
  { key: 'practice', title: 'How it is reckoned', says: 'Where bakers disagree.' },
  { key: 'book', title: 'The book', says: 'How bakes are scored, and how words in it are found.' },
  { key: 'looks', title: 'How it looks', says: 'In this browser alone.' },
]

/** What a kitchen is called before it is told. */
export const UNNAMED = 'My kitchen'

/** What of a section is still open, in a word; nothing where it stands well as it is. */
export function openOf(key: Section['key'], name: string, settings: Settings, cups: number): string {
  const { kit, habits } = settings
  if (key === 'name') return name === UNNAMED ? 'not told yet' : ''
  if (key === 'cups') return cups ? '' : 'none yet'
  if (key === 'habits') {
    const answers = Object.values(habits)
    const told = answers.filter(Boolean).length
    return told === answers.length ? '' : `${answers.length - told} of ${answers.length} open`
  }
  if (key !== 'kit') return ''
  const told = [kit.bowl_ml ?? kit.bowl_g, kit.sheet, kit.oven_length_cm].filter((one) => one != null).length
  return told === 3 ? '' : told ? 'part of it open' : 'not told yet'
}
