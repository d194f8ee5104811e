import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { faultWords } from '../../api/ask'
import { ProblemError } from '../../api/client'
import type { BatchNow, BatchView, FormulaDocument, LogLine } from '../../api/client'
import { dayOf, degrees, moment } from '../../lib/format'
import { useTitle } from '../../lib/hooks'
import { useKeys } from '../../lib/keys'
import { Button } from '../../ui/Button'
import { NotRead } from '../../ui/NotRead'
import { OnThisDevice } from '../batch/OnThisDevice'
import { useBatch } from '../batch/queries'
import type { Say } from '../batch/say'
import { useCreate } from '../library/queries'
import { TestSheet } from '../tests/TestSheet'
import { Pictures } from './Pictures'
import { useLogLine } from './queries'
import { SayHow } from './SayHow'
import { TestsDone } from './TestsDone'
import { WentIn } from './WentIn'

/** A batch as it was: what went in, what happened, how it came out; and what can still be said of it. */
export function RecordPage() {
  const { id = '' } = useParams()
  return <Record key={id} id={id} />
}

function Record({ id }: { id: string }) {
  const batch = useBatch(id)
  const line = useLogLine(id)
  const { now, error, waiting, silent, say, forget } = batch
  useTitle(now ? `${now.kept.document.name}, Log` : 'Log')
  if (!now || !line.data) {
    const wrong = error ?? line.error
    if (!wrong) return <div className="tray flex-1" aria-busy="true" />
    const none = wrong instanceof ProblemError && wrong.problem.status === 404
    return (
      <NotRead
        title={none ? 'There is no such batch' : 'The batch cannot be read'}
        error={wrong}
        onAgain={() => {
          batch.refetch()
          line.refetch()
        }}
      >
        <ToLog />
      </NotRead>
    )
  }
  return (
    <div className="tray flex flex-1 flex-col gap-4 px-6 pt-3 pb-4 max-phone:px-4">
      <Head now={now} line={line.data} onSay={say} />
      <OnThisDevice waiting={waiting} silent={silent} view={now.view} onForget={forget} />
      <div className="grid grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)] gap-x-10 gap-y-5 max-tablet:grid-cols-1">
        <div className="flex min-w-0 flex-col gap-5">
          <WentIn batch={now.kept.document} view={now.view} />
          {line.data.changed.length > 0 && (
            <section aria-label="Otherwise than planned">
              <h2 className="text-title">Otherwise than planned</h2>
              <ul className="list-disc pl-5">
                {line.data.changed.map((words) => (
                  <li key={words}>{words}</li>
                ))}
              </ul>
            </section>
          )}
          <TestsDone tests={now.view.tests} onSay={say} />
          <Pictures batch={id} name={now.kept.document.name} />
        </div>
        <div className="flex min-w-0 flex-col gap-5">
          <Course view={now.view} />
        </div>
      </div>
    </div>
  )
}

function ToLog() {
  return (
    <Link className="inline-flex min-h-9 items-center font-[640] text-rim underline" to="/log">
      All batches
    </Link>
  )
}

