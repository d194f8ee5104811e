import type { DayView, PlanDocument } from '../../api/client'
import { useOdds } from './queries'

/** Odds, not promises: how often each order would be ready in time. */
export function Odds({ plan, view }: { plan: PlanDocument; view: DayView }) {
  const { found, wrong } = useOdds(plan, true)
  if (wrong) return <p className="text-note text-hot">{wrong}</p>
  if (!found) return null
  return (
    <section aria-label="Odds">
      <h2 className="text-title">Over {found.days.toLocaleString('en')} days</h2>
      <ul className="border-t border-line">
        {found.orders.map((own, at) => (
          <li key={at} className="border-b border-line py-1 text-note">
            <b>{view.orders[at]?.letter}</b> {own.sentence}
          </li>
        ))}
      </ul>
      <p className="mt-1 text-small text-ink2">{found.assumed}</p>
    </section>
  )
}
