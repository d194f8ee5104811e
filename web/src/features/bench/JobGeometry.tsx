import type { Fault, Job } from '../../api/client'
import { NumberField } from '../../ui/NumberField'

interface JobGeometryProps {
  job: Job
  faults: Fault[]
  onJob: (job: Job) => void
}

type NumberKey<T> = { [K in keyof T]: T[K] extends number ? K : never }[keyof T] & string

const choice = 'rounded-md border border-line2 bg-enamel px-1.5 py-0.5 pointer-coarse:min-h-11'

/** The geometry of a job as a sentence with numbers to set. */
export function JobGeometry({ job, faults, onJob }: JobGeometryProps) {
  /** A number of this job's geometry, in the sentence. */
  function field<T extends Job>(
    of: T,
    key: NumberKey<T>,
    label: string,
    unit: string,
    [min, max, step]: [number, number, number],
  ) {
    return (
      <NumberField
        inline
        key={`${of.kind}-${key}`}
        label={label}
        unit={unit}
        min={min}
        max={max}
        step={step}
        value={of[key] as number}
        fault={faults.find((fault) => fault.field === `work.job.${key}`)?.message}
        onCommit={(value) => onJob({ ...of, [key]: value })}
      />
    )
  }
  const mm: [number, number, number] = [0.05, 2000, 1]
  switch (job.kind) {
    case 'drip':
      return (
        <>
          <span>Drips of</span>
          {field(job, 'dose_ml', 'Dose of a drip', 'ml', [0.05, 20, 0.1])}
          <span>on a side at</span>
          {field(job, 'side_temperature_c', 'Temperature of the side', '°C', [-40, 60, 1])}
          <span>that run from</span>
          {field(job, 'shortest_mm', 'Shortest drip', 'mm', mm)}
          <span>to</span>
          {field(job, 'longest_mm', 'Longest drip', 'mm', mm)}
        </>
      )
    case 'coat':
      return (
        <>
          <span>A film of</span>
          {field(job, 'thinnest_mm', 'Thinnest film', 'mm', [0.05, 2000, 0.1])}
          <span>to</span>
          {field(job, 'thickest_mm', 'Thickest film', 'mm', [0.05, 2000, 0.1])}
          <span>on a side</span>
          {field(job, 'height_mm', 'Height of the side', 'mm', [0.1, 2000, 5])}
          <span>high, at</span>
          {field(job, 'side_temperature_c', 'Temperature of the side', '°C', [-40, 60, 1])}
        </>
      )
    case 'mask':
      return (
        <>
          <span>A layer of</span>
          {field(job, 'thickness_mm', 'Thickness of the layer', 'mm', mm)}
          <span>spread with</span>
          {field(job, 'knife_force_n', 'Push on the knife', 'N', [0.5, 200, 1])}
          <span>on a blade of</span>
          {field(job, 'knife_area_cm2', 'Blade in contact', 'cm²', [0.5, 1000, 5])}
        </>
      )
    case 'fill':
      return (
        <>
          <span>A filling of</span>
          {field(job, 'thickness_mm', 'Thickness of the filling', 'mm', mm)}
          <span>in a cake</span>
          {field(job, 'diameter_mm', 'Diameter of the cake', 'mm', [0.1, 2000, 10])}
          <span>wide, under</span>
          {field(job, 'load_above_g', 'Load above', 'g', [0, 1_000_000, 100])}
          <span>whose crumb tears at</span>
          {field(job, 'crumb_strength_pa', 'Strength of the crumb', 'Pa', [1, 1_000_000, 100])}
        </>
      )
    case 'pipe':
      return (
        <>
          <span>Pieces</span>
          {field(job, 'height_mm', 'Height of a piece', 'mm', mm)}
          <span>high through a nozzle of</span>
          {field(job, 'nozzle_mm', 'Opening of the nozzle', 'mm', mm)}
          <span>and</span>
          {field(job, 'nozzle_length_mm', 'Length of the nozzle', 'mm', mm)}
          <span>long; the hand pushes</span>
          {field(job, 'hand_force_n', 'Push of the hand', 'N', [0.5, 200, 5])}
          <span>on</span>
          {field(job, 'hand_area_cm2', 'Hand on the bag', 'cm²', [0.5, 1000, 2])}
          <span>of a bag</span>
          {field(job, 'bag_mm', 'Width of the bag', 'mm', mm)}
          <span>wide</span>
        </>
      )
    case 'set':
      return (
        <>
          <span>A piece</span>
          {field(job, 'height_mm', 'Height of the piece', 'mm', mm)}
          <span>high, to</span>
          <select
            aria-label="How firm it is to be"
            className={choice}
            value={job.grade}
            onChange={(event) =>
              onJob({ ...job, grade: event.target.value as NonNullable<typeof job.grade> })
            }
          >
            <option value="wobble">stand with a wobble (sags 30 %)</option>
            <option value="firm">turn out (sags 10 %)</option>
            <option value="clean_slice">cut clean (sags 5 %)</option>
          </select>
        </>
      )
    case 'spoon':
      return (
        <>
          <span>On a spoon, from</span>
          {field(job, 'softest_pa', 'Softest', 'Pa', [1, 1_000_000, 10])}
          <span>to</span>
          {field(job, 'firmest_pa', 'Firmest', 'Pa', [1, 1_000_000, 50])}
        </>
      )
    case 'soak':
      return (
        <>
          <span>It goes</span>
          {field(job, 'shallowest_mm', 'Least depth', 'mm', mm)}
          <span>to</span>
          {field(job, 'deepest_mm', 'Greatest depth', 'mm', mm)}
          <span>deep in</span>
          {field(job, 'time_s', 'Time it has', 's', [0.5, 86_400, 30])}
          <span>; on</span>
          {field(job, 'sponge_g', 'Sponge to soak', 'g', [0, 1_000_000, 50])}
          <span>of sponge</span>
          {field(job, 'on_sponge_percent', 'Syrup on sponge', '%', [0, 100, 5])}
          <span>of its weight</span>
          <select
            aria-label="How sweet the soak is meant to be"
            className={choice}
            value={job.richness}
            onChange={(event) =>
              onJob({ ...job, richness: event.target.value as NonNullable<typeof job.richness> })
            }
          >
            <option value="any">as sweet as it is</option>
            <option value="light">light, 25 to 35 °Bx</option>
            <option value="rich">rich, 45 to 57 °Bx</option>
          </select>
        </>
      )
    case 'whip':
      return (
        <>
          <span>Whipped at</span>
          {field(job, 'warmest_c', 'Warmest', '°C', [0, 45, 1])}
          <span>or colder, with at least</span>
          {field(job, 'least_fat_percent', 'Least fat', '%', [0, 100, 1])}
          <span>fat, and no thicker than</span>
          {field(job, 'thickest_pa_s', 'Thickest before whipping', 'Pa·s', [0.1, 1000, 0.5])}
        </>
      )
    case 'nappe':
      return (
        <>
          <span>The spoon keeps</span>
          {field(job, 'thinnest_mm', 'Thinnest film', 'mm', [0.05, 2000, 0.05])}
          <span>to</span>
          {field(job, 'thickest_mm', 'Thickest film', 'mm', [0.05, 2000, 0.05])}
          <span>after</span>
          {field(job, 'time_s', 'Time it drains', 's', [0.5, 86_400, 1])}
          <span>on a spoon</span>
          {field(job, 'height_mm', 'Height of the spoon', 'mm', [0.1, 2000, 5])}
          <span>high</span>
        </>
      )
  }
}
