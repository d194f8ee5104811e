import { lazy, Suspense, useCallback, useMemo, useRef, useState } from 'react'
import { useMutation } from '@tanstack/react-query'
import { faultWords } from '../../api/ask'
import { answer as answered, api } from '../../api/client'
import type { Assessment, ComponentSummary, Fault, IngredientEntry } from '../../api/client'
import { fixed, weighed } from '../../lib/format'
import { useIngredients } from '../../lib/ingredients'
import type { BenchDocument, BenchLine } from './document'
import { editLine, fromWire, moveLine, newKey, toWire } from './document'
import { IngredientPicker } from './IngredientPicker'
import { GRID } from './lineGrid'
import type { View } from './lineGrid'
import { LineRow } from './LineRow'
import type { MadeActions } from './LineRow'
import { useReorder } from './useReorder'
import { Select } from '../../ui/Select'
import { useWords } from '../../lib/words'
import { withTaken } from './taken'
import { componentOf, madeEntries, madeKey } from '../../lib/madeHere'
import { useComponents } from '../library/queries'

const NONE: ComponentSummary[] = []

const HEAD: Record<View, string> = { brings: 'Brings', spoons: 'In spoons', percent: 'Per cent' }

const WeightSheet = lazy(async () => ({ default: (await import('./WeightSheet')).WeightSheet }))
const TakenOff = lazy(async () => ({ default: (await import('./TakenOff')).TakenOff }))

interface FormulaTableProps {
  document: BenchDocument
  answer: Assessment | undefined
  faults: Fault[]
  edit: (change: (document: BenchDocument) => BenchDocument, tag?: string) => void
  settle: () => void
  /** Amounts of the way that is looked at, by line. */
  then: { letter: string; grams: Map<number, number> } | null
  onLimits: () => void
}

