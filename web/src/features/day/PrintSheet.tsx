import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import type { PrintKind } from './DayPrint'
import { THE_PLAN } from './queries'

interface PrintSheetProps {
  revision: number
  onPrint: (kind: PrintKind) => void
  onClose: () => void
}

const KINDS = [
  ['sheets', 'Run sheets', 'One a cook and day, to tick and write on'],
  ['timeline', 'Timeline', 'Who and what machine when, day by day'],
  ['labels', 'Shelf labels', 'What stands where, for whom, use by when'],
] as const

/** What can be taken along: on paper, or into a calendar. */
export function PrintSheet({ revision, onPrint, onClose }: PrintSheetProps) {
  return (
    <Sheet open onOpenChange={(open) => !open && onClose()} title="Take it along">
      <ul className="flex flex-col gap-2">
        {KINDS.map(([kind, word, about]) => (
          <li key={kind} className="flex flex-wrap items-center gap-3">
            <Button className="w-44" onClick={() => onPrint(kind)}>
              {word}
            </Button>
            <span className="text-note text-ink2">{about}</span>
          </li>
        ))}
        {revision > 0 && (
          <li className="flex flex-wrap items-center gap-3">
            <a
              className="inline-flex min-h-9 w-44 items-center justify-center rounded-tray border-2 border-rim px-4 font-[640] text-rim hover:bg-rim-tint pointer-coarse:min-h-11"
              href={`/api/plans/${THE_PLAN}/calendar`}
              download="plan.ics"
            >
              Calendar
            </a>
            <span className="min-w-0 flex-1 text-note text-ink2">
              A calendar file (.ics). Read it again after a change: what moved moves, what is gone is
              cancelled.
            </span>
          </li>
        )}
      </ul>
    </Sheet>
  )
}
