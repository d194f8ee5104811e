import type { TrainerChoice } from '../../api/client'
import { Keycap } from '../../ui/Button'
import { Lines } from './Seen'

interface ChoicesProps {
  choices: readonly TrainerChoice[]
  /** What was said, while its answer is on the way. */
  said: number | null
  onSay: (choice: number) => void
}

/** What can be answered, each under its number. */
export function Choices({ choices, said, onSay }: ChoicesProps) {
  return (
    <ol aria-label="Answers" className="flex flex-col gap-2">
      {choices.map((own, at) => (
        <li key={own.words}>
          <button
            type="button"
            disabled={said !== null}
            className={`flex min-h-12 w-full items-center gap-3 rounded-tray border-2 px-4 py-2 text-left text-lead font-[640] hover:bg-rim-tint disabled:opacity-60 ${
              said === at ? 'border-rim bg-rim-tint' : 'border-line2 bg-enamel'
            }`}
            onClick={() => onSay(at)}
          >
            <Keycap>{String(at + 1)}</Keycap>
            <span className="min-w-0 flex-1">
              <span className="block first-letter:uppercase">{own.words}</span>
              {own.lines.length > 0 && <Lines lines={own.lines} />}
            </span>
          </button>
        </li>
      ))}
    </ol>
  )
}
