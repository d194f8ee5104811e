import { useNavigate } from 'react-router'
import type { PlanDocument, Quicker } from '../../api/client'
import { Button } from '../../ui/Button'
import { useQuicker } from './queries'

interface QuickerWaysProps {
  plan: PlanDocument
  wait: number
  /** It need not be shorter than this, min. */
  enough?: number
  /** Shows the plan with that wait shorter; none while another plan is shown. */
  onUse: ((quicker: Quicker) => void) | null
}

/** What would make a wait shorter, by its clock: another vessel, a colder place, more gelatin in the formula. */
export function QuickerWays({ plan, wait, enough, onUse }: QuickerWaysProps) {
  const navigate = useNavigate()
  const { found, wrong } = useQuicker(plan, wait, enough)
  if (wrong) {
    return (
      <p role="alert" className="text-note text-hot">
        {wrong}
      </p>
    )
  }
  if (!found) return <p className="text-note text-ink2">Asking its clock.</p>
  if (found.ways.length === 0) return <p className="text-note">{found.sentence}</p>
  return (
    <ul aria-label="What would be sooner" className="text-note">
      {found.ways.map((way) => (
        <li
          key={way.words}
          className="flex flex-wrap items-center justify-between gap-x-3 gap-y-1 border-t border-line py-1"
        >
          <span className="min-w-0 flex-1 basis-56">{way.words}.</span>
          <span className="flex flex-wrap gap-2">
            {onUse && (
              <Button className="px-3" onClick={() => onUse(way.quicker)}>
                See what gives
              </Button>
            )}
            {way.formula && (
              <Button
                className="px-3"
                onClick={() => {
                  const { component, document } = way.formula ?? {}
                  if (component) void navigate(`/bench/${component}`, { state: { bring: document } })
                }}
              >
                Change the formula
              </Button>
            )}
          </span>
        </li>
      ))}
    </ul>
  )
}
