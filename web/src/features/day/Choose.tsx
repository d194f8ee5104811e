import { useState } from 'react'
import { Link } from 'react-router'
import type { OrderSummary, PlanAsk } from '../../api/client'
import { Button } from '../../ui/Button'
import { Tick } from '../../ui/Tick'
import { when } from '../orders/when'
import type { Planning } from './queries'
import { nowIn } from './time'

interface ChooseProps {
  orders: OrderSummary[]
  zone: string
  /** Chosen at first; all that are to come when nothing is planned yet. */
  chosen: string[] | null
  state: Planning
  usual: boolean
  /** How many steps of the plan that stands are begun or done. */
  underway: number
  onPlan: (ask: PlanAsk) => void
  onStop: () => void
  onLeave: (() => void) | null
}

/** Which orders are planned: all that are to come, but for those unticked. */
export function Choose({
  orders,
  zone,
  chosen,
  state,
  usual,
  underway,
  onPlan,
  onStop,
  onLeave,
}: ChooseProps) {
  const now = nowIn(zone)
  const coming = orders.filter((order) => !order.archived && order.served_at && order.served_at > now)
  const undated = orders.filter((order) => !order.archived && !order.served_at)
  const [off, setOff] = useState<ReadonlySet<string>>(
    () =>
      new Set(chosen === null ? [] : coming.filter((own) => !chosen.includes(own.id)).map((own) => own.id)),
  )
  const keys = coming.filter((order) => !off.has(order.id)).map((order) => order.id)
  const looking = state.kind === 'looking'
  const start = (longer: boolean) => onPlan({ orders: keys, documents: [], zone, from: now, longer })
  return (
    <section aria-label="Orders to plan" className="max-w-3xl">
      <p>
        Everything ready together: what is made when, by whom, and on which shelf it waits. Nothing is used
        before you say so.
      </p>
      <ul aria-label="Orders to come" className="mt-3 border-t border-line">
        {coming.map((order) => (
          <li key={order.id} className="border-b border-line">
            <Tick
              checked={!off.has(order.id)}
              onChange={(on) => {
                const next = new Set(off)
                if (on) next.delete(order.id)
                else next.add(order.id)
                setOff(next)
              }}
            >
              <b>{order.name}</b> {when(order.served_at)}, {order.pieces}{' '}
              {order.pieces === 1 ? 'piece' : 'pieces'}
            </Tick>
          </li>
        ))}
      </ul>
      {coming.length === 0 && (
        <p className="mt-2">
          No order has a date to come.{' '}
          <Link className="font-[640] text-rim underline" to="/orders">
            Orders
          </Link>
        </p>
      )}
      {undated.length > 0 && (
        <p className="mt-2 text-note text-ink2">
          Without a date, and so not planned: {undated.map((order) => order.name).join(', ')}.
        </p>
      )}
      {underway > 0 && (
        <p className="mt-3">
          {underway === 1
            ? 'The day is under way: one step is begun or done and stays as it is;'
            : `The day is under way: ${underway} steps are begun or done and stay as they are;`}{' '}
          everything else is planned from now. What is done and not ticked off yet, tick off first.
        </p>
      )}
      {usual && (
        <p className="mt-3 rounded-lg border-2 border-line2 px-3 py-2">
          The kitchen is not set yet: a usual one of one cook is assumed, open Monday to Saturday from 7 to
          18.{' '}
          <Link className="font-[640] text-rim underline" to="/day/room">
            Set the kitchen
          </Link>
        </p>
      )}
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <Button look="primary" disabled={keys.length === 0 || looking} onClick={() => start(false)}>
          Plan {keys.length === 1 ? 'one order' : `${keys.length} orders`}
        </Button>
        <Button disabled={keys.length === 0 || looking} onClick={() => start(true)}>
          Look four times as long
        </Button>
        {onLeave && (
          <Button look="quiet" onClick={onLeave}>
            Leave it
          </Button>
        )}
      </div>
      <Looking state={state} onStop={onStop} />
      {state.kind === 'refused' && (
        <p role="alert" className="mt-2 text-hot">
          {state.words}
        </p>
      )}
    </section>
  )
}

/** How far the search is, with Stop. */
export function Looking({ state, onStop }: { state: Planning; onStop: () => void }) {
  if (state.kind !== 'looking') return null
  const { progress, best } = state
  const [done, of] = [progress?.rounds[0] ?? 0, progress?.rounds[1] ?? 0]
  const share = of > 0 ? Math.min(1, done / of) : 0
  const words =
    progress && progress.unplaced > 0 && !best
      ? `Still looking: ${progress.unplaced} of ${progress.steps} steps have no time yet.`
      : best
        ? `A plan is there; looking for a better one, ${Math.round(100 * share)} %.`
        : 'Looking for a plan.'
  return (
    <div className="mt-3">
      <div className="flex flex-wrap items-center gap-3">
        <p role="status">{words}</p>
        <Button onClick={onStop}>Stop</Button>
      </div>
      <div className="mt-1 h-[3px] max-w-xl bg-line" aria-hidden="true">
        <div className="h-full bg-rim" style={{ width: `${Math.max(2, 100 * share)}%` }} />
      </div>
    </div>
  )
}
