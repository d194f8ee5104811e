import type { BatchEvent, BatchLine, BatchView } from '../../api/client'

/** What no bench scale can tell from what a line may weigh, g: half of its finest step. */
export const READS_G = 0.05

/** Where a line stands with so much in; what was decided is the kitchen's to say. */
function stands(line: BatchLine): BatchLine['stands'] {
  const { from_g, to_g } = line.band
  if (line.in_g <= 0) return 'open'
  if (line.in_g > to_g + READS_G) return 'over'
  return line.in_g < from_g - READS_G ? 'short' : 'in'
}

function poured(line: BatchLine, grams: number): BatchLine {
  const own = {
    ...line,
    in_g: Math.round(100 * (line.in_g + grams)) / 100,
    still_g: Math.round(100 * (line.still_g - grams)) / 100,
  }
  return { ...own, stands: stands(own) }
}

/** What comes next of a view, as the kitchen would say. */
function next(view: BatchView): Pick<BatchView, 'line' | 'step'> {
  const waits = (at: number) => ['open', 'short', 'over'].includes(view.lines[at]?.stands ?? '')
  const line = view.order.find(waits)
  const at = view.steps.findIndex((step) => !step.done && !step.left_out)
  const step = at < 0 ? undefined : at
  if (line !== undefined) {
    const own = view.lines[line]?.step
    if (step === undefined || own == null || own <= step) return { line, step: null }
  }
  return { line: null, step: step ?? null }
}

type Waiting = readonly { id: string; at: string; event: BatchEvent }[]

/** What is taken back by what waits on this device. */
function takenBack(waiting: Waiting): Set<string> {
  return new Set(waiting.flatMap(({ event }) => (event.what === 'taken_back' ? [event.of] : [])))
}

/**
 * The last thing this device said of a batch, which a key takes back: first what still waits here, then what the kitchen
 * has. What another device said is not taken back by a key pressed here.
 */
export function lastSaid(view: BatchView, waiting: Waiting, device: string): string | undefined {
  const back = takenBack(waiting)
  const says = ({ id, event }: Waiting[number]) =>
    event.what !== 'taken_back' && event.what !== 'corrected' && !back.has(id)
  const here = [...waiting].reverse().find(says)
  if (here) return here.id
  return view.happened.find((own) => !own.taken_back && own.device === device && !back.has(own.id))?.id
}

/**
 * A batch with what is on this device and not in the kitchen's file yet, so that nobody weighs twice what was weighed while the
 * kitchen was away. What needs the model is said when the kitchen is back.
 */
export function withWaiting(view: BatchView, waiting: Waiting): BatchView {
  // What the kitchen has already, though its answer is still on its way, is in the view.
  const there = new Set(view.happened.map((own) => own.id))
  const back = takenBack(waiting)
  const events = waiting.filter((own) => !there.has(own.id) && !back.has(own.id))
  if (events.length === 0) return view
  let lines = view.lines
  let steps = view.steps
  const change = (at: number, by: (line: BatchLine) => BatchLine) => {
    lines = lines.map((line, own) => (own === at ? by(line) : line))
  }
  for (const { at, event } of events) {
    if (event.what === 'weighed') change(event.line, (line) => poured(line, event.grams))
    if (event.what === 'line_left_out') change(event.line, (line) => ({ ...line, stands: 'left_out' }))
    if (event.what === 'decided' && event.way !== 'scale') {
      change(event.line, (line) => ({ ...line, stands: 'settled' }))
    }
    if (event.what === 'done') {
      steps = steps.map((step) => (step.key === event.step ? { ...step, done: at } : step))
    }
    if (event.what === 'step_left_out') {
      steps = steps.map((step) => (step.key === event.step ? { ...step, left_out: true } : step))
    }
  }
  const ahead = { ...view, lines, steps }
  return { ...ahead, ...next(ahead) }
}
