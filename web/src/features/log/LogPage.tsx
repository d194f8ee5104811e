import { useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { SETTLE_MS } from '../../api/ask'
import type { LogCounts, LogLine, LogPage as Page } from '../../api/client'
import { useSettled, useTitle } from '../../lib/hooks'
import { useKeys } from '../../lib/keys'
import { Button } from '../../ui/Button'
import { NotRead } from '../../ui/NotRead'
import { asksFor, queryOf, withPart } from './filters'
import { LogFiles } from './LogFiles'
import { LogFilters } from './LogFilters'
import { LogNav } from './LogNav'
import { LogRow } from './LogRow'
import { useLog, useLogCounts } from './queries'
import { WriteIn } from './WriteIn'

/** Most batches beside each other. */
const MOST_BESIDE = 3

/** Every batch that was made, and what is looked for among them. */
export function LogPage() {
  useTitle('Log')
  const navigate = useNavigate()
  const [address, setAddress] = useSearchParams()
  const [writing, setWriting] = useState(false)
  const [files, setFiles] = useState(false)
  const [ticked, setTicked] = useState<readonly string[]>([])
  const [cleared, setCleared] = useState(0)
  const counts = useLogCounts()
  const change = (name: string, value: string) =>
    setAddress((before) => withPart(before, name, value), { replace: true })
  useKeys('Log', [
    {
      key: '/',
      words: 'Find a batch',
      run: () => window.document.getElementById('find-batch')?.focus(),
    },
    { key: 'w', words: 'Write a batch in', run: () => setWriting(true) },
  ])
  const tick = (key: string, on: boolean) =>
    setTicked((before) => (on ? [...before, key].slice(-MOST_BESIDE) : before.filter((own) => own !== key)))
  return (
    <div className="tray flex flex-1 flex-col gap-3 px-6 pt-3 pb-4 max-phone:px-4">
      <LogNav />
      <header className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <h1 className="mr-auto text-display leading-tight">{sentence(counts.data)}</h1>
        {ticked.length > 1 && (
          <Button look="primary" onClick={() => void navigate(`/log/beside?keys=${ticked.join(',')}`)}>
            {ticked.length} beside each other
          </Button>
        )}
        <Button className="no-print" hotkey="W" onClick={() => setWriting(true)}>
          Write one in
        </Button>
        <Button className="no-print" onClick={() => setFiles(true)}>
          Files
        </Button>
        <Button className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </header>
      <LogFilters
        key={cleared}
        address={address}
        counts={counts.data}
        onChange={change}
        onNone={() => {
          setAddress({}, { replace: true })
          setCleared(cleared + 1)
        }}
      />
      <Pages
        address={address}
        any={(counts.data?.batches ?? 0) > 0}
        ticked={ticked}
        onTick={tick}
        onWrite={() => setWriting(true)}
      />
      {writing && <WriteIn onClose={() => setWriting(false)} />}
      {files && <LogFiles address={address} onClose={() => setFiles(false)} />}
    </div>
  )
}

function sentence(counts: LogCounts | undefined): string {
  if (!counts) return 'Log'
  if (counts.batches === 0) return 'Nothing was made yet'
  const all = counts.batches === 1 ? 'One batch' : `${counts.batches.toLocaleString('en')} batches`
  if (counts.wrong === 0) return `${all}, none of them wrong`
  return `${all}, ${counts.wrong.toLocaleString('en')} of them wrong`
}

interface PagesProps {
  address: URLSearchParams
  /** Whether there is any batch at all. */
  any: boolean
  ticked: readonly string[]
  onTick: (key: string, on: boolean) => void
  onWrite: () => void
}

/** How far down the log was read, of what was asked for. */
interface Reached {
  question: string
  before: readonly LogLine[]
  behind?: number
}

/** Page after page of what was asked for, each added to the ones before. */
function Pages({ address, any, ticked, onTick, onWrite }: PagesProps) {
  const asked = queryOf(address)
  const words = useSettled(asked.words ?? '', SETTLE_MS)
  const question = JSON.stringify(asked)
  const [at, setAt] = useState<Reached>({ question, before: [] })
  // Something else is asked for: from the first page on.
  if (at.question !== question) setAt({ question, before: [] })
  const { behind, before } = at
  const query = { ...asked, ...(words ? { words } : {}), ...(behind === undefined ? {} : { behind }) }
  const found = useLog(query)
  const seeking = words !== (asked.words ?? '') || (!found.current && !found.isError)
  if (found.isError && !found.data) {
    return <NotRead title="The log cannot be read" error={found.error} onAgain={found.refetch} />
  }
  if (!found.data) return <div className="min-h-40" aria-busy="true" />
  const lines = [...before, ...found.data.lines.filter((own) => !before.some((it) => it.key === own.key))]
  const next = found.data.more_behind
  return (
    <section aria-label="Batches" aria-busy={seeking} className="min-w-0">
      <Behind page={found.data} />
      {lines.length === 0 && !seeking && (
        <p className="py-4 text-title">
          {asksFor(address) && any
            ? 'No batch is like that. Take one of the words or choices away.'
            : 'What is made in Make stands here by itself. What was made before can be written in.'}{' '}
          {!any && (
            <Button className="ml-2" onClick={onWrite}>
              Write one in
            </Button>
          )}
        </p>
      )}
      <ol className="border-t border-line">
        {lines.map((line) => (
          <LogRow
            key={line.key}
            line={line}
            ticked={ticked.includes(line.key)}
            onTick={(on) => onTick(line.key, on)}
          />
        ))}
      </ol>
      {next != null && (
        <>
          <p className="no-print pt-3">
            <Button disabled={seeking} onClick={() => setAt({ question, before: lines, behind: next })}>
              Older ones
            </Button>
          </p>
          <p className="hidden pt-2 font-[640] print:block">
            These are the last {lines.length}: older ones are not on this sheet. All of them go out as CSV.
          </p>
        </>
      )}
      {found.isError && (
        <p role="alert" className="text-hot">
          The log cannot be read anew: {found.error?.message}
        </p>
      )}
    </section>
  )
}

/** What of the log is not in it yet, or cannot be. */
function Behind({ page }: { page: Page }) {
  return (
    <>
      {page.still_read > 0 && (
        <p role="status" className="text-lead">
          {page.still_read.toLocaleString('en')} batches are still being read in: look again in a moment.
        </p>
      )}
      {page.unread > 0 && (
        <p role="alert" className="text-lead text-hot">
          {page.unread === 1 ? 'One batch' : `${page.unread} batches`} cannot be read, and{' '}
          {page.unread === 1 ? 'is' : 'are'} missing here or not up to date: run bright-spoon verify.{' '}
          <Link className="underline" to="/make">
            All batches
          </Link>
        </p>
      )}
    </>
  )
}
