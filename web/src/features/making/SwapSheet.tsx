import { useState } from 'react'
import { asking, useQuestion } from '../../api/ask'
import type { Avoid, FormulaDocument, Goal, IngredientEntry, SwapAsk, SwapOption } from '../../api/client'
import { unbroken, weighed } from '../../lib/format'
import { AskFirst } from '../../ui/AskFirst'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { IngredientPicker } from '../bench/IngredientPicker'
import { Select } from '../../ui/Select'

interface SwapSheetProps {
  document: FormulaDocument
  entries: Map<string, IngredientEntry>
  onUse: (document: FormulaDocument) => void
  onClose: () => void
}

const AVOIDS: { what: Avoid; words: string }[] = [
  { what: 'egg', words: 'No eggs' },
  { what: 'pork', words: 'No pork gelatin' },
  { what: 'gelatin', words: 'No gelatin' },
  { what: 'alcohol', words: 'No alcohol' },
  { what: 'dairy', words: 'No dairy' },
]

const GOALS: Record<Goal, string> = { consistency: 'Consistency', sweetness: 'Sweetness', cost: 'Cost' }

/** One thing for another, the rest brought back round it. */
export function SwapSheet({ document, entries, onUse, onClose }: SwapSheetProps) {
  const [ask, setAsk] = useState<SwapAsk['ask'] | null>(null)
  const [line, setLine] = useState(0)
  const [keep, setKeep] = useState<Goal[]>(['consistency', 'sweetness', 'cost'])
  const name = (key: string) => entries.get(key)?.name ?? key
  const body = { document, keep, ask: ask ?? { swap: 'without', what: 'egg' } } satisfies SwapAsk
  const { found, wrong, current } = useQuestion(asking('post', '/api/swap', { body }), ask !== null)
  const raise = (goal: Goal) => {
    const at = keep.indexOf(goal)
    const next = keep.filter((each) => each !== goal)
    next.splice(Math.max(0, at - 1), 0, goal)
    setKeep(next)
  }
  return (
    <Sheet
      open
      wide
      onOpenChange={(open) => !open && onClose()}
      title="Swap"
      lead="The rest is brought back round it, in a batch as large as it was. What still differs is said."
    >
      <div className="grid min-h-0 grid-cols-[340px_minmax(0,1fr)] gap-x-8 gap-y-4 overflow-y-auto px-1 pb-2 max-tablet:grid-cols-1">
        <div className="flex flex-col gap-5">
          <fieldset className="flex flex-col gap-2">
            <legend className="mb-1 font-[640]">One for another</legend>
            <Select
              inline
              label="Instead of"
              value={String(line)}
              onChange={(at) => {
                setLine(Number(at))
                setAsk(null)
              }}
              options={document.lines.map(
                (each, at) => [String(at), `${each.amount} ${name(each.ingredient)}`] as const,
              )}
            />
            <IngredientPicker
              label="Take instead"
              className="min-h-10 rounded-lg border-2 border-rim px-3 text-left font-[640] text-rim hover:bg-rim-tint pointer-coarse:min-h-11"
              onPick={(entry) => setAsk({ swap: 'replace', line, by: entry.ingredient })}
            >
              {ask?.swap === 'replace' ? unbroken(name(ask.by)) : 'Take instead…'}
            </IngredientPicker>
          </fieldset>
          <fieldset className="flex flex-col gap-2">
            <legend className="mb-1 font-[640]">Without</legend>
            <div className="flex flex-wrap gap-2">
              {AVOIDS.map((each) => {
                const on = ask?.swap === 'without' && ask.what === each.what
                return (
                  <Button
                    key={each.what}
                    look={on ? 'primary' : 'plain'}
                    aria-pressed={on}
                    onClick={() => setAsk({ swap: 'without', what: each.what })}
                  >
                    {each.words}
                  </Button>
                )
              })}
            </div>
          </fieldset>
          <fieldset>
            <legend className="mb-1 font-[640]">Keep, the most important first</legend>
            <ol className="flex flex-col gap-1">
              {keep.map((goal, at) => (
                <li key={goal} className="flex min-h-10 items-center gap-3 pointer-coarse:min-h-11">
                  <b className="w-5 text-right">{at + 1}</b>
                  <span className="flex-1">{GOALS[goal]}</span>
                  {at > 0 && (
                    <Button
                      look="quiet"
                      className="min-h-8 py-0 underline"
                      aria-label={`Up: ${GOALS[goal]} before ${GOALS[keep[at - 1] ?? goal]}`}
                      onClick={() => raise(goal)}
                    >
                      Up
                    </Button>
                  )}
                </li>
              ))}
            </ol>
          </fieldset>
        </div>
        <div
          aria-live="polite"
          className={`flex min-w-0 flex-col gap-4 ${current || !ask ? '' : 'opacity-60'}`}
        >
          {ask === null && (
            <p className="text-ink2">Say what is asked for, and the ways to do it stand here.</p>
          )}
          {wrong && (
            <p role="alert" className="text-lead text-hot">
              {wrong}
            </p>
          )}
          {ask && found && !wrong && (
            <>
              <p className="font-head text-title leading-tight font-[640]">{unbroken(found.sentence)}</p>
              {found.options.map((option) => (
                <Option key={option.title} option={option} onUse={onUse} />
              ))}
            </>
          )}
        </div>
      </div>
    </Sheet>
  )
}

