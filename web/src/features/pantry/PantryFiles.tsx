import { useState } from 'react'
import type { ImportAnswer } from '../../api/client'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { useImport } from './queries'
import { FilePick } from '../../ui/FilePick'

/** The pantry out as a table or as documents, and in again: read first, then taken. */
export function PantryFiles({ onClose }: { onClose: () => void }) {
  const [file, setFile] = useState<{ name: string; kind: 'csv' | 'json'; text: string } | null>(null)
  const [read, setRead] = useState<ImportAnswer | null>(null)
  const load = useImport()
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
  const link =
    'inline-flex min-h-9 items-center rounded-tray border-2 border-rim px-4 font-[640] text-rim hover:bg-rim-tint pointer-coarse:min-h-11'
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title="Pantry files"
      lead="CSV opens in any table program; JSON carries the same. Both come back without loss."
    >
      <div className="flex min-h-0 flex-col gap-4 overflow-y-auto">
        <section aria-label="Out" className="flex flex-wrap gap-2">
          <h3 className="w-full font-head text-lead font-[640]">Out</h3>
          <a className={link} href="/api/ingredients/export?kind=csv" download>
            Own ingredients as CSV
          </a>
          <a className={link} href="/api/ingredients/export?kind=json" download>
            as JSON
          </a>
          <a className={link} href="/api/ingredients/export?kind=csv&all=true" download>
            The whole pantry as CSV
          </a>
        </section>
        <section aria-label="In" className="flex flex-col gap-3">
          <h3 className="font-head text-lead font-[640]">In</h3>
          <div className="flex items-center gap-3">
            <FilePick
              label="Pantry file"
              accept=".csv,.json,text/csv,application/json"
              onPick={(picked) => void pick(picked)}
            >
              Pick a file
            </FilePick>
            <span className="text-ink2">{file?.name ?? 'CSV or JSON of the pantry'}</span>
          </div>
          {load.isError && (
            <p role="alert" className="text-hot">
              {load.error.message}
            </p>
          )}
          {read && (
            <>
              <p role="status">
                <b>
                  {read.good.length} {read.good.length === 1 ? 'ingredient' : 'ingredients'}{' '}
                  {read.taken ? 'taken' : 'can be taken'}
                </b>
                {read.bad.length > 0 && `, ${read.bad.length} cannot`}.
              </p>
              <ul className="text-note">
                {read.good.map(({ document, replaces_revision }) => (
                  <li key={document.key}>
                    {document.name}{' '}
                    <span className="text-ink2">
                      {!read.taken && replaces_revision > 0
                        ? `becomes version ${replaces_revision + 1} of yours`
                        : read.taken
                          ? ''
                          : 'is new here'}
                    </span>
                  </li>
                ))}
                {read.bad.map((row) => (
                  <li key={`${row.line} ${row.name}`} className="text-hot">
                    {file?.kind === 'csv' ? 'Line' : 'Entry'} {row.line}
                    {row.name && ` (${row.name})`}: {row.faults.map((fault) => fault.message).join('; ')}
                  </li>
                ))}
              </ul>
              {!read.taken && read.good.length > 0 && (
                <Button look="primary" disabled={load.isPending} onClick={take}>
                  Take {read.good.length === 1 ? 'it' : `the ${read.good.length} good ones`}
                </Button>
              )}
            </>
          )}
        </section>
      </div>
    </Sheet>
  )
}
