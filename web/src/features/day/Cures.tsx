import type { CureAsk, PlanDocument, Quicker } from '../../api/client'
import { QuickerWays } from './Quicker'
import { useCures } from './queries'

interface CuresProps {
  asked: CureAsk
  /** The plan that stands. */
  plan: PlanDocument
  /** The same that happened, with a wait made shorter besides. */
  onQuicker: ((quicker: Quicker) => void) | null
}

/** What would save a day that cannot be saved as it is; looked for while what it takes is shown already. */
export function Cures({ asked, plan, onQuicker }: CuresProps) {
  const { found, wrong } = useCures(asked)
  if (wrong) {
    return (
      <p role="alert" className="mt-2 text-note text-hot">
        {wrong}
      </p>
    )
  }
  if (!found) {
    return (
      <p role="status" className="mt-2 text-note text-ink2">
        Looking for what would save it.
      </p>
    )
  }
  if (found.length === 0) {
    return (
      <p className="mt-2 text-note">
        No pair of hands, shorter wait or longer day that I tried would save it alone.
      </p>
    )
  }
  return (
    <div className="mt-2">
      <b>What would save it:</b>
      <ul aria-label="What would save it">
        {found.map((cure) => (
          <li key={cure.words} className="mt-1 border-t border-line py-1">
            {cure.words}
            {cure.shorter?.clocked && (
              <QuickerWays plan={plan} wait={cure.shorter.wait} enough={cure.shorter.min} onUse={onQuicker} />
            )}
          </li>
        ))}
      </ul>
    </div>
  )
}
