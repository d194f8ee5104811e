import { useMemo, useRef, useState } from 'react'
import type { CSSProperties, PointerEvent } from 'react'
import type { DayView, ViewStep } from '../../api/client'
import { useSize } from '../../lib/hooks'
import { chainOf, fillOf, lanesOf, runsOf, threadsOf } from './strip'
import type { Block, Thread } from './strip'
import { span, wallOf } from './time'
import type { Stage, Wall } from './time'

interface StripProps {
  view: DayView
  /** Which of its days. */
  day: number
  now: number
  selected: number | null
  onSelect: (step: number) => void
  stage: (step: ViewStep) => Stage
  /** A step is dragged to another minute; none where it may not be. */
  onDrag: ((step: number, to: number) => void) | null
  /** Steps that move, in a plan that is not used yet. */
  moved: ReadonlySet<number>
}

const LANE = 68
/** Of it, for the names above the blocks. */
const NAMES = 18
const MACHINE = 44
const THREAD = 27
const LABELS = 92
/** Narrower than this a minute is not drawn, px. */
const LEAST = 1.15
/** Of a letter of a label, px. */
const LETTER = 6.6

/** The day in lanes: hands, machines, what stands in the cold, and now. */
export function Strip(props: StripProps) {
  const { view, day, now } = props
  const outer = useRef<HTMLDivElement>(null)
  const { width } = useSize(outer)
  const wall = useMemo(() => wallOf(view), [view])
  const strip = view.days[day]?.strip
  const lanes = useMemo(() => (strip ? lanesOf(view, strip) : []), [view, strip])
  const [from, to] = [strip?.[0] ?? 0, strip?.[1] ?? 60]
  const perMinute = Math.max(LEAST, (Math.max(320, width) - LABELS - 24) / Math.max(60, to - from))
  const threads = useMemo(
    () =>
      strip ? threadsOf(view, strip, (own) => (threadWords(view, own).length * LETTER + 18) / perMinute) : [],
    [view, strip, perMinute],
  )
  const chain = useMemo(
    () => chainOf(view.steps.find((step) => step.step === props.selected)),
    [view, props.selected],
  )
  if (!strip) return null
  const inner = (to - from) * perMinute
  const x = (minute: number) => (minute - from) * perMinute
  const hours = Array.from({ length: Math.floor((to - from) / 60) + 1 }, (_, at) => from + 60 * at)
  const every = perMinute * 60 < 46 ? 2 : 1
  return (
    <div
      ref={outer}
      className="overflow-x-auto"
      role="group"
      aria-label={`The day in lanes, ${wall.date(from)}`}
    >
      <div className="relative" style={{ width: LABELS + inner + 24 }}>
        <div className="relative h-7" style={{ marginLeft: LABELS }} aria-hidden="true">
          {hours.map((hour, at) =>
            at % every === 0 ? (
              <span
                key={hour}
                className="absolute top-1 -translate-x-1/2 text-note text-ink2 first:translate-x-0"
                style={{ left: x(hour) }}
              >
                {wall.time(hour)}
              </span>
            ) : null,
          )}
        </div>
        <div className="relative">
          <Grid hours={hours} x={x} props={props} from={from} to={to} wall={wall} />
          {lanes.map((lane) => {
            const high = lane.cook === null ? MACHINE : LANE
            return (
              <div key={lane.key} className="relative flex border-b border-line">
                <div
                  className="flex shrink-0 items-center pr-2 font-[640]"
                  style={{ width: LABELS, height: high * lane.rows.length }}
                >
                  <span className="truncate">{lane.word}</span>
                </div>
                <div className="relative" style={{ width: inner, height: high * lane.rows.length }}>
                  {lane.cook !== null &&
                    lane.rows.map((row, at) =>
                      runsOf(row).map((run, place, all) => {
                        const room = ((all[place + 1]?.from ?? to) - run.from) * perMinute
                        const words = run.of.length * LETTER <= room - 4 ? run.of : null
                        return words === null ? null : (
                          <span
                            key={run.from}
                            aria-hidden="true"
                            className="pointer-events-none absolute z-10 text-small whitespace-nowrap"
                            style={{ left: x(run.from), top: at * high + 2 }}
                          >
                            {words}
                          </span>
                        )
                      }),
                    )}
                  {lane.rows.map((row, at) =>
                    row.map((block, place) => (
                      <StepBlock
                        key={`${block.step.step}-${lane.key}`}
                        block={block}
                        next={row[place + 1]?.from ?? to}
                        top={at * high + (lane.cook === null ? 5 : NAMES + 2)}
                        high={high - (lane.cook === null ? 10 : NAMES + 7)}
                        x={x}
                        perMinute={perMinute}
                        lit={chain.has(block.step.step)}
                        own={props.selected === block.step.step}
                        wall={wall}
                        of={props}
                        drags={lane.cook !== null}
                        of_machine={lane.cook === null}
                      />
                    )),
                  )}
                </div>
              </div>
            )
          })}
          {threads.length > 0 && (
            <div className="relative flex">
              <div className="flex shrink-0 items-center pr-2 font-[640]" style={{ width: LABELS }}>
                Standing
              </div>
              <div className="relative" style={{ width: inner, height: THREAD * threads.length + 4 }}>
                {threads.map((row, at) =>
                  row.map((own) => (
                    <ThreadLine
                      key={own.wait.wait}
                      own={own}
                      view={view}
                      top={at * THREAD}
                      x={x}
                      wall={wall}
                    />
                  )),
                )}
              </div>
            </div>
          )}
          {now >= from && now <= to && (
            <div
              className="tape pointer-events-none absolute top-[-26px] bottom-0 z-0 w-[10px] opacity-90"
              style={{ left: LABELS + x(now) - 5 }}
            >
              <span className="tape torn absolute top-0 left-1/2 -translate-x-1/2 px-2 text-note font-[700] whitespace-nowrap">
                now {wall.time(now)}
              </span>
            </div>
          )}
        </div>
      </div>
    </div>
  )
}

