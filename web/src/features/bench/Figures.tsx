import type { Assessment } from '../../api/client'
import { percent, twoDigits } from '../../lib/format'

/** The numbers a cook of this family looks at first, each with its base and what is usual. */
export function Figures({ answer }: { answer: Assessment | undefined }) {
  if (!answer) return null
  const { figures, totals, key_figures } = answer
  return (
    <div className="flex flex-col gap-1">
      <dl className="grid grid-flow-col justify-between gap-3">
        {key_figures.map((figure) => (
          <div key={figure.key}>
            <dd className="text-lead font-[680] whitespace-nowrap">{figure.text}</dd>
            <dt className="text-small leading-tight text-ink2">
              {figure.name}
              <br />
              {figure.usual ? (
                <span className={figure.outside_usual ? 'font-[640] text-hot' : ''}>
                  {figure.outside_usual ? 'unusual: ' : 'usual '}
                  {figure.usual}
                </span>
              ) : (
                figure.base
              )}
            </dt>
          </div>
        ))}
      </dl>
      <p className="text-small text-ink2">
        {fats(answer)}
        Sweet as {percent(figures.sweetness_percent, 0)} sugar
        {figures.undissolved_percent > 0 && `, ${percent(figures.undissolved_percent, 0)} of it undissolved`}.
        {figures.water_activity &&
          key_figures.every((figure) => figure.key !== 'water_activity') &&
          ` Water activity ${figures.water_activity.value.toFixed(2)}.`}
        {totals.allergens.length > 0 && (
          <>
            {' '}
            <b className="text-ink">Contains {totals.allergens.join(', ')}.</b> Check your own labels.
          </>
        )}
      </p>
    </div>
  )
}

function fats({ figures, totals }: Assessment): string {
  const parts = [
    ['cocoa butter', totals.cocoa_butter.mass_g],
    ['milk fat', totals.milk_fat.mass_g],
    ['oil and egg fat', totals.oil.mass_g],
    ['coconut fat', totals.lauric_fat.mass_g],
  ] as const
  const present = parts
    .filter(([, mass]) => mass > 0.05)
    .map(([name, mass]) => `${name} ${twoDigits(mass)} g`)
  if (present.length === 0) return ''
  return `Fat: ${present.join(', ')}; ${percent(figures.solid_fat_percent, 0)} of it solid here. `
}
