import { useState } from 'react'
import type { IngredientEntry } from '../../api/client'
import { numberOrNull } from '../../lib/number'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { countRules } from './rules'
import type { BenchDocument, BenchLine } from './document'
import { Select } from '../../ui/Select'

type Rules = NonNullable<BenchDocument['rules']>
type Share = NonNullable<Rules['shares']>[number]

interface RulesSheetProps {
  document: BenchDocument
  entries: Map<string, IngredientEntry>
  edit: (change: (document: BenchDocument) => BenchDocument, tag?: string) => void
  onClose: () => void
}

const SIDES = { least_g: 'At least', most_g: 'At most', pack_g: 'In packs of' } as const

const field =
  'w-[4.6em] rounded-md border border-line2 bg-enamel px-1.5 py-0.5 text-right font-[640] pointer-coarse:min-h-11'
const choice = 'rounded-md border border-line2 bg-enamel px-1.5 py-0.5 pointer-coarse:min-h-11'

/** What must hold whatever way is taken: the total, whole pieces, each line, shares, a ratio. */
export function RulesSheet({ document, entries, edit, onClose }: RulesSheetProps) {
  const rules = document.rules ?? {}
  const change = (next: Rules) => edit((d) => ({ ...d, rules: next }))
  const name = (key: string) => entries.get(key)?.name ?? key
  const keys = [...new Set(document.lines.map((line) => line.ingredient))]
  const shelves = [...new Set(keys.map((key) => entries.get(key)?.group ?? '').filter(Boolean))]
  const shares = rules.shares ?? []
  const ratio = rules.ratios?.[0]
  const setLine = (key: string, rule: NonNullable<BenchLine['rule']>) =>
    edit((d) => ({
      ...d,
      lines: d.lines.map((line) => {
        if (line.key !== key) return line
        const { rule: _rule, ...bare } = line
        const free =
          rule.locked !== true &&
          rule.kept !== true &&
          rule.least_g == null &&
          rule.most_g == null &&
          rule.pack_g == null
        return free ? bare : { ...bare, rule }
      }),
    }))
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title="What must hold"
      lead="Every way keeps to these. What cannot be had together is named, with the nearest that can."
    >
      <div className="-mx-2 flex min-h-0 flex-col gap-4 overflow-y-auto px-2 pb-1">
        <div className="flex flex-col gap-1">
          <Tick on={rules.keep_total ?? false} onChange={(on) => change({ ...rules, keep_total: on })}>
            The batch keeps its weight
          </Tick>
          <Tick on={rules.whole_pieces ?? false} onChange={(on) => change({ ...rules, whole_pieces: on })}>
            Eggs, leaves and sticks stay whole
          </Tick>
        </div>
        <table className="w-full text-left">
          <thead className="text-small text-ink2">
            <tr>
              <th className="font-[450]">Ingredient</th>
              <th className="font-[450]">Leave as it is</th>
              <th className="font-[450]">What it is for</th>
              <th className="font-[450]">At least, g</th>
              <th className="font-[450]">At most, g</th>
              <th className="font-[450]">In packs of, g</th>
            </tr>
          </thead>
          <tbody>
            {document.lines.map((line) => {
              const rule = line.rule ?? {}
              const locked = rule.locked ?? false
              return (
                <tr key={line.key} className="border-t border-line">
                  <th scope="row" className="py-1 pr-2 font-[450]">
                    {name(line.ingredient)}
                  </th>
                  <td>
                    <label className="flex min-h-9 items-center gap-2 pointer-coarse:min-h-11">
                      <input
                        type="checkbox"
                        aria-label={`Leave ${name(line.ingredient)} as it is`}
                        checked={locked}
                        onChange={(event) => setLine(line.key, { ...rule, locked: event.target.checked })}
                      />
                    </label>
                  </td>
                  <td>
                    <label className="flex min-h-9 items-center gap-2 pointer-coarse:min-h-11">
                      <input
                        type="checkbox"
                        aria-label={`${name(line.ingredient)} is what it is for: never less of it`}
                        checked={rule.kept ?? false}
                        onChange={(event) => setLine(line.key, { ...rule, kept: event.target.checked })}
                      />
                    </label>
                  </td>
                  {(['least_g', 'most_g', 'pack_g'] as const).map((side) => (
                    <td key={side}>
                      <Limit
                        label={`${SIDES[side]}, g of ${name(line.ingredient)}`}
                        value={rule[side] ?? null}
                        most={1_000_000}
                        disabled={locked}
                        onCommit={(value) => {
                          const { [side]: _old, ...rest } = rule
                          setLine(line.key, value === null ? rest : { ...rest, [side]: value })
                        }}
                      />
                    </td>
                  ))}
                </tr>
              )
            })}
          </tbody>
        </table>
        <p className="text-note text-ink2">
          Mark the fruit, flavour or colour it is for: there is never less of it, and nothing goes in its
          place.
        </p>
        <div className="flex flex-col gap-2">
          <h3 className="text-lead">Shares of the whole</h3>
          {shares.map((share, at) => {
            const replace = (next: Share) =>
              change({ ...rules, shares: shares.map((old, k) => (k === at ? next : old)) })
            return (
              <div key={at} className="flex flex-wrap items-baseline gap-2">
                <Select
                  inline
                  label={`Of what, share ${at + 1}`}
                  value={share.of}
                  onChange={(of) => replace({ ...share, of })}
                  options={[
                    ...shelves.map((s) => [s, `all ${s}`] as const),
                    ...keys.map((k) => [k, name(k)] as const),
                  ]}
                />
                {(['least_percent', 'most_percent'] as const).map((side) => (
                  <label key={side} className="inline-flex items-baseline gap-1">
                    {side === 'least_percent' ? 'at least' : 'at most'}
                    <Limit
                      label={`${side === 'least_percent' ? 'At least' : 'At most'} per cent, share ${at + 1}`}
                      value={share[side] ?? null}
                      most={100}
                      onCommit={(value) => {
                        const { [side]: _old, ...rest } = share
                        replace(value === null ? rest : { ...rest, [side]: value })
                      }}
                    />
                    %
                  </label>
                ))}
                <Button
                  look="quiet"
                  onClick={() => change({ ...rules, shares: shares.filter((_, k) => k !== at) })}
                >
                  Take it out
                </Button>
              </div>
            )
          })}
          <Button
            className="self-start"
            disabled={keys.length === 0 || shares.length >= 12}
            onClick={() => change({ ...rules, shares: [...shares, { of: shelves[0] ?? keys[0] ?? '' }] })}
          >
            Add a share
          </Button>
        </div>
        {keys.length > 1 && (
          <div className="flex flex-wrap items-baseline gap-2">
            <h3 className="text-lead">A ratio that stays</h3>
            {([0, 1] as const).map((place) => (
              <select
                key={place}
                aria-label={place === 0 ? 'First of the ratio' : 'Second of the ratio'}
                className={choice}
                value={ratio?.[place] ?? ''}
                onChange={(event) => {
                  const chosen = event.target.value
                  if (chosen === '') {
                    const { ratios: _ratios, ...rest } = rules
                    return change(rest)
                  }
                  const other = ratio?.[1 - place] ?? keys.find((key) => key !== chosen) ?? ''
                  const pair = place === 0 ? [chosen, other] : [other, chosen]
                  change({ ...rules, ratios: [pair] })
                }}
              >
                <option value="">none</option>
                {keys.map((key) => (
                  <option key={key} value={key}>
                    {name(key)}
                  </option>
                ))}
              </select>
            ))}
          </div>
        )}
      </div>
      <div className="flex gap-3">
        <Button look="primary" onClick={onClose}>
          Done
        </Button>
        {countRules(document) > 0 && (
          <Button
            onClick={() =>
              edit((d) => {
                const { rules: _rules, ...rest } = d
                return { ...rest, lines: d.lines.map(({ rule: _rule, ...line }) => line) }
              })
            }
          >
            Free everything
          </Button>
        )}
      </div>
    </Sheet>
  )
}

