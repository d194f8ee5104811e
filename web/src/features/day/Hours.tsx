import type { WeekHours, Weekday } from '../../api/client'
import { Button } from '../../ui/Button'
import { TimeField } from './TimeField'
import { TakeOut } from './TakeOut'

export const DAYS: readonly (readonly [Weekday, string])[] = [
  ['monday', 'Mon'],
  ['tuesday', 'Tue'],
  ['wednesday', 'Wed'],
  ['thursday', 'Thu'],
  ['friday', 'Fri'],
  ['saturday', 'Sat'],
  ['sunday', 'Sun'],
]

interface HoursProps {
  /** Whose hours they are, as it is read out. */
  of: string
  hours: WeekHours[]
  onChange: (hours: WeekHours[]) => void
  /** The button that adds a row. */
  add: string
  fault?: string | undefined
}

/** Hours of a week: the same on the days that are ticked. */
export function Hours({ of, hours, onChange, add, fault }: HoursProps) {
  const put = (at: number, next: Partial<WeekHours>) =>
    onChange(hours.map((row, place) => (place === at ? { ...row, ...next } : row)))
  return (
    <div>
      <ul className="flex flex-col gap-2">
        {hours.map((row, at) => (
          <li key={at} className="flex flex-wrap items-end gap-x-3 gap-y-1">
            <span role="group" aria-label={`Days of ${of}, row ${at + 1}`} className="flex flex-wrap gap-1">
              {DAYS.map(([key, word]) => {
                const on = row.on.includes(key)
                return (
                  <button
                    key={key}
                    type="button"
                    aria-pressed={on}
                    className={`min-h-9 w-11 rounded-lg border-2 font-[640] pointer-coarse:min-h-11 ${on ? 'border-rim bg-rim text-rim-text' : 'border-line2 text-ink2'}`}
                    onClick={() =>
                      put(at, {
                        on: DAYS.map(([day]) => day).filter((day) =>
                          day === key ? !on : row.on.includes(day),
                        ),
                      })
                    }
                  >
                    {word}
                  </button>
                )
              })}
            </span>
            <span className="flex items-end gap-2">
              <TimeField label="from" value={row.from} onChange={(from) => put(at, { from })} />
              <TimeField
                label={row.to <= row.from ? 'to, next day' : 'to'}
                value={row.to}
                onChange={(to) => put(at, { to })}
              />
            </span>
            <TakeOut
              what={`row ${at + 1} of ${of}`}
              onClick={() => onChange(hours.filter((_, place) => place !== at))}
            />
          </li>
        ))}
      </ul>
      {fault && (
        <p role="alert" className="text-small text-hot">
          {fault}
        </p>
      )}
      <Button
        look="quiet"
        className="mt-1 px-2"
        onClick={() => onChange([...hours, { on: [], from: '07:00:00', to: '18:00:00' }])}
      >
        {add}
      </Button>
    </div>
  )
}
