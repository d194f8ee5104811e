import { lazy, Suspense, useState } from 'react'
import type { ReactNode } from 'react'
import type { Assessment, Fault, Process } from '../../api/client'
import { useFamily } from '../../lib/families'
import { NumberField } from '../../ui/NumberField'
import type { BenchDocument } from './document'
import { Select } from '../../ui/Select'
import { useWords } from '../../lib/words'
import { withTakenOff } from './taken'

const TakenOff = lazy(async () => ({ default: (await import('./TakenOff')).TakenOff }))

interface ProcessFieldsProps {
  document: BenchDocument
  answer: Assessment | undefined
  faults: Fault[]
  edit: (change: (document: BenchDocument) => BenchDocument, tag?: string) => void
}

/** What was done in the making, where the prediction needs it; only what matters for the family. */
export function ProcessFields({ document, answer, faults, edit }: ProcessFieldsProps) {
  const family = useFamily(document.family)
  const process = document.process ?? {}
  const words = useWords()
  const set = (change: Partial<Process>) => edit((d) => ({ ...d, process: { ...d.process, ...change } }))
  const used = answer?.process
  const [taking, setTaking] = useState(false)
  if (!family) return null
  const fault = (field: string) => faults.find((each) => each.field === field)?.message
  const has = (setting: (typeof family.settings)[number]) => family.settings.includes(setting)
  const pour = document.work.pour_temperature_c
  const broughtAlone =
    (process.overrun_percent != null || process.whip != null) &&
    (answer?.lines.some((line) => (line.made_here?.overrun_percent ?? 0) > 0) ?? false)
  const asBrought = () =>
    edit((d) => {
      const { overrun_percent: _air, whip: _whip, ...rest } = d.process ?? {}
      return { ...d, process: rest }
    })
  return (
    <div className="flex flex-wrap items-baseline gap-x-2 gap-y-1.5 border-b border-line pb-2">
      <h2 className="text-lead">The making</h2>
      {has('whip') && (
        <Part>
          <span>Cream whipped</span>
          <Select
            inline
            label="How stiff it is whipped"
            value={process.whip ?? used?.whip_stage ?? family.usual_whip}
            onChange={(whip) => set({ whip })}
            options={words.whip.map((each) => [each.whip, each.words] as const)}
          />
        </Part>
      )}
      {has('overrun') && (
        <Part>
          <span>with</span>
          <NumberField
            inline
            label="Volume gained"
            unit="% air"
            min={0}
            max={500}
            step={5}
            value={
              process.overrun_percent ?? Math.round(used?.overrun_percent ?? family.usual_overrun_percent)
            }
            onCommit={(overrun_percent) => set({ overrun_percent })}
          />
        </Part>
      )}
      {broughtAlone && (
        <button
          type="button"
          className="rounded-md px-1.5 font-[640] text-rim underline pointer-coarse:min-h-11"
          onClick={asBrought}
        >
          Take the air its parts bring
        </button>
      )}
      {has('cook') &&
        (process.cook_c == null ? (
          <button
            type="button"
            className="rounded-md px-1.5 font-[640] text-rim underline pointer-coarse:min-h-11"
            onClick={() => set({ cook_c: 83 })}
          >
            Say how hot it got
          </button>
        ) : (
          <Part>
            <span>heated to</span>
            <NumberField
              inline
              label="Highest temperature reached"
              unit="°C"
              min={0}
              max={180}
              step={1}
              value={process.cook_c}
              likely={family.hottest_heat_c}
              onCommit={(cook_c) => set({ cook_c })}
            />
            {/* Past 71 °C egg is safe at once: only below it do the minutes count. */}
            {process.cook_c >= 55 && process.cook_c < 71 && (
              <>
                <span>and held</span>
                <NumberField
                  inline
                  label="Minutes held at that temperature"
                  unit="min"
                  min={0}
                  max={600}
                  step={1}
                  value={process.held_min ?? 0}
                  onCommit={(held_min) => set({ held_min })}
                />
              </>
            )}
          </Part>
        ))}
      {has('hours') && (
        <Part>
          <span>set</span>
          <NumberField
            inline
            label="Hours set in the cold"
            unit="h"
            min={0}
            max={720}
            step={1}
            value={process.set_hours ?? used?.set_hours ?? 17}
            onCommit={(set_hours) => set({ set_hours })}
          />
        </Part>
      )}
      {family.poured && (
        <Part>
          <span>poured at</span>
          <NumberField
            inline
            label="Temperature at which it is poured"
            unit="°C"
            min={0}
            max={family.hottest_c}
            step={1}
            value={pour ?? 20}
            fault={fault('work.pour_temperature_c')}
            onCommit={(pour_temperature_c) =>
              edit((d) => ({ ...d, work: { ...d.work, pour_temperature_c } }))
            }
          />
        </Part>
      )}
      <button
        type="button"
        className="rounded-md px-1.5 font-[640] text-rim underline pointer-coarse:min-h-11"
        onClick={() => setTaking(true)}
      >
        Strain or boil it down
      </button>
      {taking && (
        <Suspense fallback={null}>
          <TakenOff
            name={document.name || family.word}
            process={document.process}
            onClose={() => setTaking(false)}
            onTaken={(taken) => edit((d) => ({ ...d, process: withTakenOff(d.process, taken) }))}
          />
        </Suspense>
      )}
      {[...(answer?.strained ?? []), ...(answer?.boiled ?? [])].map((each) => (
        <p key={each.sentence} className="w-full text-small text-ink2">
          {each.sentence}.
        </p>
      ))}
      {used?.air_brought && <p className="w-full text-small text-ink2">{used.air_brought}.</p>}
    </div>
  )
}

/** Words and their number stay on one line. */
function Part({ children }: { children: ReactNode }) {
  return <span className="inline-flex items-baseline gap-x-2 whitespace-nowrap">{children}</span>
}
