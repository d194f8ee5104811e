import type { Ask, Fault, Job } from '../../api/client'
import { NumberField } from '../../ui/NumberField'
import { Select } from '../../ui/Select'

interface JobGeometryProps {
  job: Job
  /** The same as the server judged it, with what the document leaves out. */
  judged: Job | undefined
  /** The geometry as a sentence with blanks, as the server tells it. */
  asks: Ask[]
  faults: Fault[]
  onJob: (job: Job) => void
}

/** The geometry of a job as a sentence with numbers to set. */
export function JobGeometry({ job, judged, asks, faults, onJob }: JobGeometryProps) {
  const filled = judged?.kind === job.kind ? { ...judged, ...job } : job
  const now = filled as unknown as Record<string, number | string>
  const set = (field: string, value: number | string) => onJob({ ...job, [field]: value } as Job)
  return asks.map((ask, at) => {
    if (ask.kind === 'words') return <span key={`${job.kind}-${at}`}>{ask.words}</span>
    const key = `${job.kind}-${ask.field}`
    const fault = faults.find((each) => each.field === `work.job.${ask.field}`)?.message
    if (ask.kind === 'number') {
      return (
        <NumberField
          inline
          key={key}
          label={ask.label}
          unit={ask.unit}
          min={ask.min}
          max={ask.max}
          step={ask.step}
          value={now[ask.field] as number}
          fault={fault}
          onCommit={(value) => set(ask.field, value)}
        />
      )
    }
    return (
      <Select
        inline
        key={key}
        label={ask.label}
        value={String(now[ask.field])}
        onChange={(value) => set(ask.field, value)}
        options={ask.options.map((option) => [option.value, option.words] as const)}
      />
    )
  })
}
