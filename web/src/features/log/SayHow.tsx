import { useState } from 'react'
import type { Came, LogLine, SpoonSign } from '../../api/client'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { TextArea } from '../../ui/TextField'
import { CAME, SPOON } from '../batch/came'
import type { Say } from '../batch/say'

interface SayHowProps {
  line: LogLine
  onSay: Say
  onClose: () => void
}

/** How a batch came out, said when it was eaten, or a word about it. */
export function SayHow({ line, onSay, onClose }: SayHowProps) {
  const [came, setCame] = useState<Came | null>(line.came ?? null)
  const [spoon, setSpoon] = useState<SpoonSign | null>(null)
  const [words, setWords] = useState('')
  const [wrong, setWrong] = useState<string | null>(null)
  const say = () => {
    const text = words.trim()
    const judges = came !== null && (came !== line.came || spoon !== null)
    if (judges) onSay({ what: 'judged', came, words: text, ...(spoon ? { spoon } : {}) })
    else if (text) onSay({ what: 'noted', words: text })
    else return setWrong('Say how it came out, or write a word about it.')
    onClose()
  }
  return (
    <Sheet open onOpenChange={(open) => !open && onClose()} title="How did it come out?">
      <form
        className="flex min-h-0 flex-col gap-4 overflow-y-auto"
        onSubmit={(event) => {
          event.preventDefault()
          say()
        }}
      >
        <Choice legend="It came out" options={CAME} value={came} onChange={setCame} />
        <Choice legend="On the spoon" options={SPOON} value={spoon} onChange={setSpoon} />
        <TextArea label="In your words" maxLength={400} value={words} onChange={setWords} />
        {wrong && (
          <p role="alert" className="text-hot">
            {wrong}
          </p>
        )}
        <p>
          <Button look="primary" className="min-h-12" type="submit">
            Write it down
          </Button>
        </p>
      </form>
    </Sheet>
  )
}

interface ChoiceProps<T extends string> {
  legend: string
  options: readonly (readonly [T, string])[]
  value: T | null
  onChange: (value: T | null) => void
}

function Choice<T extends string>({ legend, options, value, onChange }: ChoiceProps<T>) {
  return (
    <fieldset>
      <legend className="text-title">{legend}</legend>
      <div className="mt-1 flex flex-wrap gap-2">
        {options.map(([key, word]) => (
          <Button
            key={key}
            className="min-h-12"
            aria-pressed={value === key}
            look={value === key ? 'primary' : 'plain'}
            onClick={() => onChange(value === key ? null : key)}
          >
            {word}
          </Button>
        ))}
      </div>
    </fieldset>
  )
}
