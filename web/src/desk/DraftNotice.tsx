import { moment } from '../lib/format'
import { Button } from '../ui/Button'
import { useKeepsDrafts } from './useSaving'

interface DraftNoticeProps {
  /** The save machine of what is in hand. */
  saving: {
    restored: string | null
    elsewhere: 'open' | number | null
    dirty: boolean
    thrownAway: () => void
  }
  /** Takes what is saved in hand again; none while nothing is saved. */
  onBack: (() => void) | null
}

/** What is to be known of the work in hand: found again, open elsewhere too, not kept here. */
export function DraftNotice({ saving, onBack }: DraftNoticeProps) {
  const { restored, elsewhere, dirty } = saving
  const keeps = useKeepsDrafts()
  return (
    <div role="status" className="text-note empty:hidden">
      {restored && (
        <p className="mt-1 flex flex-wrap items-center gap-2">
          Your unsaved changes from {moment(restored)} are back.
          {onBack && (
            <Button
              look="quiet"
              className="min-h-7 px-2 py-0 underline"
              onClick={() => {
                onBack()
                saving.thrownAway()
              }}
            >
              Throw them away
            </Button>
          )}
        </p>
      )}
      {elsewhere === 'open' && (
        <p className="mt-1">It is open in another tab too; what is changed there does not show here.</p>
      )}
      {typeof elsewhere === 'number' && (
        <p className="mt-1 font-[640]">
          Another tab saved it as version {elsewhere}. What you have here stays yours; saving will ask.
        </p>
      )}
      {dirty && !keeps && (
        <p className="mt-1 font-[640] text-hot">
          This device cannot keep what you change here just now: its storage is full, forbidden or does not
          answer. Save before you leave.
        </p>
      )}
    </div>
  )
}