function Option({ option, onUse }: { option: SwapOption; onUse: (document: FormulaDocument) => void }) {
  const { gelatin } = option
  const [asking, setAsking] = useState(false)
  const asks = option.asks_first
  return (
    <article className="flex flex-col gap-2 border-t-2 border-line pt-3">
      <div className="flex items-start gap-4">
        <h3 className="min-w-0 flex-1 text-lead leading-tight font-[700]">{unbroken(option.title)}</h3>
        <Button
          look="primary"
          aria-label={`Use ${option.title}`}
          onClick={() => (asks.length > 0 ? setAsking(true) : onUse(option.document))}
        >
          Use
        </Button>
      </div>
      {asks.length > 0 && !asking && <p className="font-[640] text-hot">It {asks.join(', and ')}.</p>}
      {asking && <AskFirst asks={asks} onYes={() => onUse(option.document)} onNo={() => setAsking(false)} />}
      <p className="flex flex-wrap gap-x-4 gap-y-1">
        {option.kept.map((each) => (
          <span key={each.goal} className={each.held ? '' : 'font-[640] text-hot'}>
            {each.held ? '✓' : '✗'} {GOALS[each.goal].toLowerCase()} {each.held ? 'kept' : 'not kept'}
          </span>
        ))}
      </p>
      <p>
        {option.changes.map((change) => (
          <span key={change.name} className="mr-4 inline-block">
            {unbroken(change.name)} {change.from_g > 0 && `${weighed(change.from_g)} → `}
            <b>{change.to_g > 0 ? `${weighed(change.to_g)} g` : 'out'}</b>
            {change.pieces && ` (${change.pieces})`}
          </span>
        ))}
      </p>
      <p>
        {option.differs.length === 0
          ? 'Nothing else differs.'
          : `Still differs: ${option.differs.map(unbroken).join('; ')}.`}
      </p>
      <p className="font-[640]">{option.at.headline}.</p>
      {gelatin && (
        <p className="rounded-lg bg-well px-3 py-2">
          {Math.abs(gelatin.linear_g - gelatin.from_g) > 0.005 && (
            <>
              For {weighed(gelatin.from_g)} g of {unbroken(gelatin.from)}: by the square root{' '}
              <b>{weighed(gelatin.square_root_g)} g</b>, in proportion <b>{weighed(gelatin.linear_g)} g</b>
              .{' '}
            </>
          )}
          {gelatin.why}
        </p>
      )}
      {option.notes.map((note) => (
        <p key={note} className="text-ink2">
          {note}
        </p>
      ))}
    </article>
  )
}
