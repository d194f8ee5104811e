import { useState } from 'react'
import { faultWords } from '../../api/ask'
import type { TrainerKind, TrainerScore } from '../../api/client'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import { beginAnew } from './queries'

const WORDS: Record<TrainerKind, string> = {
  spoon: 'the spoon',
  drip: 'the drip',
  holds: 'the degree',
  what_is_in: 'the bowl',
}

interface ScoreLineProps {
  who: string
  score: TrainerScore
  people: readonly string[]
  onWho: (who: string) => void
  onAnew: () => void
}

/** How a person does, and who that is. */
export function ScoreLine({ who, score, people, onWho, onAnew }: ScoreLineProps) {
  const [typed, setTyped] = useState(who)
  const [asking, setAsking] = useState(false)
  const [wrong, setWrong] = useState<string | null>(null)
  const anew = () => {
    setAsking(false)
    setWrong(null)
    beginAnew(who)
      .then(onAnew)
      .catch((error: unknown) => setWrong(faultWords(error)))
  }
  const asked = score.kinds.filter((own) => own.asked > 0)
  return (
    <section aria-label="Score" className="mt-auto border-t border-line pt-3">
      <p className="text-lead">
        {score.today > 0 && (
          <b>
            Today {score.today_good} of {score.today} right.{' '}
          </b>
        )}
        {score.sentence}
      </p>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <ul className="flex flex-wrap gap-x-5 text-note text-ink2">
          {asked.map((own) => (
            <li key={own.kind}>
              {WORDS[own.kind]}: {own.good} of {own.asked}, level {own.level} of 4
            </li>
          ))}
          {score.confused.slice(0, 3).map((own) => (
            <li key={`${own.right} ${own.said}`}>
              {own.right} taken for {own.said}: {own.times}
            </li>
          ))}
        </ul>
        <form
          className="ml-auto flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            onWho(typed.trim())
          }}
        >
          <TextField
            label="Who is at it (empty: everybody)"
            maxLength={60}
            list="trainees"
            value={typed}
            onChange={setTyped}
          />
          <datalist id="trainees">
            {people.map((own) => (
              <option key={own} value={own} />
            ))}
          </datalist>
          <Button type="submit" disabled={typed.trim() === who}>
            It is me
          </Button>
          {asked.length > 0 && !asking && (
            <Button look="quiet" onClick={() => setAsking(true)}>
              Begin anew
            </Button>
          )}
          {asking && (
            <>
              <Button onClick={anew}>Yes, begin anew</Button>
              <Button look="quiet" onClick={() => setAsking(false)}>
                No
              </Button>
            </>
          )}
        </form>
      </div>
      {wrong && (
        <p role="alert" className="text-hot">
          {wrong}
        </p>
      )}
    </section>
  )
}
