import type { DayView } from '../../api/client'
import type { Wall } from './time'
import { span } from './time'

interface TapeProps {
  view: DayView
  wall: Wall
  now: number
}

/** The orders, and what stands now and until when. */
export function Tape({ view, wall, now }: TapeProps) {
  const standing = view.waits
    .filter((wait) => wait.place && (wait.stands?.[0] ?? 0) <= now && now < (wait.stands?.[1] ?? 0))
    .sort((a, b) => (a.stands?.[1] ?? 0) - (b.stands?.[1] ?? 0))
    .filter(
      (wait, at, all) => all.findIndex((own) => own.from === wait.from && own.place === wait.place) === at,
    )
  const hands = view.days.reduce((sum, day) => sum + day.hands_min, 0)
  return (
    <section aria-label="On the tape" className="min-w-0">
      <h2 className="text-title">On the tape</h2>
      <ul className="mt-2 flex flex-col gap-2">
        {view.orders.map((order) => (
          <li key={order.letter} className="tape torn px-4 py-1.5">
            <b className="font-head text-lead">
              {order.letter} {order.name}
            </b>
            <span className="block text-note font-[560]">{order.words}</span>
          </li>
        ))}
      </ul>
      {standing.length > 0 && (
        <>
          <h3 className="mt-3 font-[700]">Standing now</h3>
          <ul className="border-t border-line">
            {standing.map((wait) => (
              <li key={wait.wait} className="border-b border-line py-1 text-note">
                <b>
                  {wait.letters} {wait.of}
                </b>
                , {wait.place}: out at {wall.dayTime(wait.stands?.[1] ?? 0)}
                {wait.not_before != null &&
                  wait.not_before > now &&
                  `, not before ${wall.dayTime(wait.not_before)}`}
                {wait.not_after != null && `, not after ${wall.dayTime(wait.not_after)}`}
              </li>
            ))}
          </ul>
        </>
      )}
      <p className="mt-2 text-note text-ink2">
        Hands busy <b className="text-ink">{span(hands)}</b> over {view.days.length}{' '}
        {view.days.length === 1 ? 'day' : 'days'}
        {view.orders.length > 0 &&
          `; ${view.orders.map((order) => `${order.letter} ${span(order.hands_on_its_day_min)} on its own day`).join(', ')}`}
        .
      </p>
    </section>
  )
}
