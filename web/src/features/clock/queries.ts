import { asking, useQuestion } from '../../api/ask'
import type { ClockAnswer, ClockDocument, FormulaDocument, Kitchen } from '../../api/client'
import { useKitchen } from '../kitchen/queries'
import type { ClockChoice } from './choice'

/** The kitchen's own places as they were read, where nobody says otherwise. */
function asRead(places: ClockChoice['places'], kitchen: Kitchen | undefined): ClockChoice['places'] {
  return places.map((place) => {
    const h = place.h ?? kitchen?.places?.find((own) => own.place === place.place)?.h
    return h == null ? place : { ...place, h }
  })
}

function asked(formula: FormulaDocument, choice: ClockChoice, kitchen: Kitchen | undefined): ClockDocument {
  const { vessel, kg, startC, roomC, at, rule, probe } = choice
  // A reading says how the place is: what was read before is not put before it.
  const places = probe ? choice.places : asRead(choice.places, kitchen)
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
  const body = asked(formula, choice, useKitchen().data)
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
