import type { BatchTestDone } from '../../api/client'
import { degrees, moment } from '../../lib/format'
import { Button } from '../../ui/Button'
import type { Say } from '../batch/say'

/** Tests of a batch, each beside the book; one can be left out of what is learned. */
export function TestsDone({ tests, onSay }: { tests: readonly BatchTestDone[]; onSay: Say }) {
  if (tests.length === 0) return null
  return (
    <section aria-label="Tests">
      <h2 className="text-title">Tests</h2>
      <ul>
        {tests.map((own) => (
          <li key={own.id} className="flex flex-wrap items-center gap-x-3 border-b border-line py-1.5">
            <span className="min-w-0 flex-1">
              <b className={own.left_out ? 'text-ink2' : ''}>{own.sentence}</b>
              <span className="block text-note text-ink2">
                {own.test.kind.replaceAll('_', ' ')}, at {degrees(own.c)}, {moment(own.at)}
                {own.left_out && ', left out of what is learned'}
              </span>
              {own.outside && <span className="block text-note text-hot">{own.outside}</span>}
            </span>
            <Button
              look="quiet"
              className="no-print px-2"
              onClick={() => onSay({ what: 'counted', of: own.id, counts: own.left_out })}
            >
              {own.left_out ? 'Count it again' : 'Leave it out'}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
