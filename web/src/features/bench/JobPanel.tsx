import type { Assessment, Fault, History, Job } from '../../api/client'
import { NumberField } from '../../ui/NumberField'
import type { BenchDocument } from './document'
import { useJobs } from './queries'

interface JobPanelProps {
  document: BenchDocument
  answer: Assessment | undefined
  faults: Fault[]
  edit: (change: (document: BenchDocument) => BenchDocument, tag?: string) => void
}

/** The geometry of the job as a sentence with numbers to set, then what else is to be known. */
export function JobPanel({ document, answer, faults, edit }: JobPanelProps) {
  return (
    <div className="flex flex-col gap-2">
      <div className="flex flex-wrap items-baseline gap-x-2 gap-y-1.5 border-b border-line pb-2">
        <h2 className="text-[18px]">The job</h2>
        <Geometry document={document} faults={faults} edit={edit} />
      </div>
      {answer && (
        <ul className="flex flex-col gap-1">
          <li>{answer.in_the_room.sentence}</li>
          {answer.warnings.map((warning) => (
            <li key={warning.code} className={warning.severity === 'note' ? '' : 'text-hot'}>
              <b>{warning.cause}</b> <span className="text-ink">{warning.way_out}</span>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}

type NumberKey<T> = { [K in keyof T]: T[K] extends number ? K : never }[keyof T] & string

function Geometry({ document, faults, edit }: Omit<JobPanelProps, 'answer'>) {
  const job = document.work.job
  /** A number of this job's geometry, in the sentence. */
  function field<T extends Job>(
    of: T,
    key: NumberKey<T>,
    label: string,
    unit: string,
    limits: [number, number, number],
  ) {
    const [min, max, step] = limits
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
        onCommit={(value) => edit((d) => ({ ...d, work: { ...d.work, job: { ...of, [key]: value } } }))}
      />
    )
  }
  switch (job.kind) {
    case 'drip':
      return (
        <>
          <span>Drips of</span>
          {field(job, 'dose_ml', 'Dose of a drip', 'ml', [0.05, 20, 0.1])}
          <span>on a side at</span>
          {field(job, 'side_temperature_c', 'Temperature of the side', '°C', [-40, 60, 1])}
          <span>that run from</span>
          {field(job, 'shortest_mm', 'Shortest drip', 'mm', [0.1, 2000, 1])}
          <span>to</span>
          {field(job, 'longest_mm', 'Longest drip', 'mm', [0.1, 2000, 1])}
        </>
      )
    case 'coat':
      return (
        <>
          <span>A film of</span>
          {field(job, 'thinnest_mm', 'Thinnest film', 'mm', [0.1, 2000, 0.1])}
          <span>to</span>
          {field(job, 'thickest_mm', 'Thickest film', 'mm', [0.1, 2000, 0.1])}
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
          {field(job, 'thickness_mm', 'Thickness of the layer', 'mm', [0.1, 2000, 1])}
          <span>spread with</span>
          {field(job, 'knife_force_n', 'Push on the knife', 'N', [0.5, 200, 1])}
          <span>on a blade of</span>
          {field(job, 'knife_area_cm2', 'Blade in contact', 'cm²', [0.5, 1000, 5])}
        </>
      )
    case 'fill':
      return (
        <>
          <HistoryChoice document={document} edit={edit} />
          <span>filling of</span>
          {field(job, 'thickness_mm', 'Thickness of the filling', 'mm', [0.1, 2000, 1])}
          <span>in a cake</span>
          {field(job, 'diameter_mm', 'Diameter of the cake', 'mm', [0.1, 2000, 10])}
          <span>wide, under</span>
          {field(job, 'load_above_g', 'Load above', 'g', [0, 1000000, 100])}
          <span>whose crumb tears at</span>
          {field(job, 'crumb_strength_pa', 'Strength of the crumb', 'Pa', [1, 1000000, 100])}
        </>
      )
  }
}

function HistoryChoice({ document, edit }: Pick<JobPanelProps, 'document' | 'edit'>) {
  const jobs = useJobs()
  const histories = jobs.data?.find((each) => each.job.kind === document.work.job.kind)?.histories ?? []
  const now = document.work.history ?? histories[0]?.history
  return (
    <select
      aria-label="State of the ganache"
      className="rounded-md border border-line2 bg-enamel px-1.5 py-0.5 pointer-coarse:min-h-11"
      value={now}
      onChange={(event) => {
        const history = event.target.value as History
        edit((d) => ({ ...d, work: { ...d.work, history } }))
      }}
    >
      {histories.map((each) => (
        <option key={each.history} value={each.history}>
          A {each.words}
        </option>
      ))}
    </select>
  )
}
