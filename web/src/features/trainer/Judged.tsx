import type { TrainerAsked, TrainerJudged } from '../../api/client'
import { Button } from '../../ui/Button'
import { Spoken } from '../../ui/Spoken'
import { Lines, SpoonOf } from './Seen'

interface JudgedProps {
  judged: TrainerJudged
  question: TrainerAsked['question']
  onNext: () => void
}

/** What an answer was worth: the verdict, what was said, the spoon, and why. */
export function Judged({ judged, question, onNext }: JudgedProps) {
  const { answer } = judged
  const right = question.choices[answer.right]
  return (
    <section aria-label="The answer" className="flex flex-col gap-3">
      <Spoken>
        <h2 className={`text-head leading-tight ${answer.good ? 'text-rim' : 'text-hot'}`}>
          {answer.sentence}
        </h2>
        {!answer.good && (
          <p className="text-lead text-ink2">
            You said: <span className="first-letter:uppercase">{answer.said_words}</span>
          </p>
        )}
      </Spoken>
      <div className="flex flex-wrap items-start gap-4">
        <figure className="shrink-0" aria-label={`On the spoon: ${answer.spoon.words}`}>
          <SpoonOf seen={answer.spoon} />
        </figure>
        <div className="min-w-52 flex-1">
          {answer.why.map((words) => (
            <p key={words} className="mb-1 text-lead">
              {words}
            </p>
          ))}
          {right && right.lines.length > 0 && <Lines lines={right.lines} />}
        </div>
      </div>
      <Button className="min-h-12 self-start" look="primary" hotkey="Enter" onClick={onNext}>
        Next
      </Button>
    </section>
  )
}
