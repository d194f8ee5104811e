import { useState } from 'react'
import { asking, useQuestion } from '../../api/ask'
import type { FormulaDocument, IngredientEntry, ScaleAsk, Scaled } from '../../api/client'
import { unbroken, weighed } from '../../lib/format'
import { numberOrNull } from '../../lib/number'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { TextNumber } from '../../ui/TextNumber'
import { SharesPane } from './SharesPane'
import { Tabs } from '../../ui/Tabs'
import { Select } from '../../ui/Select'
import { TextField } from '../../ui/TextField'

interface SizeSheetProps {
  document: FormulaDocument
  entries: Map<string, IngredientEntry>
  /** Weight of the batch as it is, g. */
  batch: number | null
  onUse: (document: FormulaDocument) => void
  onClose: () => void
}

const TO = [
  ['mass', 'So many grams'],
  ['volume', 'So many millilitres'],
  ['pieces', 'So many pieces'],
  ['short', 'Only so much of one thing'],
  ['factor', 'So many times'],
] as const
type To = (typeof TO)[number][0]

const WHOLE = [
  ['nothing', 'nothing: amounts as they fall'],
  ['pieces', 'eggs, leaves, sticks'],
  ['packs', 'packs as they are bought'],
] as const

/** The same formula in another size, and what is in the bowl shared out. */
export function SizeSheet({ document, entries, batch, onUse, onClose }: SizeSheetProps) {
  const [pane, setPane] = useState<'size' | 'shares'>('size')
  return (
    <Sheet
      open
      wide
      onOpenChange={(open) => !open && onClose()}
      title="Size"
      lead="To a mass, a volume, pieces, or what there is; then what is really in the bowl, shared out."
    >
      <Tabs
        label="Size"
        value={pane}
        onChange={setPane}
        tabs={[
          {
            key: 'size',
            words: 'Another size',
            className: 'min-h-0 overflow-y-auto',
            content: <SizePane document={document} entries={entries} onUse={onUse} />,
          },
          {
            key: 'shares',
            words: 'Share it out',
            className: 'min-h-0 overflow-y-auto',
            content: <SharesPane batch={batch} />,
          },
        ]}
      />
    </Sheet>
  )
}

function SizePane({ document, entries, onUse }: Pick<SizeSheetProps, 'document' | 'entries' | 'onUse'>) {
  const [to, setTo] = useState<To>('mass')
  const [many, setMany] = useState('')
  const [each, setEach] = useState('')
  const [byVolume, setByVolume] = useState(false)
  const [line, setLine] = useState(0)
  const [loss, setLoss] = useState('')
  const [whole, setWhole] = useState<NonNullable<ScaleAsk['whole']>>('nothing')
  const name = (key: string) => entries.get(key)?.name ?? key
  const number = numberOrNull(many)
  const piece = numberOrNull(each)
  const lost = numberOrNull(loss)
  const ready = to === 'short' ? many.trim() !== '' : number != null && (to !== 'pieces' || piece != null)
  const target = targetOf(to, number ?? 0, piece ?? 0, byVolume, line, many.trim())
  const body: ScaleAsk = { document, target, whole, loss_percent: lost ?? 0 }
  const { found, wrong, current } = useQuestion(asking('post', '/api/scale', { body }), ready)
  return (
    <div className="grid min-h-0 grid-cols-[320px_minmax(0,1fr)] gap-x-8 gap-y-4 overflow-y-auto px-1 pb-2 max-tablet:grid-cols-1">
      <div className="flex flex-col gap-3">
        <Select label="To" value={to} onChange={setTo} options={TO} />
        {to === 'short' && (
          <Select
            label="Of this there is only so much"
            value={String(line)}
            onChange={(at) => setLine(Number(at))}
            options={document.lines.map((own, at) => [String(at), name(own.ingredient)] as const)}
          />
        )}
        {to === 'short' ? (
          <TextField
            label="All there is of it"
            placeholder="310 g"
            className="w-40"
            value={many}
            onChange={setMany}
          />
        ) : (
          <TextNumber
            label={to === 'pieces' ? 'How many' : to === 'factor' ? 'How many times' : 'Wanted'}
            unit={to === 'mass' ? 'g' : to === 'volume' ? 'ml' : undefined}
            value={many}
            onChange={setMany}
            fault={number === undefined ? 'write a number' : undefined}
          />
        )}
        {to === 'pieces' && (
          <span className="flex items-end gap-2">
            <TextNumber
              label="In each"
              value={each}
              onChange={setEach}
              fault={piece === undefined ? 'write a number' : undefined}
            />
            <Select
              inline
              label="Unit of each"
              value={byVolume ? 'ml' : 'g'}
              onChange={(unit) => setByVolume(unit === 'ml')}
              options={[
                ['g', 'g'],
                ['ml', 'ml'],
              ]}
            />
          </span>
        )}
        <TextNumber
          label="Stays in bowl and bag"
          unit="% of the batch"
          placeholder="0"
          hint="3 to 5 for a piped cream (common practice)"
          value={loss}
          onChange={setLoss}
          fault={lost === undefined ? 'write a number' : undefined}
        />
        <Select label="Come out whole" value={whole} onChange={setWhole} options={WHOLE} />
      </div>
      <div aria-live="polite" className={`min-w-0 ${current || !ready ? '' : 'opacity-60'}`}>
        {!ready && <p className="text-ink2">Say how much, and the amounts stand here.</p>}
        {wrong && (
          <p role="alert" className="text-lead text-hot">
            {wrong}
          </p>
        )}
        {ready && found && !wrong && <Result scaled={found} onUse={onUse} />}
      </div>
    </div>
  )
}

