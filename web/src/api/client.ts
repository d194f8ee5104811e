import createClient from 'openapi-fetch'
import { DEVICE_HEADER, deviceName } from './device'
import { EPOCH_HEADER, noteEpoch } from './epoch'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type FormulaDocument = Schemas['FormulaDocument']
export type Assessment = Schemas['Assessment']
export type Way = Schemas['Way']
export type Ways = Schemas['Ways']
export type Swaps = Schemas['Swaps']
export type SwapAsk = Schemas['SwapAsk']
export type SwapOption = Schemas['SwapOption']
export type Avoid = Schemas['Avoid']
export type Goal = Schemas['Goal']
export type Rescue = Schemas['Rescue']
export type RescueAsk = Schemas['RescueAsk']
export type RemedyAnswer = Schemas['RemedyAnswer']
export type StepAnswer = Schemas['StepAnswer']
export type Sign = Schemas['Sign']
export type Overpour = Schemas['Overpour']
export type OverpourWay = Schemas['OverpourWay']
export type ScaleAsk = Schemas['ScaleAsk']
export type Scaled = Schemas['Scaled']
export type Shares = Schemas['Shares']
export type ClockDocument = Schemas['ClockDocument']
export type BoilDocument = Schemas['BoilDocument']
export type BoilAnswer = Schemas['BoilAnswer']
export type ClockAnswer = Schemas['ClockAnswer']
export type VesselDocument = Schemas['VesselDocument']
export type VesselKind = Schemas['VesselKind']
export type StandDocument = Schemas['StandDocument']
export type Surroundings = Schemas['Surroundings']
export type MethodSheet = Schemas['MethodSheet']
export type MethodStep = Schemas['MethodStep']
export type Point = Schemas['Point']
export type Job = Schemas['Job']
export type Ask = Schemas['Ask']
export type Family = Schemas['Family']
export type FamilyEntry = Schemas['FamilyEntry']
export type FamilyJob = Schemas['FamilyJob']
export type Process = NonNullable<FormulaDocument['process']>
export type Phase = Schemas['Phase']
export type PhaseShares = Schemas['PhaseShares']
export type IngredientEntry = Schemas['IngredientEntry']
export type IngredientDetail = Schemas['IngredientDetail']
export type IngredientDocument = Schemas['IngredientDocument']
export type KitchenValues = Schemas['KitchenValues']
export type Label = Schemas['Label']
export type Inferred = Schemas['Inferred']
export type ImportAnswer = Schemas['ImportAnswer']
export type Part = Schemas['Part']
export type Comparison = Schemas['Comparison']
export type Kitchen = Schemas['Kitchen']
export type Words = Schemas['Words']
export type Component = Schemas['Component']
export type ComponentSummary = Schemas['ComponentSummary']
export type Version = Schemas['Version']
export type Problem = Schemas['Problem']
export type Fault = Schemas['Fault']
export type History = Schemas['History']
export type StackDocument = Schemas['StackDocument']
export type Tier = Schemas['Tier']
export type Layer = Schemas['Layer']
export type Body = Schemas['Body']
export type Bake = Schemas['Bake']
export type StackAnswer = Schemas['StackAnswer']
export type TierAnswer = Schemas['TierAnswer']
export type PlaceAnswer = Schemas['PlaceAnswer']
export type PlaceKind = Schemas['PlaceKind']
export type PlaceStep = Schemas['Step']
export type PartAnswer = Schemas['PartAnswer']
export type Finding = Schemas['Finding']
export type Mend = Schemas['Mend']
export type Size = Schemas['Size']
export type BenchWork = Schemas['BenchWork']
export type Standing = Schemas['Standing']
export type Cut = Schemas['Cut']
export type Template = Schemas['Template']
export type Beginnings = Schemas['Beginnings']
export type Resized = Schemas['Resized']
export type ResizeAsk = Schemas['ResizeAsk']
export type ReadLine = Schemas['ReadLine']
export type Order = Schemas['Order']
export type OrderDocument = Schemas['OrderDocument']
export type OrderedCake = Schemas['OrderedCake']
export type OrderSummary = Schemas['OrderSummary']
export type OrderAnswer = Schemas['OrderAnswer']
export type Batch = Schemas['Batch']
export type TapeLabel = Schemas['TapeLabel']
export type Without = Schemas['Without']
export type KitchenDocument = Schemas['KitchenDocument']
export type WeekHours = Schemas['WeekHours']
export type CookDocument = Schemas['CookDocument']
export type Weekday = Schemas['Weekday']
export type PlanDocument = Schemas['PlanDocument']
export type PlanReply = Schemas['PlanReply']
export type PlanProgress = Schemas['PlanProgress']
export type PlanAsk = Schemas['PlanAsk']
export type DayView = Schemas['DayView']
export type ViewStep = Schemas['ViewStep']
export type ViewWait = Schemas['ViewWait']
export type ViewOrder = Schemas['ViewOrder']
export type ViewDay = Schemas['ViewDay']
export type Quicker = Schemas['Quicker']
export type Happened = Schemas['Happened']
export type Bent = Schemas['Bent']
export type BendAsk = Schemas['BendAsk']
export type CureAsk = Schemas['CureAsk']
export type Taken = Schemas['Taken']
export type Report = Schemas['Report']
export type KeptReport = Schemas['KeptReport']
export type RunSheet = Schemas['RunSheet']
export type OddsAnswer = Schemas['OddsAnswer']
export type BatchAsk = Schemas['BatchAsk']
export type BatchNow = Schemas['BatchNow']
export type LogLine = Schemas['LogLine']
export type LogPage = Schemas['LogPage']
export type LogCounts = Schemas['LogCounts']
export type LogCounted = Schemas['LogCounted']
export type LogRead = Schemas['LogRead']
export type Beside = Schemas['Beside']
export type BesideRow = Schemas['BesideRow']
export type Picture = Schemas['Picture']
export type Pictures = Schemas['Pictures']
export type BatchView = Schemas['BatchView']
export type BatchLine = Schemas['BatchLine']
export type DeviceNow = Schemas['DeviceNow']
export type DeviceSettings = Schemas['DeviceSettings']
export type DeviceAddress = Schemas['DeviceAddress']
export type DeviceAsk = Schemas['DeviceAsk']
export type WarmFridge = Schemas['WarmFridge']
export type BatchArrival = Schemas['BatchArrival']
export type BenchTest = Schemas['BenchTest']
export type BenchTestKind = Schemas['BenchTestKind']
export type BenchFit = Schemas['BenchFit']
export type BatchTestDone = Schemas['BatchTest']
export type TookMinutes = Schemas['TookMinutes']
export type KitchenLearned = Schemas['KitchenLearned']
export type KitchenMeasured = Schemas['KitchenMeasured']
export type LearnedOffset = Schemas['LearnedOffset']
export type LearnedReading = Schemas['LearnedReading']
export type SetBackNamed = Schemas['SetBackNamed']
export type LearningEvent = Schemas['LearningEvent']
export type MeasuredKind = Schemas['MeasuredKind']
export type MeasuredPoint = Schemas['MeasuredPoint']
export type OverTime = Schemas['OverTime']
export type OffsetHistory = Schemas['OffsetHistory']
export type AnswerLearned = Schemas['AnswerLearned']
export type TrainerAsk = Schemas['TrainerAsk']
export type TrainerAsked = Schemas['TrainerAsked']
export type TrainerChoice = Schemas['TrainerChoice']
export type TrainerJudged = Schemas['TrainerJudged']
export type TrainerKind = Schemas['TrainerKind']
export type TrainerLine = Schemas['TrainerLine']
export type TrainerNow = Schemas['TrainerNow']
export type TrainerScore = Schemas['TrainerScore']
export type SpoonSeen = Schemas['SpoonSeen']
export type OwnBowl = Schemas['OwnBowl']
export type SpoonToSee = Schemas['SpoonToSee']
export type WarmthPoint = Schemas['WarmthPoint']
export type SpoonSign = Schemas['SpoonSign']
export type BatchTimer = Schemas['BatchTimer']
export type BatchEvent = Schemas['BatchEvent']
export type NewBatchEvent = Schemas['NewBatchEvent']
export type ViewBatchStep = Schemas['ViewBatchStep']
export type Happening = Schemas['Happening']
export type Came = Schemas['Came']
export type ListKind = 'shopping' | 'weighing' | 'bill' | 'labels'
export type ReadFile = Schemas['ReadFile']

