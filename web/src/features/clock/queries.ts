import { asking, useQuestion } from '../../api/ask'
import type { ClockAnswer, ClockDocument, FormulaDocument } from '../../api/client'
import type { ClockChoice } from './choice'

function asked(formula: FormulaDocument, choice: ClockChoice): ClockDocument {
  const { vessel, places, kg, startC, roomC, at, rule, probe } = choice
  const work = roomC === null ? formula.work : { ...formula.work, room_temperature_c: roomC }
  return {
    formula: { ...formula, work },
    vessel,
    places,
    ...(kg === null ? {} : { kg }),
    ...(startC === null ? {} : { start_c: startC }),
    ...(/^\d{1,2}:\d\d$/.test(at) ? { at } : {}),
    rule,
    ...(probe ? { probe } : {}),
  }
}

function clockOf(reply: unknown): ClockAnswer | undefined {
  // To a formula the answer is its clock.
  return reply && typeof reply === 'object' && 'curve' in reply ? (reply as ClockAnswer) : undefined
}

/**
 * When it is ready. The way and the window follow a hand that drags; what would be sooner and safer comes when it rests.
 */
export function useClock(formula: FormulaDocument, choice: ClockChoice, on: boolean) {
  const body = asked(formula, choice)
  const whole = useQuestion(asking('post', '/api/clock', { body }), on)
  const brief = useQuestion(asking('post', '/api/clock', { body: { ...body, brief: true } }), on, 0)
  const full = whole.current ? clockOf(whole.found) : undefined
  const quick = clockOf(brief.found)
  return {
    answer: full ?? quick,
    /** What would be sooner and safer, of this very question. */
    full,
    before: clockOf(whole.before),
    faults: brief.faults,
    wrong: brief.wrong ?? whole.wrong,
    offline: brief.offline,
  }
}
