import type { MethodSheet } from '../../api/client'
import { unbroken } from '../../lib/format'

const WORKERS = { hands: 'hands', machine: 'machine alone', wait: 'wait' } as const

/** A school as a sheet to read: what it takes, its steps, what goes wrong, what can hurt. */
export function MethodSteps({ school }: { school: MethodSheet }) {
  const { start } = school
  return (
    <div className="flex flex-col gap-3">
      <div>
        <h3 className="font-head text-title leading-tight font-[700]">{school.name}</h3>
        <p>
          {school.better} {school.differs}
        </p>
      </div>
      <dl className="flex flex-wrap gap-x-8 gap-y-1">
        {start && (
          <div>
            <dt className="text-small text-ink2">Comes out at</dt>
            <dd>
              <b className="text-lead">{degrees([start.from_c, start.to_c])}</b>
            </dd>
          </div>
        )}
        <Time word="Hands" minutes={school.hands_min} />
        <Time word="Machine alone" minutes={school.machine_min} />
        {(school.wait_min[1] ?? 0) > 0 && (
          <div>
            <dt className="text-small text-ink2">Waiting</dt>
            <dd>
              <b className="text-lead">{span(school.wait_min)}</b>
            </dd>
          </div>
        )}
        <Time word="From first to last, at least" minutes={school.through_min} />
      </dl>
      {start && start.how !== 'as the school has it' && (
        <p className="text-note text-ink2 first-letter:uppercase">{start.how}.</p>
      )}
      {start?.advice && <p className="font-[640] text-hot">{start.advice}</p>}
      <p className="text-ink2">Takes: {school.gear.join(', ')}.</p>
      <ol className="flex flex-col">
        {school.steps.map((step, at) => (
          <li key={step.key} className="flex break-inside-avoid gap-3 border-t border-line py-2">
            <b className="w-6 shrink-0 text-right text-lead">{at + 1}</b>
            <div className="min-w-0 flex-1">
              {step.part && step.part !== school.steps[at - 1]?.part && (
                <p className="text-note text-ink2">First what it begins with: {step.part.toLowerCase()}.</p>
              )}
              <p className="text-lead">
                {step.what}{' '}
                {step.temperature_c && <b className="whitespace-nowrap">{degrees(step.temperature_c)}</b>}
              </p>
              <p>
                Until: <b>{step.until.replace(/\.$/, '')}</b>.
                {step.limit && (
                  <span className="text-hot">
                    {' '}
                    {at === school.steps.length - 1 ? 'Used' : 'Next'} within {step.limit.minutes} min.
                  </span>
                )}
                {step.ready_for != null && (
                  <span className="text-ink2">
                    {' '}
                    Any time before step {step.ready_for}
                    {step.given ? ', when it is not cold already' : ''}.
                  </span>
                )}
              </p>
              {step.by_clock && <p className="text-note text-ink2">By the clock, in {step.by_clock}.</p>}
              {step.wrong.length > 0 && (
                <p className="text-note text-ink2">
                  Goes wrong:{' '}
                  {step.wrong
                    .map((fault) => `${fault.seen}: ${fault.why}`)
                    .map(unbroken)
                    .join('; ')}
                  .
                </p>
              )}
            </div>
            <span className="w-[104px] shrink-0 text-right text-note leading-tight">
              <b className="block">{step.time}</b>
              <span className="text-ink2">{WORKERS[step.kind]}</span>
            </span>
          </li>
        ))}
      </ol>
      {school.taken_off.map((words) => (
        <p key={words}>{words}</p>
      ))}
      <div className="border-t-2 border-line pt-2">
        <h4 className="font-[640]">What may go wrong</h4>
        <ul className="list-disc pl-5">
          {school.risks.map((risk) => (
            <li key={risk}>{risk}</li>
          ))}
        </ul>
      </div>
      {school.cautions.length > 0 && (
        <ul className="flex flex-col gap-1">
          {school.cautions.map((each) => (
            <li key={each.caution}>
              <b className="text-hot">Mind: </b>
              {each.words}
            </li>
          ))}
        </ul>
      )}
      <p className="text-small text-ink2">Source: {school.source}. Air and whipping are starting guesses.</p>
    </div>
  )
}

function Time({ word, minutes }: { word: string; minutes: number }) {
  if (minutes <= 0) return null
  return (
    <div>
      <dt className="text-small text-ink2">{word}</dt>
      <dd>
        <b className="text-lead">{long(minutes)}</b>
      </dd>
    </div>
  )
}

function span(minutes: number[]): string {
  const [from = '', to = ''] = minutes.map(long)
  const unit = to.split(' ')[1] ?? ''
  return from.endsWith(unit) ? `${from.slice(0, -unit.length - 1)} to ${to}` : `${from} to ${to}`
}

function long(minutes: number): string {
  if (minutes >= 2880) return `${Math.round(minutes / 1440)} days`
  if (minutes >= 180) return `${Math.round(minutes / 60)} h`
  return `${Math.max(1, Math.round(minutes))} min`
}

function degrees(t: number[]): string {
  const [low = 0, high = low] = t
  return low === high ? `${low} °C` : `${low} to ${high} °C`
}
