import { useState } from 'react'
import type { LogRead } from '../../api/client'
import { dayOf } from '../../lib/format'
import { Button } from '../../ui/Button'
import { FilePick } from '../../ui/FilePick'
import { Sheet } from '../../ui/Sheet'
import { asksFor, queryOf } from './filters'
import { useLogImport } from './queries'

/** So many of a file are named; the others are counted. */
const NAMED = 40

/** The log out as a table or as documents, and in again: read first, then taken. */
export function LogFiles({ address, onClose }: { address: URLSearchParams; onClose: () => void }) {
  const [file, setFile] = useState<{ name: string; kind: 'csv' | 'json'; text: string } | null>(null)
  const [read, setRead] = useState<LogRead | null>(null)
  const load = useLogImport()
  const pick = async (picked: File) => {
    const kind = picked.name.toLowerCase().endsWith('.json') ? ('json' as const) : ('csv' as const)
    const next = { name: picked.name, kind, text: await picked.text() }
    setFile(next)
    setRead(null)
    load.mutate({ kind, text: next.text, take: false }, { onSuccess: setRead })
  }
  const take = () => {
    if (file) load.mutate({ kind: file.kind, text: file.text, take: true }, { onSuccess: setRead })
  }
  const asked = new URLSearchParams(
    Object.entries(queryOf(address)).map(([name, value]) => [name, String(value)]),
  ).toString()
  const out = (kind: string) => `/api/log/export?kind=${kind}${asked ? `&${asked}` : ''}`
  const link =
    'inline-flex min-h-9 items-center rounded-tray border-2 border-rim px-4 font-[640] text-rim hover:bg-rim-tint pointer-coarse:min-h-11'
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title="Log files"
      lead="CSV opens in any table program; JSON carries the same. Both come back without loss; pictures stay in the kitchen's own file."
    >
      <div className="flex min-h-0 flex-col gap-4 overflow-y-auto">
        <section aria-label="Out" className="flex flex-wrap gap-2">
          <h3 className="w-full font-head text-lead font-[640]">
            {asksFor(address) ? 'Out: what is looked for' : 'Out: all of it'}
          </h3>
          <a className={link} href={out('csv')} download>
            As CSV
          </a>
          <a className={link} href={out('json')} download>
            As JSON
          </a>
        </section>
        <section aria-label="In" className="flex flex-col gap-3">
          <h3 className="font-head text-lead font-[640]">In</h3>
          <p className="text-note text-ink2">
            A notebook of your own is a table with the columns made (a day, as 2026-10-02), formula (its name
            here), came (good, stiff, loose, split, grainy or thrown) and words.
          </p>
          <div className="flex items-center gap-3">
            <FilePick
              label="Log file"
              accept=".csv,.json,text/csv,application/json"
              onPick={(picked) => void pick(picked)}
            >
              Pick a file
            </FilePick>
            <span className="text-ink2">{file?.name ?? 'CSV or JSON'}</span>
          </div>
          {load.isPending && (
            <p role="status" aria-busy="true">
              Reading it…
            </p>
          )}
          {load.isError && (
            <p role="alert" className="text-hot">
              {load.error.message}
            </p>
          )}
          {read && <Read read={read} csv={file?.kind === 'csv'} busy={load.isPending} onTake={take} />}
        </section>
      </div>
    </Sheet>
  )
}

interface ReadProps {
  read: LogRead
  csv: boolean
  busy: boolean
  onTake: () => void
}

function Read({ read, csv, busy, onTake }: ReadProps) {
  const fresh = read.good.filter((own) => own.new || own.events > 0)
  const many = (count: number) => (count === 1 ? 'one batch' : `${count} batches`)
  return (
    <>
      <p role="status">
        <b>
          {many(read.good.length)} {read.taken ? 'taken' : 'can be taken'}
        </b>
        {fresh.length < read.good.length &&
          !read.taken &&
          `, of which ${read.good.length - fresh.length} are here already`}
        {read.bad.length > 0 && `, ${read.bad.length} cannot`}.
      </p>
      <ul className="text-note">
        {read.bad.map((row) => (
          <li key={row.line} className="text-hot">
            {csv ? 'Line' : 'Batch'} {row.line}: {row.faults.map((fault) => fault.message).join('; ')}
          </li>
        ))}
        {read.good.slice(0, NAMED).map(({ line, new: isNew, events }) => (
          <li key={line.key}>
            {line.name}, {dayOf(line.at)}{' '}
            <span className="text-ink2">
              {!read.taken && (isNew ? 'is new here' : events > 0 ? `${events} more of it` : 'is here')}
            </span>
          </li>
        ))}
        {read.good.length > NAMED && <li>and {read.good.length - NAMED} more</li>}
      </ul>
      {!read.taken && fresh.length > 0 && (
        <Button look="primary" disabled={busy} onClick={onTake}>
          Take {fresh.length === 1 ? 'it' : `the ${fresh.length} new ones`}
        </Button>
      )}
    </>
  )
}
