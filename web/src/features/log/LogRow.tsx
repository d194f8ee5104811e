import { Link } from 'react-router'
import type { LogLine } from '../../api/client'
import { clock, dayOf, weighed } from '../../lib/format'
import { Tick } from '../../ui/Tick'
import { CAME } from '../batch/came'

interface LogRowProps {
  line: LogLine
  ticked: boolean
  onTick: (on: boolean) => void
}

/** A batch in a line: when, what, how it came out, what was otherwise than planned. */
export function LogRow({ line, ticked, onTick }: LogRowProps) {
  const came = CAME.find(([key]) => key === line.came)?.[1]
  const wrong = line.came != null && line.came !== 'good'
  const at = new Date(line.at)
  return (
    <li className="flex items-stretch gap-2 border-b border-line">
      <Tick
        className="no-print px-1"
        checked={ticked}
        onChange={onTick}
        label={`Beside others: ${line.name}`}
      />
      <Link
        to={`/log/${line.key}`}
        className="grid min-h-11 flex-1 grid-cols-[148px_minmax(0,1.2fr)_minmax(0,1.4fr)_76px] items-center gap-x-4 rounded-lg px-2 py-1 hover:bg-rim-tint max-tablet:grid-cols-[132px_minmax(0,1fr)_minmax(0,1fr)] max-phone:grid-cols-1"
      >
        <span className="text-note text-ink2">
          {dayOf(line.at)}
          {!line.written_in && `, ${clock(at).time}`}
        </span>
        <span className="min-w-0 leading-tight">
          <b className="block truncate font-[640]">{line.name}</b>
          <span className="text-small text-ink2">
            {line.family_word}, {line.job}, {weighed(line.in_g)} g
          </span>
        </span>
        <span className="min-w-0 leading-tight">
          <span className={wrong ? 'font-[640] text-hot' : line.came ? 'font-[640]' : 'text-ink2'}>
            {line.running ? 'being made' : (came ?? 'nobody said how it came out')}
          </span>
          {saidOf(line) && <span className="block truncate text-small text-ink2">{saidOf(line)}</span>}
        </span>
        <span className="text-right text-small text-ink2 max-tablet:col-start-3 max-tablet:text-left max-phone:col-start-1">
          {line.tests > 0 && (
            <span className="block">{line.tests === 1 ? '1 test' : `${line.tests} tests`}</span>
          )}
          {line.changed.length > 0 && (
            <span className="block">
              {line.changed.length === 1 ? '1 change' : `${line.changed.length} changes`}
            </span>
          )}
        </span>
      </Link>
    </li>
  )
}

/** What the cook said of it: how it came out in more words, else the first note, else what was done otherwise. */
function saidOf(line: LogLine): string | undefined {
  const more = line.came_words?.split(': ').slice(1).join(': ')
  return more || line.notes[0] || line.changed[0]
}