function targetOf(
  to: To,
  number: number,
  each: number,
  by_volume: boolean,
  line: number,
  amount: string,
): ScaleAsk['target'] {
  switch (to) {
    case 'mass':
      return { to, grams: number }
    case 'volume':
      return { to, ml: number }
    case 'pieces':
      return { to, count: Math.max(0, Math.round(number)), each, by_volume }
    case 'short':
      return { to, have: [{ line, amount }] }
    case 'factor':
      return { to, by: number }
  }
}

function Result({ scaled, onUse }: { scaled: Scaled; onUse: (document: FormulaDocument) => void }) {
  const packs = scaled.lines.some((line) => line.packs_opened != null)
  return (
    <div className="flex flex-col gap-3">
      <div className="flex items-start gap-4">
        <p className="min-w-0 flex-1 font-head text-title leading-tight font-[640]">
          {unbroken(scaled.sentence)}
        </p>
        <Button look="primary" onClick={() => onUse(scaled.document)}>
          Use this size
        </Button>
      </div>
      {scaled.not_whole.length > 0 && (
        <p className="text-hot">Not whole with the rest: {scaled.not_whole.join('; ')}.</p>
      )}
      <table className="w-full text-left">
        <thead className="text-small text-ink2">
          <tr>
            <th className="font-[450]">Ingredient</th>
            <th className="text-right font-[450]">Was, g</th>
            <th className="text-right font-[450]">Weigh, g</th>
            <th className="pl-4 font-[450]">That is</th>
            {packs && <th className="text-right font-[450]">Packs to open</th>}
          </tr>
        </thead>
        <tbody>
          {scaled.lines.map((line, at) => (
            <tr key={at} className="border-t border-line">
              <th scope="row" className="py-1 pr-2 font-[450]">
                {unbroken(line.name)}
              </th>
              <td className="text-right text-ink2">{weighed(line.from_g)}</td>
              <td className="text-right text-lead font-[640]">{weighed(line.to_g)}</td>
              <td className="pl-4 whitespace-nowrap">
                {line.in_pieces ?? ''}
                {Math.abs(line.rounded_percent) >= 1 && (
                  <span className="text-small text-ink2">
                    {' '}
                    rounded by {line.rounded_percent.toFixed(1)} %
                  </span>
                )}
              </td>
              {packs && <td className="text-right">{line.packs_opened ?? ''}</td>}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-ink2">
        {Math.round(scaled.volume_ml).toLocaleString('en')} ml with its air, {weighed(scaled.usable_g)} g of{' '}
        {weighed(scaled.batch_g)} g to use.
      </p>
    </div>
  )
}