export function FormulaTable({ document, answer, faults, edit, settle, then, onLimits }: FormulaTableProps) {
  const pantry = useIngredients('', true)
  const components = useComponents()
  const words = useWords()
  const kept = components.data ?? NONE
  const byId = useMemo(
    () =>
      new Map(
        [...(pantry.data ?? []), ...madeEntries(document, kept)].map((entry) => [entry.ingredient, entry]),
      ),
    [pantry.data, document, kept],
  )
  const opening = useMutation({
    mutationFn: (at: number) =>
      answered(api.POST('/api/open', { body: { document: toWire(document), line: at } })),
    onSuccess: (opened) => edit(() => fromWire(opened.document)),
  })
  const madeOf = (line: BenchLine, at: number): MadeActions | null => {
    const made = componentOf(line.ingredient)
    if (!made) return null
    return {
      newest: kept.find((each) => each.id === made.component)?.revision ?? null,
      held: made.version !== null,
      onHold: (version) =>
        edit((d) =>
          editLine(d, line.key, (l) => ({ ...l, ingredient: madeKey(made.component, version, made.beside) })),
        ),
      onOpen: () => opening.mutate(at),
      onHadSet: () => edit((d) => editLine(d, line.key, hadSetOrNot)),
    }
  }
  const [view, setView] = useState<View>('brings')
  const [weighing, setWeighing] = useState<BenchLine | null>(null)
  const [taking, setTaking] = useState<BenchLine | null>(null)
  const body = useRef<HTMLUListElement>(null)
  const reorder = useReorder(body, (key, to) => edit((d) => moveLine(d, key, to), `move-${key}`), settle)

  const put = useCallback((line: BenchLine, entry: IngredientEntry): BenchLine => {
    const { density_g_per_ml: _density, piece_g: _piece, had_set: _set, ...bare } = line
    return {
      ...bare,
      ingredient: entry.ingredient,
      ...(entry.kitchen.density_g_per_ml != null && { density_g_per_ml: entry.kitchen.density_g_per_ml }),
      ...(entry.kitchen.piece_g != null && { piece_g: entry.kitchen.piece_g }),
    }
  }, [])

  const added = useRef('')
  const add = (entry: IngredientEntry) => {
    const key = newKey()
    edit((d) => ({ ...d, lines: [...d.lines, put({ key, ingredient: '', amount: '' }, entry)] }))
    added.current = key
  }

  // Answers are matched by place only while they belong to the same ingredients.
  const answers = answer?.lines
  const matched =
    answers?.length === document.lines.length &&
    document.lines.every((line, at) => answers[at]?.ingredient === line.ingredient)
  const full = Math.max(1, ...(answers ?? []).map((line) => line.mass_g))

  return (
    <div>
      <div aria-hidden="true" className={`${GRID[view]} border-b border-line pb-1 text-small text-ink2`}>
        <span />
        <span>Ingredient</span>
        <span className="text-right">Weigh</span>
        <span>{HEAD[view]}</span>
      </div>
      <ul ref={body} aria-label="Ingredients">
        {document.lines.map((line, at) => (
          <LineRow
            key={line.key}
            line={line}
            entry={byId.get(line.ingredient)}
            answer={matched ? answers?.[at] : undefined}
            full={full}
            faults={faults.filter((fault) => fault.field.startsWith(`lines.${at}.`))}
            first={at === 0}
            last={at === document.lines.length - 1}
            view={view}
            lifted={reorder.lifted === line.key}
            onGrip={(event) => reorder.grip(event, line.key)}
            onAmount={(amount) =>
              edit((d) => editLine(d, line.key, (l) => ({ ...l, amount })), `amount-${line.key}`)
            }
            onSettle={settle}
            onSwap={(entry) => edit((d) => editLine(d, line.key, (l) => put(l, entry)))}
            onMove={(by) => edit((d) => moveLine(d, line.key, at + by))}
            onRemove={() => edit((d) => ({ ...d, lines: d.lines.filter((l) => l.key !== line.key) }))}
            onWeigh={() => setWeighing(line)}
            onTakeOff={() => setTaking(line)}
            onTaste={() => edit((d) => editLine(d, line.key, byTasteOrNot))}
            onLock={() => edit((d) => editLine(d, line.key, lockedOrFree))}
            onLimits={onLimits}
            made={madeOf(line, at)}
            kept={kept}
            then={wayOf(then, at)}
          />
        ))}
      </ul>
      {opening.isError && (
        <p role="alert" className="text-note text-hot">
          Not opened: {faultWords(opening.error)}
        </p>
      )}
      {opening.data && opening.data.said.length > 0 && (
        <p role="status" className="py-1 text-note text-ink2">
          {opening.data.name} is opened. {opening.data.said.join(' ')}
        </p>
      )}
      <div className="flex items-center border-t-2 border-ink pt-1.5">
        <b className="flex-1">Makes</b>
        <span className="text-right text-lead whitespace-nowrap font-[700]">
          {answer && document.lines.length > 0 ? weighed(answer.totals.batch_mass_g) : '0'}{' '}
          <span className="text-note font-[450] text-ink2">g</span>
        </span>
        <span className="ml-1.5 w-[110px] text-small leading-tight text-ink2">
          {answer && document.lines.length > 0 && (
            <>
              {volume(answer.figures.volume_ml)} at {fixed(answer.figures.density_g_per_ml.value, 2)} g/ml
            </>
          )}
        </span>
      </div>
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1">
        <IngredientPicker
          id="add-ingredient"
          label="Add an ingredient"
          onPick={add}
          // The new amount is what the cook writes next.
          focusAfterPick={() => window.document.getElementById(`amount-${added.current}`)?.focus()}
          className="min-h-9 rounded-tray px-2 font-[640] whitespace-nowrap text-rim hover:bg-rim-tint pointer-coarse:min-h-11"
        >
          + Add an ingredient
        </IngredientPicker>
        <Select
          inline
          label="What stands beside the amounts"
          tight
          className="ml-auto max-w-31"
          value={view === 'percent' ? `percent:${document.percent_of ?? ''}` : view}
          onChange={(chosen) => {
            const [next, of] = chosen.split(':')
            setView(next as View)
            if (next !== 'percent') return
            edit((d) => {
              const { percent_of: _of, ...rest } = d
              return of ? { ...rest, percent_of: of } : rest
            })
          }}
          options={[
            ['brings', 'what it brings'],
            ['spoons', 'in spoons, pieces'],
            ['percent:', '% of all'],
            ...baseLines(document).map(
              (key) => [`percent:${key}`, `% of ${byId.get(key)?.name ?? key}`] as const,
            ),
          ]}
        />
        <Select
          inline
          label="Cups and spoons of this formula"
          tight
          className="max-w-29"
          value={document.measures ?? 'us'}
          onChange={(measures) => edit((d) => ({ ...d, measures }))}
          options={words.measures.map((each) => [each.measures, each.words] as const)}
        />
      </div>
      {pantry.isError && (
        <p role="alert" className="text-hot">
          The pantry cannot be read: {pantry.error?.message}
        </p>
      )}
      {taking && (
        <Suspense fallback={null}>
          <TakenOff
            name={byId.get(taking.ingredient)?.name ?? taking.ingredient}
            line={document.lines.find((line) => line.key === taking.key) ?? taking}
            onClose={() => setTaking(null)}
            onTaken={(taken) => edit((d) => editLine(d, taking.key, (l) => withTaken(l, taken)))}
          />
        </Suspense>
      )}
      {weighing && (
        <Suspense fallback={null}>
          <WeightSheet
            entry={byId.get(weighing.ingredient)}
            line={document.lines.find((line) => line.key === weighing.key) ?? weighing}
            onClose={() => setWeighing(null)}
            onLine={(change) => edit((d) => editLine(d, weighing.key, change))}
          />
        </Suspense>
      )}
    </div>
  )
}

function byTasteOrNot(line: BenchLine): BenchLine {
  const { by_taste, ...bare } = line
  return by_taste ? bare : { ...bare, by_taste: true }
}

function hadSetOrNot(line: BenchLine): BenchLine {
  const { had_set, ...bare } = line
  return had_set ? bare : { ...bare, had_set: true }
}

function lockedOrFree(line: BenchLine): BenchLine {
  const { rule, ...bare } = line
  const { locked, ...limits } = rule ?? {}
  if (!locked) return { ...bare, rule: { ...limits, locked: true } }
  return Object.keys(limits).length > 0 ? { ...bare, rule: limits } : bare
}

function wayOf(then: FormulaTableProps['then'], at: number) {
  const grams = then?.grams.get(at)
  return then && grams !== undefined ? { letter: then.letter, grams } : null
}

/** Ingredients that per cent can be counted on, each once. */
function baseLines(document: BenchDocument): string[] {
  return [...new Set(document.lines.map((line) => line.ingredient))]
}

/** Millilitres as a jug shows them. */
function volume(ml: number): string {
  return ml >= 1000 ? `${fixed(ml / 1000, 2)} l` : `${fixed(ml, 0)} ml`
}