/** How it came out, in a sentence; what it was; what can be done with it. */
function Head({ now, line, onSay }: { now: BatchNow; line: LogLine; onSay: Say }) {
  const { view, kept } = now
  const [testing, setTesting] = useState(false)
  const [judging, setJudging] = useState(false)
  const thrown = line.came === 'thrown'
  useKeys('Log', [
    ...(thrown ? [] : [{ key: 'b', shown: 'B', words: 'Test it', run: () => setTesting(true) }]),
    { key: 'v', words: 'Say how it came out', run: () => setJudging(true) },
  ])
  const wrong = line.came != null && line.came !== 'good'
  return (
    <header className="flex flex-col gap-2">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <b className="font-head text-lead">{line.name}</b>
        <span className="text-ink2">{facts(line).join(', ')}</span>
        <span className="no-print ml-auto">
          <ToLog />
        </span>
      </div>
      <h1 className={`text-display leading-tight ${wrong ? 'text-hot' : ''}`}>
        {line.running
          ? 'It is being made'
          : (line.came_words?.replace(/\.$/, '') ?? 'Nobody said how it came out')}
      </h1>
      <p className="text-title">
        With what is in it: {ended(view.sentence)}
        {line.spoon && ` Seen on the spoon: ${spoonWords(line)}.`}
      </p>
      {line.notes.map((words) => (
        <p key={words} className="border-l-4 border-line2 pl-3">
          {words}
        </p>
      ))}
      <div className="no-print flex flex-wrap gap-2">
        {!thrown && (
          <Button hotkey="B" onClick={() => setTesting(true)}>
            Test it
          </Button>
        )}
        <Button hotkey="V" onClick={() => setJudging(true)}>
          Say how it came out
        </Button>
        <FromIt document={view.contents} name={`${line.name}, as made ${dayOf(line.at)}`}>
          New formula from the bowl
        </FromIt>
        <FromIt
          document={asItWas(kept.document.formula, now.held)}
          name={`${line.name}, as planned ${dayOf(line.at)}`}
        >
          From its plan
        </FromIt>
        {line.component && (
          <Link className={LINK} to={`/bench/${line.component}`}>
            Its formula
          </Link>
        )}
        <Link className={LINK} to={`/make/${line.key}`}>
          In Make
        </Link>
        <a className={LINK} href={`/api/batches/${line.key}/file`} download>
          As a file
        </a>
        <Button look="quiet" onClick={() => window.print()}>
          Print
        </Button>
      </div>
      {testing && (
        <TestSheet
          formula={view.contents}
          c={view.reads.at(-1)?.c ?? null}
          history={view.history}
          done={view.tests}
          onTested={(test, at, history) => onSay({ what: 'tested', test, c: at, history })}
          onClose={() => setTesting(false)}
        />
      )}
      {judging && <SayHow line={line} onSay={onSay} onClose={() => setJudging(false)} />}
    </header>
  )
}

const LINK = 'inline-flex min-h-9 items-center px-2 font-[640] text-rim underline pointer-coarse:min-h-11'

/** A sentence that others follow. */
function ended(words: string): string {
  return /[.!?]$/.test(words) ? words : `${words}.`
}

function facts(line: LogLine): string[] {
  return [
    `${line.family_word}, ${line.job}`,
    line.written_in ? `made ${dayOf(line.at)}, written in afterwards` : moment(line.at),
    ...(line.revision ? [`version ${line.revision} of its formula`] : []),
    ...(line.school ? [line.school] : []),
    `room ${degrees(line.room_c)}`,
    ...(line.made_for.length > 0 ? [`for ${line.made_for.join(' and ')}`] : []),
    ...(line.devices.length > 0 ? [`written on ${line.devices.join(', ')}`] : []),
  ]
}

function spoonWords(line: LogLine): string {
  return (line.spoon ?? '').replaceAll('_', ' ')
}

/** A formula with what it is made of as that was then, where it was changed since. */
function asItWas(document: FormulaDocument, held: BatchNow['held']): FormulaDocument {
  const lines = document.lines.map((line) => ({
    ...line,
    ingredient: held[line.ingredient] ?? line.ingredient,
  }))
  return { ...document, lines }
}

/** A new formula from a document, on the Bench. */
function FromIt({ document, name, children }: { document: FormulaDocument; name: string; children: string }) {
  const create = useCreate()
  const navigate = useNavigate()
  const make = () =>
    create.mutate(
      { ...document, name: name.slice(0, 120) },
      { onSuccess: (made) => void navigate(`/bench/${made.id}`) },
    )
  return (
    <>
      <Button disabled={create.isPending || document.lines.length === 0} onClick={make}>
        {children}
      </Button>
      {create.isError && (
        <span role="alert" className="text-hot">
          {faultWords(create.error)}
        </span>
      )}
    </>
  )
}

/** What happened, the last things of it; all of it in a sheet, where it can be corrected. */
function Course({ view }: { view: BatchView }) {
  const all = [...view.happened].reverse().filter((own) => !own.taken_back)
  return (
    <section aria-label="What happened" className="min-w-0">
      <h2 className="text-title">What happened</h2>
      {all.length === 0 && <p className="text-ink2">Nothing was written down while it was made.</p>}
      <ol>
        {all.map((own) => (
          <li key={own.id} className="flex gap-3 border-b border-line py-1">
            <span className="w-32 shrink-0 text-note text-ink2">{moment(own.at)}</span>
            <span className="min-w-0 flex-1">
              {own.words}
              {own.was && <span className="block text-note text-ink2">first read: {own.was}</span>}
            </span>
          </li>
        ))}
      </ol>
    </section>
  )
}
