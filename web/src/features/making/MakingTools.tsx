import { lazy, Suspense, useState } from 'react'
import type { Assessment, FormulaDocument, IngredientEntry, Ways } from '../../api/client'
import { Button } from '../../ui/Button'
import { clock } from '../../lib/format'
import { useFamily } from '../../lib/families'
import { usualChoice } from '../clock/choice'
import type { ClockChoice } from '../clock/choice'
import { MakeButton } from '../batch/MakeButton'
import { PrintSheet } from './PrintSheet'
import { useMethods } from './queries'
import { useKeys } from '../../lib/keys'

interface MakingToolsProps {
  document: FormulaDocument
  entries: Map<string, IngredientEntry>
  answer: Assessment | undefined
  ways: Ways | undefined
  /** Whether the answer belongs to what is on the Bench: only then can it be asked on. */
  current: boolean
  onUse: (document: FormulaDocument) => void
}

/** Fetched when they are first opened: the Bench comes without them. */
const SwapSheet = lazy(async () => ({ default: (await import('./SwapSheet')).SwapSheet }))
const SizeSheet = lazy(async () => ({ default: (await import('./SizeSheet')).SizeSheet }))
const MethodSheet = lazy(async () => ({ default: (await import('./MethodSheet')).MethodSheet }))
const ClockSheet = lazy(async () => ({ default: (await import('../clock/ClockSheet')).ClockSheet }))

const TOOLS = [
  { key: 'x', word: 'Swap' },
  { key: 'g', word: 'Size' },
  { key: 'm', word: 'Method' },
  { key: 'c', word: 'Clock' },
  { key: 'p', word: 'Print' },
] as const
type Tool = (typeof TOOLS)[number]['word']

/** Swap, size, method, clock and print, each with its key. */
export function MakingTools({ document, entries, answer, ways, current, onUse }: MakingToolsProps) {
  const [open, setOpen] = useState<Tool | null>(null)
  const [read, setRead] = useState<string | null>(null)
  const possible = document.lines.length > 0
  const methods = useMethods(document, possible && current)
  const school =
    methods.found?.find((each) => each.school === read) ?? methods.found?.find((each) => each.chosen)
  const family = useFamily(document.family)
  /** Where it stands, as long as the formula is on the Bench. */
  const [choice, setChoice] = useState<ClockChoice | null>(null)
  const start = (tool: Tool) => {
    if (tool === 'Clock') setChoice((now) => now ?? usualChoice(family, clock(new Date()).time))
    if (tool === 'Print') window.print()
    else setOpen(tool)
  }
  useKeys(
    'Bench',
    TOOLS.map((tool) => ({
      key: tool.key,
      words: tool.word,
      when: () => possible,
      run: () => start(tool.word),
    })),
  )
  const close = () => setOpen(null)
  const use = (next: FormulaDocument) => {
    onUse(next)
    setRead(null)
    close()
  }
  return (
    <>
      <div role="toolbar" aria-label="Make" className="no-print flex flex-wrap gap-1">
        {TOOLS.map((tool) => (
          <Button
            key={tool.word}
            className="flex-auto gap-1 px-1 max-narrow:[&_kbd]:hidden"
            hotkey={tool.key.toUpperCase()}
            disabled={!possible}
            onClick={() => start(tool.word)}
          >
            {tool.word}
          </Button>
        ))}
        <MakeButton document={document} grams={answer?.totals.batch_mass_g ?? null} current={current} />
      </div>
      {open === 'Swap' && (
        <Suspense>
          <SwapSheet document={document} entries={entries} onUse={use} onClose={close} />
        </Suspense>
      )}
      {open === 'Size' && (
        <Suspense>
          <SizeSheet
            document={document}
            entries={entries}
            batch={answer?.totals.batch_mass_g ?? null}
            onUse={use}
            onClose={close}
          />
        </Suspense>
      )}
      {open === 'Method' && (
        <Suspense>
          <MethodSheet
            schools={methods.found}
            wrong={methods.wrong}
            read={read}
            onRead={setRead}
            onUse={use}
            onPrint={() => window.print()}
            onClose={close}
          />
        </Suspense>
      )}
      {open === 'Clock' && choice && (
        <Suspense>
          <ClockSheet
            document={document}
            answer={answer}
            choice={choice}
            onChoice={setChoice}
            onUse={onUse}
            onClose={close}
          />
        </Suspense>
      )}
      <PrintSheet document={document} answer={answer} ways={ways} school={school} />
    </>
  )
}