/** The header under which a save goes out: the same id again gets the same answer. */
export function savingAs(saveId: string) {
  return { 'Idempotency-Key': saveId }
}

/** The server said no, and said why. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

/** Told to the window whenever a call got no answer, so that the notice need not wait for its turn. */
export const SILENT = 'bright-spoon:silent'

/** The server did not answer. */
export class OfflineError extends Error {
  constructor() {
    super('The server is not answering.')
  }
}

function isProblem(value: unknown): value is Problem {
  return typeof value === 'object' && value !== null && 'code' in value && 'detail' in value
}

export const api = createClient<paths>({ baseUrl: window.location.origin })
api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set(DEVICE_HEADER, encodeURIComponent(deviceName()))
    return undefined
  },
  async onResponse({ response }) {
    noteEpoch(response.headers.get(EPOCH_HEADER))
    if (response.ok) return undefined
    const told: unknown = await response
      .clone()
      .json()
      .catch(() => null)
    throw isProblem(told) ? new ProblemError(told) : new OfflineError()
  },
})

/** What came of a call, or what went wrong in a form the page can show: also when the answer broke off half way. */
export async function heard<T>(call: Promise<T>): Promise<T> {
  try {
    return await call
  } catch (cause) {
    if (cause instanceof ProblemError) throw cause
    // A fetch that got no answer rejects with a TypeError; an abandoned one must stay abandoned.
    if (cause instanceof DOMException && cause.name === 'AbortError') throw cause
    window.dispatchEvent(new Event(SILENT))
    throw new OfflineError()
  }
}

/** What came of a call that is made once: a save, or a reading at the press of a button. */
export async function answer<T>(call: Promise<{ data?: T }>): Promise<T> {
  return (await heard(call)).data as T
}
