import { useState } from 'react'
import { useNavigate } from 'react-router'
import { faultWords } from '../../api/ask'
import { answer, api } from '../../api/client'
import type { BatchEvent, Came } from '../../api/client'
import { Button } from '../../ui/Button'
import { Select } from '../../ui/Select'
import { Sheet } from '../../ui/Sheet'
import { TextArea, TextField } from '../../ui/TextField'
import { readNumber } from '../../lib/number'
import { CAME } from '../batch/came'
import { useComponents } from '../library/queries'
import { writeIn } from './queries'

/** A day as a date field has it. */
function day(date: Date): string {
  const two = (value: number) => String(value).padStart(2, '0')
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`
}

/** Noon of a day on this device's wall; of today, now. */
function momentOf(typed: string): Date | null {
  const now = new Date()
  if (typed === day(now)) return now
  const at = new Date(`${typed}T12:00:00`)
  return Number.isNaN(at.getTime()) ? null : at
}

/** A batch that was made and not written down then: a formula, a day, a word is enough. */
export function WriteIn({ onClose }: { onClose: () => void }) {
  const components = useComponents()
  const navigate = useNavigate()
  const [formula, setFormula] = useState('')
  const [made, setMade] = useState(() => day(new Date()))
  const [grams, setGrams] = useState('')
  const [came, setCame] = useState<Came | ''>('')
  const [words, setWords] = useState('')
  const [wrong, setWrong] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const listed = (components.data ?? []).filter((own) => !own.archived)
  const write = async () => {
    const at = momentOf(made)
    const read = readNumber(grams)
    if (formula === '') return setWrong('Choose the formula it was made by.')
    if (!at) return setWrong('Write the day on which it was made.')
    if (at.getTime() > Date.now())
      return setWrong('This day is still to come: write the day on which it was made.')
    if (read.kind === 'wrong') return setWrong(read.words)
    setBusy(true)
    setWrong(null)
    try {
      const own = await answer(api.GET('/api/components/{id}', { params: { path: { id: formula } } }))
      const batch = {
        formula: own.document,
        component: own.id,
        revision: own.revision,
        ...(read.kind === 'number' ? { weigh_g: read.value } : {}),
      }
      const said: BatchEvent[] = []
      if (came) said.push({ what: 'judged', came, words: words.trim() })
      else if (words.trim()) said.push({ what: 'noted', words: words.trim() })
      const written = await writeIn(batch, made === day(new Date()) ? null : at.toISOString(), said)
      void navigate(`/log/${written.kept.id}`)
    } catch (error) {
      setWrong(faultWords(error))
      setBusy(false)
    }
  }
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title="Write a batch in"
      lead="A formula, a day, a word is enough. What nobody weighed is taken as the formula has it."
    >
      <form
        className="flex min-h-0 flex-col gap-3 overflow-y-auto"
        onSubmit={(event) => {
          event.preventDefault()
          void write()
        }}
      >
        <div className="flex flex-wrap gap-3">
          <Select
            label="What was made"
            className="w-72"
            value={formula}
            onChange={setFormula}
            options={[['', 'choose a formula'], ...listed.map((own) => [own.id, own.name] as const)]}
          />
          <TextField label="On" type="date" value={made} onChange={setMade} />
          <TextField
            label="How much, g"
            inputMode="decimal"
            placeholder="as it is written"
            className="w-40"
            value={grams}
            onChange={setGrams}
          />
          <Select
            label="It came out"
            value={came}
            onChange={setCame}
            options={[['', 'nobody knows any more'], ...CAME]}
          />
        </div>
        <TextArea label="In your words" maxLength={400} value={words} onChange={setWords} />
        {wrong && (
          <p role="alert" className="text-hot">
            {wrong}
          </p>
        )}
        <p>
          <Button look="primary" type="submit" disabled={busy}>
            Write it in
          </Button>
        </p>
      </form>
    </Sheet>
  )
}
