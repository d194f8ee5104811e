import { useState } from 'react'
import { faultWords } from '../../api/ask'
import type { TrainerAsked, TrainerJudged, TrainerKind } from '../../api/client'
import { useTitle } from '../../lib/hooks'
import { useKeys } from '../../lib/keys'
import { Button } from '../../ui/Button'
import { NotRead } from '../../ui/NotRead'
import { Select } from '../../ui/Select'
import { LogNav } from '../log/LogNav'
import { Choices } from './Choices'
import { Judged } from './Judged'
import { answerOf, useTrainer } from './queries'
import { ScoreLine } from './ScoreLine'
import { Seen } from './Seen'
import { rememberWho, seed, storedWho } from './who'

const KINDS: readonly (readonly [TrainerKind | 'any', string])[] = [
  ['any', 'everything'],
  ['spoon', 'what the spoon does'],
  ['drip', 'how long the drip'],
  ['holds', 'up to which degree'],
  ['what_is_in', 'what is in it'],
]

/** A sitting. */
const FIVE_MINUTES_MS = 300_000

/** The eye trained: a question from this kitchen's own formulas, one after another. */
export function TrainerPage() {
  useTitle('Trainer, Log')
  const [who, setWho] = useState(storedWho)
  const [kind, setKind] = useState<TrainerKind | 'any'>('any')
  const [turn, setTurn] = useState(seed)
  const [began] = useState(() => Date.now())
  const trainer = useTrainer(who, turn, kind === 'any' ? null : kind)
  const named = (next: string) => {
    rememberWho(next)
    setWho(next)
    setTurn(seed())
  }
  if (trainer.isError && !trainer.data) {
    return <NotRead title="The trainer cannot ask" error={trainer.error} onAgain={trainer.refetch} />
  }
  const now = trainer.data
  return (
    <div className="tray flex flex-1 flex-col gap-3 px-6 pt-3 pb-4 max-phone:px-4" aria-busy={!now}>
      <LogNav />
      {now?.asked && (
        <Round
          key={`${who} ${turn} ${kind}`}
          who={who}
          began={began}
          asked={now.asked}
          now={now}
          onWho={named}
          onNext={() => setTurn(seed())}
          tools={
            <Select
              label="Ask me"
              inline
              value={kind}
              onChange={(next) => {
                setKind(next)
                setTurn(seed())
              }}
              options={KINDS}
            />
          }
        />
      )}
      {now && !now.asked && (
        <>
          <h1 className="text-display leading-tight">There is nothing to ask about yet</h1>
          <p className="max-w-[62ch] text-lead">
            The trainer asks about the formulas of this kitchen: save some on the Bench.
            {kind !== 'any' && ' None of them can be asked about in that way.'}
          </p>
          {kind !== 'any' && (
            <Button className="self-start" onClick={() => setKind('any')}>
              Ask me everything
            </Button>
          )}
        </>
      )}
    </div>
  )
}

/** What has a use for Enter of its own. */
function isControl(event: KeyboardEvent): boolean {
  return event.target instanceof Element && event.target.closest('button, a, select, input, summary') !== null
}

interface RoundProps {
  who: string
  /** When this sitting began, ms since 1970. */
  began: number
  asked: TrainerAsked
  now: NonNullable<ReturnType<typeof useTrainer>['data']>
  tools: React.ReactNode
  onWho: (who: string) => void
  onNext: () => void
}

/** One question, and what came of it. */
function Round({ who, began, asked, now, tools, onWho, onNext }: RoundProps) {
  const { question } = asked
  const [said, setSaid] = useState<number | null>(null)
  const [judged, setJudged] = useState<TrainerJudged | null>(null)
  const [wrong, setWrong] = useState<string | null>(null)
  const [enough, setEnough] = useState(false)
  const say = (choice: number) => {
    if (said !== null || choice >= question.choices.length) return
    setSaid(choice)
    setWrong(null)
    answerOf(who, asked, choice)
      .then((own) => {
        setJudged(own)
        setEnough(Date.now() - began > FIVE_MINUTES_MS)
      })
      .catch((error: unknown) => {
        setWrong(faultWords(error))
        setSaid(null)
      })
  }
  const many = question.choices.length
  useKeys('Trainer', [
    {
      key: Array.from({ length: many }, (_, at) => String(at + 1)),
      shown: `1 to ${many}`,
      words: 'Answer',
      first: true,
      when: () => said === null,
      run: (event) => say(Number(event.key) - 1),
    },
    {
      key: 'enter',
      words: 'The next question',
      when: (event) => (judged !== null || wrong !== null) && !isControl(event),
      run: onNext,
    },
  ])
  return (
    <>
      <header className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <h1 className="mr-auto text-display leading-tight">{question.words}</h1>
        {tools}
      </header>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-10 gap-y-4 max-tablet:grid-cols-1">
        <Seen question={question} />
        <div className="flex min-w-0 flex-col gap-3">
          {judged ? (
            <Judged judged={judged} question={question} onNext={onNext} />
          ) : (
            <Choices choices={question.choices} said={said} onSay={say} />
          )}
          {enough && <p role="status">Five minutes: that is enough for today. Tomorrow it asks again.</p>}
          {wrong && (
            <>
              <p role="alert" className="text-hot">
                {wrong}
              </p>
              <Button className="min-h-12 self-start" hotkey="Enter" onClick={onNext}>
                Next question
              </Button>
            </>
          )}
        </div>
      </div>
      <ScoreLine
        who={who}
        score={judged?.score ?? now.score}
        people={now.people}
        onWho={onWho}
        onAnew={onNext}
      />
    </>
  )
}
