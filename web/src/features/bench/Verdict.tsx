import { ToggleGroup } from 'radix-ui'
import { useRef } from 'react'
import type { ReactNode } from 'react'
import type { Assessment, Fault, Job, Point } from '../../api/client'
import type { BenchDocument } from './document'
import { useFamily } from '../../lib/families'
import { comesOut, isGood } from './point'
import { Spoken } from '../../ui/Spoken'
import { WhySheet } from './WhySheet'

interface VerdictProps {
  answer: Assessment | undefined
  /** The way that is looked at, with its letter. */
  trying: { letter: string; at: Point } | null
  here: Point | undefined
  faults: Fault[]
  empty: boolean
  offline: boolean
  document: BenchDocument
  edit: (change: (document: BenchDocument) => BenchDocument, tag?: string) => void
  /** What stands beside "Why?". */
  beside: ReactNode
  /** What the kitchen's own tests do to it. */
  learned: ReactNode
}

/** The sentence that answers the question, then its numbers; beside it the job. */
export function Verdict(props: VerdictProps) {
  const { answer, trying, here, faults, empty, offline, document, edit, beside, learned } = props
  return (
    <div className="min-w-0">
      <div className="float-right ml-4 max-phone:float-none max-phone:mb-2 max-phone:ml-0">
        <JobSwitch document={document} edit={edit} />
      </div>
      <Spoken>
        <Sentence
          answer={answer}
          trying={trying}
          here={here}
          faults={faults}
          empty={empty}
          offline={offline}
          beside={beside}
        />
      </Spoken>
      {/* Also while a way is looked at: nothing below moves away from under the hand. */}
      {!empty && faults.length === 0 && learned}
    </div>
  )
}

/** A long verdict is set smaller, so that what is below it stays where it is. */
function size(words: string): string {
  const short = words.length <= 26
  return `min-h-[38px] leading-[1.1] text-balance ${short ? 'pt-[3px] text-display max-narrow:text-head' : 'pt-[7px] text-title max-narrow:text-title'}`
}

function Sentence(props: Omit<VerdictProps, 'document' | 'edit' | 'learned'>) {
  const { answer, trying, here, faults, empty, offline, beside } = props
  const big = size('')
  if (empty) {
    return (
      <>
        <h2 className={big}>Empty spoon</h2>
        <p>Add an ingredient, and it says what the cream will do.</p>
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
  if (trying) {
    return (
      <>
        <h2
          data-testid="verdict"
          className={`${size(trying.at.headline)} ${isGood(trying.at) ? 'text-rim' : 'text-hot'}`}
        >
          {trying.at.headline}
        </h2>
        <p className="min-h-[41px]">
          <b className="text-rim">With {trying.letter}, not done yet.</b> {trying.at.detail}{' '}
          <span className="text-ink2">{comesOut(trying.at)}</span>
        </p>
      </>
    )
  }
  return (
    <>
      <h2
        data-testid="verdict"
        className={`${size(here.headline)} ${isGood(here) ? 'text-rim' : 'text-hot'}`}
      >
        {here.headline}
      </h2>
      <p className="min-h-[41px]">
        {here.detail} {here.outcome !== 'no_window' && !here.unknown && answer.span_sentence}{' '}
        <span className="whitespace-nowrap text-ink2">{comesOut(here)}</span> <WhySheet answer={answer} />{' '}
        {beside}
      </p>
      {answer.pour && (
        <p className={answer.pour.outcome === 'inside' ? '' : 'font-[640] text-hot'}>
          {answer.pour.sentence}
        </p>
      )}
    </>
  )
}

function sentence(words: string): string {
  return words ? `${words.charAt(0).toUpperCase()}${words.slice(1)}.` : ''
}

/** Jobs whose word on the wire is not the one on the switch. */
const SHORT: Record<string, string> = { nappe: 'coat a spoon' }

function JobSwitch({ document, edit }: Pick<VerdictProps, 'document' | 'edit'>) {
  const family = useFamily(document.family)
  const jobs = family?.jobs ?? []
  // The geometry a person set for a job is kept while they look at another.
  const kept = useRef(new Map<Job['kind'], Job>())
  const kind = document.work.job.kind
  return (
    <ToggleGroup.Root
      type="single"
      aria-label="Job"
      value={kind}
      onValueChange={(next) => {
        const wanted = jobs.find((each) => each.job.kind === next)
        if (!wanted || next === kind) return
        kept.current.set(kind, document.work.job)
        const job = kept.current.get(wanted.job.kind) ?? wanted.job
        edit((d) => {
          const { history: _history, ...work } = d.work
          return { ...d, work: { ...work, job } }
        })
      }}
      className="flex shrink-0 flex-wrap overflow-hidden rounded-tray border border-line2 max-phone:justify-self-start"
    >
      {jobs.map((each) => (
        <ToggleGroup.Item
          key={each.word}
          value={each.job.kind}
          className="min-h-9 border-l border-line2 px-4 text-ink2 first:border-0 max-narrow:px-3 hover:bg-rim-tint focus-visible:relative focus-visible:outline-offset-[-3px] data-[state=on]:bg-ink data-[state=on]:font-[640] data-[state=on]:text-enamel pointer-coarse:min-h-11"
        >
          {SHORT[each.word] ?? each.word}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  )
}
