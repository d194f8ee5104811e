import type { Assessment } from '../../api/client'
import { fixed, grams, percent } from '../../lib/format'

/** Numbers that do not hang on the job, with what they are worth. */
export function Figures({ answer }: { answer: Assessment | undefined }) {
  if (!answer) return null
  const { figures, totals } = answer
  const aw = figures.water_activity
  const cells: [string, string, string][] = [
    ['water activity', aw ? fixed(aw.value, 2) : 'too dry', '± 0.02'],
    [
      'syrup Brix',
      `${fixed(figures.brix.value, 0)} °Bx`,
      `± ${fixed((figures.brix.high - figures.brix.low) / 2, 0)}`,
    ],
    ['density', `${fixed(figures.density_g_per_ml.value, 2)} g/ml`, '± 2 %'],
    [
      'split index',
      fixed(figures.split.value, 2),
      `${fixed(figures.split.low, 2)} to ${fixed(figures.split.high, 2)}`,
    ],
  ]
  return (
    <div className="flex flex-col gap-1">
      <dl className="grid grid-cols-4 gap-2">
        {cells.map(([name, value, band]) => (
          <div key={name}>
            <dd className="text-[17px] font-[680] whitespace-nowrap">{value}</dd>
            <dt className="text-[13px] leading-tight text-ink2">
              {name}
              <br />
              {band}
            </dt>
          </div>
        ))}
      </dl>
      <p className="text-[13px] text-ink2">
        Fat: cocoa butter {grams(totals.cocoa_butter.mass_g)} g, milk fat {grams(totals.milk_fat.mass_g)} g
        {totals.oil.mass_g > 0.05 && `, oil ${grams(totals.oil.mass_g)} g`}
        {totals.lauric_fat.mass_g > 0.05 && `, coconut fat ${grams(totals.lauric_fat.mass_g)} g`};{' '}
        {percent(figures.solid_fat_percent, 0)} of it solid here. Sweet as{' '}
        {percent(figures.sweetness_percent, 0)} sugar.
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