interface GridProps {
  hours: number[]
  x: (minute: number) => number
  props: StripProps
  from: number
  to: number
  wall: Wall
}

/** Opening hours, the hours of the clock, and what leaves. */
function Grid({ hours, x, props, from, to, wall }: GridProps) {
  const { view } = props
  const leaves = view.orders.filter((order) => order.serve >= from && order.serve <= to)
  return (
    <div className="pointer-events-none absolute inset-0" style={{ left: LABELS }} aria-hidden="true">
      <div className="absolute inset-y-0 rounded-lg bg-shade/60" style={{ left: 0, width: x(to) }} />
      {view.open
        .filter(([a, b]) => (a ?? 0) < to && (b ?? 0) > from)
        .map(([a, b]) => {
          const left = x(Math.max(a ?? 0, from))
          return (
            <div
              key={a}
              className="absolute inset-y-0 bg-well"
              style={{ left, width: x(Math.min(b ?? 0, to)) - left }}
            />
          )
        })}
      {hours.map((hour) => (
        <div key={hour} className="absolute inset-y-0 border-l border-line" style={{ left: x(hour) }} />
      ))}
      {leaves.map((order, at) => (
        <div
          key={order.letter}
          className="absolute inset-y-0 border-l-[4px] border-ink"
          style={{ left: x(order.serve) - 2 }}
        >
          <span
            className="absolute right-1.5 rounded bg-well/85 px-1 text-note font-[700] whitespace-nowrap"
            style={{ bottom: 2 + 18 * (at % 3) }}
          >
            {order.letter} leaves {wall.time(order.serve)}
          </span>
        </div>
      ))}
    </div>
  )
}

interface StepBlockProps {
  block: Block
  /** Where the next in its row begins, min. */
  next: number
  top: number
  high: number
  x: (minute: number) => number
  perMinute: number
  lit: boolean
  own: boolean
  wall: Wall
  of: StripProps
  drags: boolean
  of_machine: boolean
}

