import { useState } from 'react'
import { Link } from 'react-router'
import type { PlanAsk, Report } from '../../api/client'
import { useTitle } from '../../lib/hooks'
import { useKitchen } from '../kitchen/queries'
import { useOrders } from '../orders/queries'
import { Choose, Looking } from './Choose'
import { PlanDesk } from './PlanDesk'
import { offerOfReply } from './Proposal'
import { useDay, usePlanning, useRoom } from './queries'
import { stages } from './time'
import { NotRead } from '../../ui/NotRead'

/** The day: what is planned, or which orders to plan. */
export function DayPage() {
  useTitle('Day')
  const day = useDay()
  const orders = useOrders()
  const kitchen = useKitchen()
  const room = useRoom()
  const planning = usePlanning()
  const [choosing, setChoosing] = useState(false)
  if (day.isError && !day.data) {
    return <NotRead title="The plan cannot be read" error={day.error} onAgain={day.refetch} />
  }
  if (!day.data || !kitchen.data || orders.isPending) return <div className="tray flex-1" aria-busy="true" />
  const zone = kitchen.data.time_zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone
  const { kept, view, reports, supposed } = day.data
  const { state } = planning
  const best = state.kind === 'found' ? state.reply : state.kind === 'looking' ? state.best : null
  const said = reports.map((each) => each.event as Report)
  // What is begun and done of the plan that stands stays.
  const start = (ask: PlanAsk) =>
    planning.start(kept ? { ...ask, standing: { plan: kept.document, reports: said } } : ask)
  const told = stages(reports, supposed)
  const under = view?.steps.filter((step) => (told.get(step.key)?.stage ?? 'to_come') !== 'to_come') ?? []
  const shownPlan = kept && view ? { plan: kept.document, view, revision: kept.revision } : null
  const stands = shownPlan ?? (best ? { plan: best.plan, view: best.view, revision: 0 } : null)
  if (choosing || !stands || (best === null && state.kind !== 'idle')) {
    return (
      <div className="tray flex-1 px-6 pt-3 pb-4 max-phone:px-4">
        <div className="flex flex-wrap items-start justify-between gap-3">
          <h1 className="text-display">{kept ? 'Plan again' : 'Nothing is planned yet'}</h1>
          <Link
            className="inline-flex min-h-9 items-center rounded-lg px-2 font-[640] text-rim underline pointer-coarse:min-h-11"
            to="/day/room"
          >
            The kitchen
          </Link>
        </div>
        <Choose
          orders={orders.data ?? []}
          zone={zone}
          chosen={null}
          state={state}
          underway={under.length}
          usual={room.data !== undefined && !room.data.kept}
          onPlan={(ask) => {
            setChoosing(false)
            start(ask)
          }}
          onStop={planning.stop}
          onLeave={
            kept
              ? () => {
                  setChoosing(false)
                  planning.clear()
                }
              : null
          }
        />
      </div>
    )
  }
  return (
    <>
      {state.kind === 'looking' && (
        <div className="mb-2 px-3">
          <Looking state={state} onStop={planning.stop} />
        </div>
      )}
      <PlanDesk
        plan={stands.plan}
        view={stands.view}
        revision={stands.revision}
        reports={reports}
        supposed={supposed}
        otherRoom={
          kept !== null &&
          room.data !== undefined &&
          (room.data.kept?.revision ?? null) !== (kept?.document.room ?? null)
        }
        orders={orders.data ?? []}
        offered={best ? offerOfReply(best) : null}
        onAnswered={planning.clear}
        onAgain={() => setChoosing(true)}
      />
    </>
  )
}
