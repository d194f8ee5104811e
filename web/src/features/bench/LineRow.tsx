import { DropdownMenu } from 'radix-ui'
import type { PointerEvent } from 'react'
import type { Assessment, ComponentSummary, Fault, IngredientEntry } from '../../api/client'
import { fixed, unbroken, weighed } from '../../lib/format'
import { TinyBar } from '../../ui/phases'
import type { BenchLine } from './document'
import { GRID } from './lineGrid'
import type { View } from './lineGrid'
import { nudged } from './document'
import { IngredientPicker } from './IngredientPicker'
import { MadeLine } from './MadeLine'
import { takenWords } from './taken'

interface LineRowProps {
  line: BenchLine
  entry: IngredientEntry | undefined
  answer: Assessment['lines'][number] | undefined
  /** Grams that a full tiny bar stands for. */
  full: number
  faults: Fault[]
  first: boolean
  last: boolean
  view: View
  lifted: boolean
  onGrip: (event: PointerEvent) => void
  onAmount: (amount: string) => void
  onSettle: () => void
  onSwap: (entry: IngredientEntry) => void
  onMove: (by: number) => void
  onRemove: () => void
  onWeigh: () => void
  onTakeOff: () => void
  onTaste: () => void
  onLock: () => void
  onLimits: () => void
  /** Of something made here: what can be done with it. */
  made: MadeActions | null
  kept: ComponentSummary[]
  /** What the way that is looked at makes of it, g. */
  then: { letter: string; grams: number } | null
}

/** What can be done with a line of something made here. */
export interface MadeActions {
  /** Its newest version; none while that is not known. */
  newest: number | null
  held: boolean
  onHold: (version: number | null) => void
  onOpen: () => void
  onHadSet: () => void
}

const item =
  'flex min-h-9 cursor-pointer items-center rounded-md px-3 outline-none select-none data-[disabled]:opacity-40 data-[highlighted]:bg-rim-tint pointer-coarse:min-h-11'

export function LineRow(props: LineRowProps) {
  const { line, entry, answer, full, faults, first, last, view, lifted, made } = props
  const name = entry?.name ?? answer?.name ?? (made ? 'Made here' : line.ingredient)
  const fault = faults[0]
  const taken = takenWords(line)
  const step = (by: number) => {
    const next = nudged(line.amount, by)
    if (next !== null) props.onAmount(next)
  }
  const canStep = nudged(line.amount, 1) !== null
  const button =
    'hidden h-8 w-7 shrink-0 rounded-lg border-2 border-rim font-[700] text-rim group-focus-within:inline-block group-hover:inline-block pointer-coarse:h-11 pointer-coarse:w-10'
  return (
    <li
      data-line={line.key}
      className={`group border-b border-line ${lifted ? 'bg-rim-tint' : 'focus-within:bg-rim-tint'}`}
      onKeyDown={(event) => {
        if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
          event.preventDefault()
          props.onMove(event.key === 'ArrowUp' ? -1 : 1)
        }
      }}
    >
      <div className={`${GRID[view]} min-h-[37px] items-center pointer-coarse:min-h-12`}>
        <span
          aria-hidden="true"
          title="Drag to reorder"
          onPointerDown={props.onGrip}
          className="flex h-full cursor-grab touch-none items-center justify-center text-ink3"
        >
          <svg width="8" height="14" viewBox="0 0 8 14" fill="currentColor">
            {[1.5, 7, 12.5].map((y) => (
              <g key={y}>
                <circle cx="1.5" cy={y} r="1.3" />
                <circle cx="6.5" cy={y} r="1.3" />
              </g>
            ))}
          </svg>
        </span>
        <IngredientPicker
          label={`Swap ${name}`}
          onPick={props.onSwap}
          className={`block min-h-9 w-full rounded-md py-0.5 text-left leading-[1.15] hover:underline ${
            faults.some((f) => f.field.endsWith('.ingredient')) ? 'text-hot' : ''
          }`}
        >
          {unbroken(name)}
        </IngredientPicker>
        <span className="flex items-center justify-end gap-1">
          {canStep && (
            <button type="button" className={button} aria-label={`Less ${name}`} onClick={() => step(-1)}>
              −
            </button>
          )}
          <input
            id={`amount-${line.key}`}
            aria-label={`Amount of ${name}`}
            aria-invalid={fault ? true : undefined}
            aria-describedby={fault ? `fault-${line.key}` : undefined}
            autoComplete="off"
            placeholder="how much"
            maxLength={60}
            className={`h-8 w-full min-w-0 rounded-md border bg-transparent px-1.5 text-right text-lead font-[660] placeholder:text-note placeholder:font-[450] placeholder:text-ink3 focus:bg-enamel pointer-coarse:h-11 ${
              fault ? 'border-hot text-hot' : 'border-transparent hover:border-line2 focus:border-line2'
            }`}
            value={line.amount}
            onChange={(event) => props.onAmount(event.target.value)}
            onFocus={(event) => event.target.select()}
            onBlur={props.onSettle}
            onKeyDown={(event) => {
              if (event.altKey) return
              if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
                event.preventDefault()
                step((event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 10 : 1))
              }
              if (event.key === 'Enter') event.currentTarget.blur()
            }}
          />
          {canStep && (
            <button type="button" className={button} aria-label={`More ${name}`} onClick={() => step(1)}>
              +
            </button>
          )}
        </span>
        <Beside answer={answer} view={view} full={full} />
        <DropdownMenu.Root>
          <DropdownMenu.Trigger
            aria-label={`More for ${name}`}
            className="h-8 w-6 rounded-md text-lead leading-none text-ink2 hover:bg-rim-tint pointer-coarse:h-11"
          >
            ⋯
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content align="end" className="tray z-50 min-w-52 p-2">
              <DropdownMenu.Item className={item} disabled={first} onSelect={() => props.onMove(-1)}>
                Move up
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} disabled={last} onSelect={() => props.onMove(1)}>
                Move down
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} onSelect={props.onWeigh}>
                Cup, piece, heat…
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} onSelect={props.onTakeOff}>
                Strain, steep, boil down…
              </DropdownMenu.Item>
              <DropdownMenu.CheckboxItem
                className={item}
                checked={line.by_taste === true}
                onSelect={props.onTaste}
              >
                <span className="w-5">
                  <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
                </span>
                Added by taste
              </DropdownMenu.CheckboxItem>
              <DropdownMenu.Item className={item} onSelect={props.onLock}>
                {line.rule?.locked ? 'Let it move' : 'Leave as it is'}
              </DropdownMenu.Item>
              <DropdownMenu.Item className={item} onSelect={props.onLimits}>
                Least and most…
              </DropdownMenu.Item>
              {made && (
                <>
                  <DropdownMenu.Separator className="my-1 border-t border-line" />
                  {made.held ? (
                    <DropdownMenu.Item className={item} onSelect={() => made.onHold(null)}>
                      Follow its newest version
                    </DropdownMenu.Item>
                  ) : (
                    made.newest !== null && (
                      <DropdownMenu.Item className={item} onSelect={() => made.onHold(made.newest)}>
                        Hold it at version {made.newest}
                      </DropdownMenu.Item>
                    )
                  )}
                  <DropdownMenu.CheckboxItem
                    className={item}
                    checked={line.had_set === true}
                    onSelect={made.onHadSet}
                  >
                    <span className="w-5">
                      <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
                    </span>
                    It had set before it went in
                  </DropdownMenu.CheckboxItem>
                  <DropdownMenu.Item className={item} onSelect={made.onOpen}>
                    Open it: its own lines go in here
                  </DropdownMenu.Item>
                  <DropdownMenu.Separator className="my-1 border-t border-line" />
                </>
              )}
              <DropdownMenu.Item className={item} onSelect={props.onRemove}>
                Take it out
              </DropdownMenu.Item>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </div>
      <MadeLine line={line} answer={answer} kept={props.kept} />
      {taken && <p className="-mt-0.5 pb-1 pl-5 text-small leading-tight text-ink2">{taken}</p>}
      <Bounds line={line} then={props.then} />
      {fault ? (
        <p id={`fault-${line.key}`} role="alert" className="pb-1.5 pl-5 text-note text-hot">
          {fault.message.charAt(0).toUpperCase() + fault.message.slice(1)}.{' '}
          {(fault.code === 'no_density' || fault.code === 'no_piece_weight') && (
            <button type="button" className="font-[640] text-rim underline" onClick={props.onWeigh}>
              {fault.code === 'no_density' ? 'Give its density' : 'Give the weight of one'}
            </button>
          )}
        </p>
      ) : (
        answer?.assumed && (
          <p className="-mt-0.5 pb-1 pl-5 text-small leading-tight text-ink2">
            <b className="text-ink">{weighed(answer.mass_g)} g</b>: {answer.assumed}
          </p>
        )
      )}
    </li>
  )
}

