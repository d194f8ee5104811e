import { ToggleGroup } from 'radix-ui'
import { useRef } from 'react'
import type { Assessment, Fault, Job, Point } from '../../api/client'
import type { BenchDocument } from './document'
import { isGood } from './point'
import { useJobs } from './queries'

interface VerdictProps {
  answer: Assessment | undefined
  here: Point | undefined
  faults: Fault[]
  empty: boolean
  offline: boolean
  document: BenchDocument
  edit: (change: (document: BenchDocument) => BenchDocument, tag?: string) => void
}

/** The sentence that answers the question, then its numbers; beside it the job. */
export function Verdict({ answer, here, faults, empty, offline, document, edit }: VerdictProps) {
  return (
    <div className="grid min-w-0 grid-cols-[minmax(0,1fr)_auto] items-start gap-x-4 max-[760px]:grid-cols-1 max-[760px]:gap-y-2">
      <div
        role="status"
        aria-live="polite"
        className="col-span-2 col-start-1 row-start-1 min-w-0 max-[760px]:col-span-1"
      >
        <Sentence answer={answer} here={here} faults={faults} empty={empty} offline={offline} />
      </div>
      <JobSwitch document={document} edit={edit} />
    </div>
  )
}

function Sentence({ answer, here, faults, empty, offline }: Omit<VerdictProps, 'document' | 'edit'>) {
  // The job switch stands to the right of the sentence; its numbers run under both.
  const big =
    'flex min-h-[38px] items-center pr-[252px] text-[29px] leading-[1.1] max-[1100px]:pr-[212px] max-[1100px]:text-[24px] max-[760px]:pr-0'
  if (empty) {
    return (
      <>
        <h2 className={big}>Empty spoon</h2>
        <p>Add an ingredient, and it says what the ganache will do.</p>
      </>
    )
  }
  if (faults.length > 0) {
    const lines = faults.filter((fault) => fault.field.startsWith('lines.')).length
    return (
      <>
        <h2 className={`${big} text-hot`}>
          {lines > 0
            ? lines === 1
              ? 'One line cannot be weighed'
              : `${lines} lines cannot be weighed`
            : 'Something needs another look'}
        </h2>
        <p>
          {sentence(faults[0]?.message ?? '')} {answer && 'The map still shows the last good one.'}
        </p>
      </>
    )
  }
  if (!answer || !here) {
    return offline ? (
      <>
        <h2 className={`${big} text-hot`}>No answer yet</h2>
        <p>The server is not answering. What you write is kept here.</p>
      </>
    ) : null
  }
  return (
    <>
      <h2 data-testid="verdict" className={`${big} ${isGood(here) ? 'text-rim' : 'text-hot'}`}>
        {here.headline}
      </h2>
      <p>
        {here.detail} {here.outcome !== 'no_window' && answer.span_sentence}{' '}
        <span className="whitespace-nowrap text-ink2">Comes out right {here.chance_words}.</span>
      </p>
    </>
  )
}

function sentence(words: string): string {
  return words ? `${words.charAt(0).toUpperCase()}${words.slice(1)}.` : ''
}

function JobSwitch({ document, edit }: Pick<VerdictProps, 'document' | 'edit'>) {
  const jobs = useJobs()
  // The geometry a person set for a job is kept while they look at another.
  const kept = useRef(new Map<Job['kind'], Job>())
  const kind = document.work.job.kind
  return (
    <ToggleGroup.Root
      type="single"
      aria-label="Job"
      value={kind}
      onValueChange={(next) => {
        const wanted = jobs.data?.find((each) => each.job.kind === next)
        if (!wanted || next === kind) return
        kept.current.set(kind, document.work.job)
        const job = kept.current.get(wanted.job.kind) ?? wanted.job
        edit((d) => {
          const { history: _history, ...work } = d.work
          return { ...d, work: { ...work, job } }
        })
      }}
      className="col-start-2 row-start-1 flex shrink-0 overflow-hidden rounded-[9px] border border-line2 max-[760px]:col-start-1 max-[760px]:row-start-2 max-[760px]:justify-self-start"
    >
      {(jobs.data ?? []).map((each) => (
        <ToggleGroup.Item
          key={each.verb}
          value={each.job.kind}
          className="min-h-9 border-l border-line2 px-4 text-ink2 first:border-0 max-[1100px]:px-3 hover:bg-rim-tint focus-visible:relative focus-visible:outline-offset-[-3px] data-[state=on]:bg-ink data-[state=on]:font-[640] data-[state=on]:text-enamel pointer-coarse:min-h-11"
        >
          {each.verb}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  )
}
