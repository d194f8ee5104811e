import { useState } from 'react'
import { asking, useKept } from '../../api/ask'
import type {
  BatchTestDone,
  BenchFit,
  BenchTest,
  BenchTestKind,
  FormulaDocument,
  History,
} from '../../api/client'
import { degrees } from '../../lib/format'
import { readNumber, readTemperature } from '../../lib/number'
import { Button } from '../../ui/Button'
import { Select } from '../../ui/Select'
import { Sheet } from '../../ui/Sheet'
import { TextField } from '../../ui/TextField'
import { FIELDS, testOf } from './fields'
import { TestDrawing } from './TestDrawing'

const HISTORY: readonly (readonly [History, string])[] = [
  ['fresh', 'just made'],
  ['rested', 'set overnight'],
  ['worked', 'set, then stirred'],
]

interface TestSheetProps {
  formula: FormulaDocument
  /** Its temperature, °C, as far as anything says so. */
  c: number | null
  history: History
  /** Tests of it, the last last. */
  done: readonly BatchTestDone[]
  /** Why the last one could not be kept. */
  wrong?: string | null
  onTested: (test: BenchTest, c: number, history: History) => void
  onClose: () => void
}

/** A test at the bench, a guided minute: which fits, what to take and do, one number in, and what that says. */
export function TestSheet({ formula, c, history: usual, done, wrong, onTested, onClose }: TestSheetProps) {
  const [typed, setTyped] = useState(c === null ? '' : c.toFixed(1))
  const [history, setHistory] = useState<History>(usual)
  const [kind, setKind] = useState<BenchTestKind | null>(null)
  const read = readTemperature(typed)
  const at = read.kind === 'number' ? read.value : null
  const body = { formula, c: at ?? 20, history }
  const fits = useKept(asking('post', '/api/bench-tests', { body }), { on: at !== null, stay: true })
  const all = fits.data ?? []
  const chosen = all.find((own) => own.kind === kind) ?? all.find((own) => own.fits)
  const last = done.at(-1)
  return (
    <Sheet
      open
      wide
      onOpenChange={(open) => !open && onClose()}
      title="Test it"
      lead="A minute with a plate, a ring or a rod: the kitchen learns what its own creams are."
    >
      <div className="flex min-h-0 flex-col gap-4 overflow-y-auto">
        <div className="flex flex-wrap items-end gap-4">
          <TextField label="It is at, °C" maxLength={8} value={typed} onChange={setTyped} />
          <Select label="And is" value={history} onChange={setHistory} options={HISTORY} />
        </div>
        {read.kind === 'wrong' && (
          <p role="alert" className="text-hot">
            {read.words}
          </p>
        )}
        {at === null && <p className="text-lead">Read its temperature first: stiffness hangs on it.</p>}
        {fits.isError && (
          <p role="alert" className="text-hot">
            {fits.error?.message}
          </p>
        )}
        {at !== null && (
          <ul aria-label="Tests" className="flex flex-wrap gap-2">
            {all.map((own) => (
              <li key={own.kind}>
                <Button
                  className="min-h-12"
                  aria-pressed={own.kind === chosen?.kind}
                  look={own.kind === chosen?.kind ? 'primary' : own.fits ? 'plain' : 'quiet'}
                  onClick={() => setKind(own.kind)}
                >
                  {own.guide.name}
                  {!own.fits && <span className="sr-only"> (does not fit)</span>}
                </Button>
              </li>
            ))}
          </ul>
        )}
        {chosen && at !== null && (
          <OneTest key={chosen.kind} fit={chosen} onRead={(test) => onTested(test, at, history)} />
        )}
        {wrong && (
          <p role="alert" className="text-hot">
            {wrong}
          </p>
        )}
        {last && (
          <p role="status" className="text-title">
            <b>{last.sentence}</b> <span className="text-ink2">At {degrees(last.c)}.</span>
            {last.outside && <span className="block text-hot">{last.outside}</span>}
          </p>
        )}
      </div>
    </Sheet>
  )
}

/** One test: how it is done, and its number. */
function OneTest({ fit, onRead }: { fit: BenchFit; onRead: (test: BenchTest) => void }) {
  const fields = FIELDS[fit.kind]
  const [typed, setTyped] = useState<Record<string, string>>(() =>
    Object.fromEntries(fields.with.map(([field]) => [field, String(usualOf(fit.usual, field))])),
  )
  const [wrong, setWrong] = useState<string | null>(null)
  const submit = (fell?: boolean) => {
    const numbers: Record<string, number> = {}
    for (const [field, label] of [...fields.with, ...fields.read]) {
      const own = readNumber(typed[field] ?? '')
      if (own.kind !== 'number') return setWrong(`Write a number: ${label}.`)
      numbers[field] = own.value
    }
    setWrong(null)
    onRead(testOf(fit.kind, numbers, fell))
  }
  const field = ([name, label]: readonly [string, string]) => (
    <TextField
      key={name}
      label={label}
      maxLength={10}
      value={typed[name] ?? ''}
      onChange={(value) => setTyped({ ...typed, [name]: value })}
    />
  )
  return (
    <form
      className="grid gap-x-8 gap-y-3 md:grid-cols-[minmax(0,1fr)_240px]"
      onSubmit={(event) => {
        event.preventDefault()
        if (fields.read.length > 0) submit()
      }}
    >
      <div>
        <p className={fit.fits ? '' : 'font-[640] text-hot'}>{fit.why}</p>
        <p className="mt-2">
          <b>Take</b> {fit.guide.take}
        </p>
        <ol className="mt-1 list-decimal pl-5">
          {fit.guide.steps.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ol>
        <div className="mt-3 flex flex-wrap items-end gap-3">{fields.with.map(field)}</div>
        <p className="mt-3 font-[640]">{fit.guide.read}</p>
        <div className="mt-1 flex flex-wrap items-end gap-3">
          {fields.read.map(field)}
          {fields.read.length > 0 ? (
            <Button className="min-h-12" look="primary" type="submit">
              That is it
            </Button>
          ) : (
            <>
              <Button className="min-h-12" look="primary" onClick={() => submit(true)}>
                It fell
              </Button>
              <Button className="min-h-12" onClick={() => submit(false)}>
                It hung
              </Button>
            </>
          )}
        </div>
        {wrong && (
          <p role="alert" className="text-hot">
            {wrong}
          </p>
        )}
      </div>
      <TestDrawing kind={fit.kind} />
    </form>
  )
}

/** What a test is usually done with, at a field. */
function usualOf(usual: BenchTest, field: string): number {
  const value = (usual as Record<string, unknown>)[field]
  return typeof value === 'number' ? value : 0
}