/** What holds the line, and what a way would make of it. */
function Bounds({ line, then }: Pick<LineRowProps, 'line' | 'then'>) {
  const rule = line.rule ?? {}
  const words = rule.locked
    ? 'stays as it is'
    : [
        rule.least_g != null && `at least ${rule.least_g} g`,
        rule.most_g != null && `at most ${rule.most_g} g`,
        rule.pack_g != null && `in packs of ${rule.pack_g} g`,
      ]
        .filter(Boolean)
        .join(', ')
  if (!words && !then) return null
  return (
    <p className="-mt-0.5 flex gap-2 pb-1 pl-5 text-small leading-tight text-ink2">
      {words && (
        <span className="inline-flex items-center gap-1">
          <svg
            width="10"
            height="12"
            viewBox="0 0 10 12"
            aria-hidden="true"
            fill="none"
            stroke="currentColor"
          >
            <rect x="1" y="5" width="8" height="6" rx="1.2" fill="currentColor" />
            <path d="M2.8 5V3.4a2.2 2.2 0 0 1 4.4 0V5" strokeWidth="1.4" />
          </svg>
          {words}
        </span>
      )}
      {then && (
        <b className="text-rim">
          {then.grams.toLocaleString('en', { maximumFractionDigits: 2 })} g with {then.letter}
        </b>
      )}
    </p>
  )
}

/** What stands beside the amount: what it brings, the same in spoons or pieces, its share. */
function Beside({ answer, view, full }: Pick<LineRowProps, 'answer' | 'view' | 'full'>) {
  if (!answer) return <span />
  if (view === 'brings') return <TinyBar shares={answer.phases_g} full={full} width={80} />
  if (view === 'percent') {
    return (
      <span className="text-body font-[640]">
        {fixed(answer.of_base_percent ?? answer.of_total_percent, 1)} %
      </span>
    )
  }
  return (
    <span className="text-small leading-tight">
      {answer.in_pieces ?? answer.in_spoons ?? `${weighed(answer.mass_g)} g`}
    </span>
  )
}