/** A step: letter and fill of its order, its words inside or beside it, never cut. */
function StepBlock(props: StepBlockProps) {
  const { block, next, top, high, x, perMinute, lit, own, wall, of, drags, of_machine } = props
  const { step } = block
  const [dragged, setDragged] = useState<number | null>(null)
  const begun = useRef<{ at: number; pointer: number } | null>(null)
  const order = of.view.orders[step.order]
  const stage = of.stage(step)
  const width = Math.max(3, (block.to - block.from) * perMinute - 1)
  const words = of_machine ? (step.setup ?? step.of) : step.short
  const inside = words.length * LETTER + 14 <= width
  const two =
    !inside && words.includes(' ') && width >= 62 && half(words) * LETTER + 10 <= width && high >= 58
  const beside = !inside && !two && (next - block.to) * perMinute > words.length * LETTER + 8
  const movable = drags && of.onDrag !== null && stage === 'to_come'
  const grid = (minutes: number) => Math.round(minutes / 5) * 5
  const down = (event: PointerEvent) => {
    if (!movable || event.button !== 0) return
    begun.current = { at: event.clientX, pointer: event.pointerId }
  }
  const move = (event: PointerEvent<HTMLElement>) => {
    const from = begun.current
    if (!from) return
    const by = event.clientX - from.at
    if (dragged === null && Math.abs(by) < 6) return
    if (dragged === null) event.currentTarget.setPointerCapture(from.pointer)
    setDragged(grid(by / perMinute))
  }
  const up = () => {
    begun.current = null
    if (dragged !== null && dragged !== 0) of.onDrag?.(step.step, block.from + dragged)
    setDragged(null)
  }
  const style: CSSProperties = { left: x(block.from + (dragged ?? 0)), width, top, height: high }
  const faded = stage === 'done' ? 'opacity-50' : ''
  const moved = of.moved.has(step.step) ? 'underline decoration-2' : ''
  return (
    <>
      <button
        type="button"
        className={`absolute z-10 overflow-hidden rounded-[5px] border-2 ${width < 22 ? 'px-0 text-center' : 'px-1 text-left'} text-small leading-tight font-[640] ${fillOf(step.order)} ${faded} ${own ? 'z-20 outline-[3px] outline-offset-2 outline-rim outline-solid' : lit ? 'ring-2 ring-rim ring-offset-1 ring-offset-well' : ''} ${movable ? 'touch-pan-x' : ''} ${stage === 'begun' ? 'border-tape' : ''}`}
        style={style}
        aria-pressed={own}
        title={`${wall.time(block.from)} ${step.short}: ${step.of} (${span(step.lasts)})`}
        onClick={() => of.onSelect(step.step)}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={() => {
          begun.current = null
          setDragged(null)
        }}
      >
        <span className={width >= 13 ? `block whitespace-nowrap ${moved}` : 'sr-only'}>
          {lettersIn(step.letters, width)}{' '}
        </span>
        <span className={(inside || two) && high >= 40 ? 'block' : 'sr-only'}>{words}</span>
        <span className="sr-only">
          , {wall.time(block.from)} to {wall.time(block.to)}, {of_machine ? step.short : step.of},{' '}
          {step.batch ?? order?.name ?? ''}
          {stage === 'done' ? ', done' : stage === 'begun' ? ', begun' : ''}
        </span>
        {dragged !== null && <span className="sr-only">{wall.time(block.from + dragged)}</span>}
      </button>
      {beside && (
        <span
          aria-hidden="true"
          className="pointer-events-none absolute z-10 text-small font-[560] whitespace-nowrap"
          style={{ left: x(block.to) + 4, top: top + high / 2 - 9 }}
        >
          {words}
        </span>
      )}
      {dragged !== null && (
        <span
          className="tape pointer-events-none absolute z-30 px-1 text-note font-[700]"
          style={{ left: x(block.from + dragged), top: top - 4 }}
        >
          {wall.time(block.from + dragged)}
        </span>
      )}
    </>
  )
}

/** Letters of the orders, as many as there is room for: the first, and that there are more. */
function lettersIn(letters: string, width: number): string {
  if (letters.length * LETTER + 8 <= width) return letters
  const [first = '', ...more] = letters.split('+')
  return more.length > 0 ? `${first}+` : first
}

/** The longer half of words that stand in two lines, letters. */
function half(words: string): number {
  const all = words.split(' ')
  let best = words.length
  for (let at = 1; at < all.length; at += 1) {
    const longer = Math.max(all.slice(0, at).join(' ').length, all.slice(at).join(' ').length)
    best = Math.min(best, longer)
  }
  return best
}

/** What a thread says: of a cake its tier, of the fridge nothing, for most stands there. */
function threadWords(view: DayView, { wait }: Pick<Thread, 'wait'>): string {
  const letter = wait.letters
  const does = wait.name.startsWith(`${wait.of}: `) ? wait.name.slice(wait.of.length + 2) : ''
  const tier = /, (tier \d+)$/.exec(wait.of)?.[1]
  const where = wait.place === 'fridge' ? [] : [wait.place ?? '']
  return `${letter} ${[tier ?? wait.of, ...(does ? [does] : []), ...where].join(', ')}`
}

interface ThreadLineProps {
  own: Thread
  view: DayView
  top: number
  x: (minute: number) => number
  wall: Wall
}

/** What stands somewhere: a thread with a tick at each end, open where it goes on. */
function ThreadLine({ own, view, top, x, wall }: ThreadLineProps) {
  const left = x(own.from)
  const width = Math.max(2, x(own.to) - left)
  const words = threadWords(view, own)
  const until = own.wait.stands?.[1] ?? own.to
  return (
    <div className="absolute" style={{ left, top, width }} title={`${words}, until ${wall.dayTime(until)}`}>
      <span
        className={`absolute text-small leading-4 whitespace-nowrap ${own.lead !== undefined ? 'right-1' : 'left-1'}`}
      >
        {words}
      </span>
      <span
        className={`absolute top-[18px] right-0 left-0 border-t-[3px] ${own.wait.order % 3 === 2 ? 'border-dashed border-ink' : own.wait.order % 3 === 1 ? 'border-rim' : 'border-ink'}`}
      />
      {!own.before && <span className="absolute top-[14px] left-0 h-[11px] border-l-[3px] border-ink" />}
      {!own.after && <span className="absolute top-[14px] right-0 h-[11px] border-r-[3px] border-ink" />}
    </div>
  )
}
