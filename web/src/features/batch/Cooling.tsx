import type { BatchView } from '../../api/client'
import { clock, degrees } from '../../lib/format'
import { left, useNow } from './clocks'

/** Until when what was cooked must be cold, with the minutes that are left. */
export function Cooling({ cooling }: { cooling: NonNullable<BatchView['cooling']> }) {
  const open = cooling.stages.some((own) => !own.there)
  const now = useNow(open)
  return (
    <section
      aria-label="It must cool fast"
      className="mt-3 rounded-xl border-[3px] border-hot p-3 text-title"
    >
      <p className="font-[640]">Cooling since {clock(new Date(cooling.since)).time}</p>
      <ul>
        {cooling.stages.map((own) => {
          const ms = Date.parse(own.by) - now
          const late = own.there ? Date.parse(own.there) > Date.parse(own.by) : ms < 0
          return (
            <li key={own.to_c} className={late ? 'font-[640] text-hot' : ''}>
              {degrees(own.to_c)} by {clock(new Date(own.by)).time}:{' '}
              {own.there
                ? `there at ${clock(new Date(own.there)).time}${late ? ', too late' : ''}`
                : ms < 0
                  ? 'too late: it was not read to be there'
                  : `${left(ms)} left`}
            </li>
          )
        })}
      </ul>
      <p className="text-note text-ink2">{cooling.words}</p>
    </section>
  )
}
