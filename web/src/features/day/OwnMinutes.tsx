import type { KitchenDocument, TookMinutes } from '../../api/client'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { Select } from '../../ui/Select'
import { useMethods } from './queries'
import { TakeOut } from './TakeOut'

type Own = NonNullable<KitchenDocument['own_minutes']>[number]

interface OwnMinutesProps {
  own: Own[]
  /** What the kitchen's own batches tell. */
  took: readonly TookMinutes[]
  onChange: (own: Own[], tag?: string) => void
  fault: (field: string) => string | undefined
}

/** The kitchen's own minutes for steps of its methods: every plan reckons with them. */
export function OwnMinutes({ own, took, onChange, fault }: OwnMinutesProps) {
  const { data: found, isError, refetch } = useMethods()
  const put = (at: number, next: Partial<Own>, tag?: string) =>
    onChange(
      own.map((row, place) => (place === at ? { ...row, ...next } : row)),
      tag,
    )
  const first = found?.[0]
  const usual = (school: string, step: string) =>
    found?.find((each) => each.school === school)?.steps.find((each) => each.step === step)
  return (
    <section aria-label="Own minutes" className="flex flex-col gap-2">
      <h2 className="text-title">Own minutes</h2>
      <p className="text-note text-ink2">
        How long a step takes you. What is not written here takes as long as your own batches say, else as
        long as usual.
      </p>
      {isError && (
        <p role="alert" className="flex flex-wrap items-center gap-2 text-note text-hot">
          The methods could not be read.
          <Button look="quiet" className="px-2" onClick={() => void refetch()}>
            Try again
          </Button>
        </p>
      )}
      <ul className="flex flex-col gap-3">
        {own.map((row, at) => {
          const school = found?.find((each) => each.school === row.school)
          const step = usual(row.school, row.step)
          const [base, perKg] = row.minutes
          return (
            <li key={at} className="flex flex-wrap items-end gap-x-4 gap-y-1 border-t border-line pt-2">
              <Select
                label="Method"
                value={row.school}
                options={options(
                  found?.map((each) => [each.school, each.name] as const),
                  row.school,
                )}
                onChange={(key) => {
                  const next = found?.find((each) => each.school === key)?.steps[0]
                  if (next) put(at, { school: key, step: next.step, minutes: next.minutes })
                }}
              />
              <Select
                label="Step"
                value={row.step}
                className="max-w-80"
                options={options(
                  school?.steps.map((each) => [each.step, each.what] as const),
                  row.step,
                )}
                onChange={(key) => {
                  const next = usual(row.school, key)
                  if (next) put(at, { step: key, minutes: next.minutes })
                }}
              />
              <NumberField
                label="Takes"
                unit="min"
                value={base ?? 0}
                min={0}
                max={1440}
                step={1}
                fault={fault(`own_minutes.${at}.minutes`) ?? fault(`own_minutes.${at}.step`)}
                onCommit={(next) => put(at, { minutes: [next, perKg ?? 0] }, `own-${at}`)}
              />
              <NumberField
                label="and for each kg"
                unit="min"
                value={perKg ?? 0}
                min={0}
                max={1440}
                step={0.5}
                onCommit={(next) => put(at, { minutes: [base ?? 0, next] }, `own-${at}`)}
              />
              <TakeOut
                what={`row ${at + 1} of own minutes`}
                onClick={() => onChange(own.filter((_, place) => place !== at))}
              />
              {step && (
                <p className="basis-full text-note text-ink2">
                  Usually {step.minutes[0]} min, and {step.minutes[1]} for each kg.
                </p>
              )}
            </li>
          )
        })}
      </ul>
      <div>
        <Button
          look="quiet"
          className="px-2"
          disabled={!first?.steps[0] || own.length >= 500}
          onClick={() => {
            const step = first?.steps[0]
            if (first && step) {
              onChange([...own, { school: first.school, step: step.step, minutes: step.minutes }])
            }
          }}
        >
          A step takes you longer or shorter
        </Button>
      </div>
      <Took
        took={took.filter((each) => !own.some((row) => row.school === each.school && row.step === each.step))}
        onKeep={({ school, step, minutes }) => onChange([...own, { school, step, minutes }])}
      />
    </section>
  )
}

/** What steps took in this kitchen's own batches: plans reckon with it already. */
function Took({ took, onKeep }: { took: readonly TookMinutes[]; onKeep: (own: TookMinutes) => void }) {
  if (took.length === 0) return null
  return (
    <details>
      <summary className="inline-flex min-h-9 cursor-pointer items-center font-[640] text-rim pointer-coarse:min-h-11">
        {took.length === 1 ? 'One step is' : `${took.length} steps are`} known from your own batches
      </summary>
      <p className="text-note text-ink2">
        Four batches in five were no slower; of each the last forty count. Plans reckon with these minutes
        until you write others.
      </p>
      <ul className="border-t border-line">
        {took.map((each) => (
          <li
            key={`${each.school} ${each.step}`}
            className="flex flex-wrap items-center gap-x-4 border-b border-line py-1"
          >
            <span className="min-w-56 flex-1">
              {each.what}
              <span className="block text-note text-ink2">
                {each.name}, from {each.batches} batches; usually {minutesOf(each.usual)}
              </span>
            </span>
            <b>{minutesOf(each.minutes)}</b>
            <Button
              look="quiet"
              className="px-2"
              aria-label={`Write it down: ${each.what}`}
              onClick={() => onKeep(each)}
            >
              Write it down
            </Button>
          </li>
        ))}
      </ul>
    </details>
  )
}

function minutesOf([base, perKg]: readonly number[]): string {
  const more = perKg ? ` and ${perKg} for each kg` : ''
  return `${base ?? 0} min${more}`
}

/** What can be chosen, with what stands there even where it is not known any more. */
function options(
  known: (readonly [string, string])[] | undefined,
  own: string,
): (readonly [string, string])[] {
  const all = known ?? []
  return all.some(([key]) => key === own) ? all : [[own, own], ...all]
}
