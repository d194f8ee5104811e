import type { Assessment, FamilyJob, Fault, History, Job } from '../../api/client'
import { useFamily } from '../../lib/families'
import type { BenchDocument } from './document'
import { JobGeometry } from './JobGeometry'
import { ProcessFields } from './ProcessFields'
import { Select } from '../../ui/Select'

interface JobPanelProps {
  document: BenchDocument
  answer: Assessment | undefined
  faults: Fault[]
  edit: (change: (document: BenchDocument) => BenchDocument, tag?: string) => void
}

/** The geometry of the job and the making as sentences with numbers to set, then what else is to be known. */
export function JobPanel({ document, answer, faults, edit }: JobPanelProps) {
  const family = useFamily(document.family)
  const job = family?.jobs.find((each) => each.job.kind === document.work.job.kind)
  const onJob = (job: Job) => edit((d) => ({ ...d, work: { ...d.work, job } }))
  return (
    <div className="flex flex-col gap-2">
      <div className="flex flex-wrap items-baseline gap-x-2 gap-y-1.5 border-b border-line pb-2">
        <h2 className="text-lead">The job</h2>
        <HistoryChoice job={job} document={document} edit={edit} />
        <JobGeometry
          job={document.work.job}
          judged={answer?.job}
          asks={job?.asks ?? []}
          faults={faults}
          onJob={onJob}
        />
      </div>
      <ProcessFields document={document} answer={answer} faults={faults} edit={edit} />
      {answer && (
        <ul className="flex flex-col gap-1">
          <li>{answer.in_the_room.sentence}</li>
          {answer.warnings.map((warning) => (
            <li
              key={`${warning.code} ${warning.cause}`}
              className={warning.severity === 'note' ? '' : 'text-hot'}
            >
              <b>{warning.cause}</b> <span className="text-ink">{warning.way_out}</span>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}

/** Fresh, set or stirred, where the job can be done in more than one state. */
function HistoryChoice({
  job,
  document,
  edit,
}: Pick<JobPanelProps, 'document' | 'edit'> & { job: FamilyJob | undefined }) {
  const histories = job?.histories ?? []
  if (histories.length < 2) return null
  const now = document.work.history ?? histories[0]?.history
  return (
    <Select
      inline
      label="State of the cream"
      value={now ?? ''}
      onChange={(history) => edit((d) => ({ ...d, work: { ...d.work, history: history as History } }))}
      options={histories.map((each) => [each.history, each.words] as const)}
    />
  )
}