function Tick({
  on,
  onChange,
  children,
}: {
  on: boolean
  onChange: (on: boolean) => void
  children: string
}) {
  return (
    <label className="flex min-h-9 items-center gap-2 pointer-coarse:min-h-11">
      <input type="checkbox" checked={on} onChange={(event) => onChange(event.target.checked)} />
      {children}
    </label>
  )
}

/** A limit: empty is none. What is typed and what holds are two things until the field is left. */
function Limit({
  label,
  value,
  most,
  disabled = false,
  onCommit,
}: {
  label: string
  value: number | null
  most: number
  disabled?: boolean
  onCommit: (value: number | null) => void
}) {
  const [typed, setTyped] = useState<string | null>(null)
  const parsed = typed === null ? value : numberOrNull(typed)
  const wrong = parsed === undefined || (parsed !== null && !(parsed >= 0 && parsed <= most))
  return (
    <input
      aria-label={label}
      aria-invalid={wrong || undefined}
      title={wrong ? `Write 0 to ${most.toLocaleString('en')}, or nothing.` : undefined}
      inputMode="decimal"
      autoComplete="off"
      placeholder="none"
      disabled={disabled}
      className={`${field} ${wrong ? 'border-hot text-hot' : ''} placeholder:font-[450] placeholder:text-ink3 disabled:opacity-45`}
      value={typed ?? (value === null ? '' : String(value))}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => {
        if (wrong) return
        setTyped(null)
        if ((parsed ?? null) !== value) onCommit(parsed ?? null)
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur()
      }}
    />
  )
}
