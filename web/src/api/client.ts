/** The server, typed by its own OpenAPI document. Only this file knows how it is reached. */
import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Formula = Schemas['Formula']
export type Stage = Schemas['Stage']
export type StageKind = Stage['kind']
export type Beside = Schemas['Beside']
export type BesideKind = Beside['kind']
export type Line = Schemas['Line']
export type Role = Schemas['Role']
export type Count = Schemas['Count']
export type Pins = Schemas['Pins']
export type Target = Schemas['Target']
export type TargetPins = Schemas['TargetPins']
export type PinName = keyof Pins | keyof TargetPins
export type Limit = Schemas['Limit']
export type LimitState = Schemas['LimitState']
export type Pan = NonNullable<Target['pan']>
export type ShelfPan = Schemas['ShelfPan']
export type PanState = Schemas['PanState']
export type Measured = Schemas['Measured']
export type InPan = Schemas['InPan']
export type StandIn = Schemas['StandIn']
export type Kit = Schemas['Kit']
export type Turns = Schemas['Turns']
export type Shaped = Schemas['Shaped']
export type Shaping = Schemas['Shaping']
export type Derived = Schemas['Derived']
export type Solid = Schemas['Solid']
export type Whole = Schemas['Whole']
export type Known = Pick<Schemas['Counting'], 'own' | 'practice' | 'kit' | 'climate' | 'scale'>
export type Way = Schemas['Way']
export type Step = Schemas['Step']
export type Takes = Schemas['Takes']
export type Method = Schemas['Method']
export type MethodSheet = Schemas['MethodSheet']
export type StepFigures = Schemas['StepFigures']
export type RiseFigures = Schemas['RiseFigures']
export type Lever = Schemas['Lever']
export type StepKind = Schemas['StepKind']
export type SideBySide = Schemas['SideBySide']
export type Climate = Schemas['Climate']
export type Today = Schemas['Today']
export type Practice = Schemas['Practice']
export type Row = Schemas['Row']
export type Gauge = Schemas['Gauge']
export type GaugeName = Gauge['key']
export type Remark = Schemas['Remark']
export type Change = Schemas['Changing']['change']
export type Changed = Schemas['Changed']
export type Compared = Schemas['Compared']
export type ComparedLine = Schemas['ComparedLine']
export type KindRule = Schemas['KindRule']
export type Worked = Schemas['Worked']
export type Choice = Schemas['Choice']
export type Fight = Schemas['Fight']
export type Panned = Schemas['Panned']
export type Reference = Schemas['Reference']
export type Ingredient = Schemas['Ingredient']
export type PantryItem = Schemas['PantryItem']
export type Use = Schemas['Use']
export type WeighedCup = Schemas['WeighedCup']
export type CupWeighing = Schemas['CupWeighing']
export type Habits = Schemas['Habits']
export type TakenIn = Schemas['TakenIn']
export type TakenLine = Schemas['TakenLine']
export type Thing = Schemas['Thing']
export type Settled = Schemas['Settled']
export type Asked = Schemas['Asked']
export type Figure = Schemas['Figure']
export type Band = Schemas['Band']
export type TakingState = Schemas['TakingState']
export type TakingHead = Schemas['TakingHead']
export type Table = Schemas['Table']
export type Settings = Schemas['Settings']
export type Revision = Schemas['Revision']
export type FormulaHead = Schemas['FormulaHead']
export type FormulaState = Schemas['FormulaState']
export type Problem = Schemas['Problem']
export type Day = Schemas['Day']
export type DayProduct = Schemas['DayProduct']
export type Absence = Schemas['Absence']
export type Mark = Schemas['Mark']
export type DayState = Schemas['DayState']
export type DayHead = Schemas['DayHead']
export type DayPage = Schemas['DayPage']
export type TypedCount = Schemas['TypedCount']
export type PlanProgress = Schemas['Progress']
export type Timetable = Schemas['Timetable']
export type Doing = Schemas['Doing']
export type Giving = Schemas['Giving']
export type Slide = Schemas['Slide']
export type Offer = Schemas['Offer']
export type DayFigure = Schemas['DayFigure']
export type BakeState = Schemas['BakeState']
export type BakeNow = Schemas['BakeNow']
export type BakeHead = Schemas['BakeHead']
export type BakeCard = Schemas['BakeCard']
export type LineNow = Schemas['LineNow']
export type TaskNow = Schemas['TaskNow']
export type TimerNow = Schemas['TimerNow']
export type BenchEvent = Schemas['Event']
export type Deed = BenchEvent['what']
export type Question = Schemas['Decision']
export type OnScale = Schemas['OnScale']
export type MadeTarget = Schemas['MadeTarget']
export type PieceStrip = Schemas['PieceStrip']
export type Beginning = Schemas['Beginning']
export type BookHead = Schemas['BookHead']
export type BookPage = Schemas['BookPage']
export type BookEntry = Schemas['Entry']
export type BookBakePage = Schemas['BakePage']
export type BookPoint = Schemas['Point']
export type Outcome = Schemas['Outcome']
export type BakeRecord = Schemas['Record']
export type StepWas = Schemas['StepWas']
export type PhotoHead = Schemas['PhotoHead']
export type BesidePage = Schemas['BesidePage']
export type BesideRow = Schemas['BesideRow']
export type KitchensFigure = Schemas['KitchensFigure']
export type LearnedPage = Schemas['LearnedPage']
export type TastingState = Schemas['TastingState']
export type Tasted = Schemas['Tasted']
export type WriteIn = Schemas['WriteIn']
export type BookBlank = Schemas['Blank']

export const api = createClient<paths>({ baseUrl: '' })

/** What the server, or the way to it, refused. `problem.status` is 0 where nothing answered. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
  get isAway(): boolean {
    return this.problem.status === 0 || this.problem.status >= 502
  }
  get isBehind(): boolean {
    return this.problem.type === 'urn:pancount:problem:behind'
  }
}

export const UNREACHED: Problem = {
  type: 'urn:pancount:problem:unreached',
  title: 'Pan Count does not answer',
  status: 0,
  detail: 'Pan Count does not answer. Is it still running?',
  errors: [],
}

/** The data of an answer. Throws `Refused` with problem details for anything else, a lost connection included. */
export async function ask<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let got
  try {
    got = await answer
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw new Refused(UNREACHED)
  }
  if (got.response.ok) return got.data as T
  throw refusedBy(got.response, got.error)
}

/** What an answer that is no success says. One without problem details came from something that stands between. */
export function refusedBy(response: Response, body: unknown): Refused {
  const told = typeof body === 'object' && body !== null && 'detail' in body ? (body as Partial<Problem>) : null
  const unsaid = { title: 'That did not work', detail: `Pan Count answered with ${response.status} and no words. What you typed is still here; try again.` }
  return new Refused({ ...UNREACHED, ...unsaid, ...told, status: response.status })
}
