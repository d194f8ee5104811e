import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import type { IngredientEntry, KitchenValues } from '../../api/client'
import { numberOrNull, readTemperature } from '../../lib/number'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { TextNumber } from '../../ui/TextNumber'
import { saveValues } from '../pantry/queries'
import { componentOf } from '../../lib/madeHere'
import type { BenchLine } from './document'

interface WeightSheetProps {
  entry: IngredientEntry | undefined
  line: BenchLine
  onClose: () => void
  onLine: (change: (line: BenchLine) => BenchLine) => void
}

const HEAT_HINT = 'Fruit boiled before it met the gelatin, egg cooked in a custard before it was folded.'

/** What a cup or a piece of an ingredient weighs here, and how hot this line of it got. */
export function WeightSheet({ entry, line, onClose, onLine }: WeightSheetProps) {
  const [density, setDensity] = useState(line.density_g_per_ml?.toString() ?? '')
  const [piece, setPiece] = useState(line.piece_g?.toString() ?? '')
  const [cook, setCook] = useState(line.cook_c?.toString() ?? '')
  const [remember, setRemember] = useState(true)
  const keep = useMutation({
    mutationFn: ({ key, values }: { key: string; values: KitchenValues }) => saveValues(key, values),
  })
  const [d, p] = [numberOrNull(density), numberOrNull(piece)]
  const heat = readTemperature(cook)
  const c = heat.kind === 'number' ? heat.value : heat.kind === 'nothing' ? null : undefined
  const badDensity = d === undefined || (d !== null && !(d >= 0.05 && d <= 3))
  const badPiece = p === undefined || (p !== null && !(p > 0 && p <= 100_000))
  const badCook = c === undefined || (c !== null && !(c >= 0 && c <= 180))
  const bad = badDensity || badPiece || badCook
  const name = entry?.name ?? line.ingredient
  const made = componentOf(line.ingredient) !== null
  const use = async () => {
    if (bad) return
    const weights = d !== (line.density_g_per_ml ?? null) || p !== (line.piece_g ?? null)
    if (remember && entry && weights && !made) {
      await keep.mutateAsync({
        key: entry.ingredient,
        values: { ...entry.kitchen, density_g_per_ml: d ?? null, piece_g: p ?? null },
      })
    }
    onLine((l) => {
      const { density_g_per_ml: _density, piece_g: _piece, cook_c: _cook, ...bare } = l
      return {
        ...bare,
        ...(d != null && { density_g_per_ml: d }),
        ...(p != null && { piece_g: p }),
        ...(c != null && { cook_c: c }),
      }
    })
    onClose()
  }
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title={`More about the ${name}`}
      lead="Weigh a cup of it once, and every cup after that is right. Leave a field empty to follow the tables."
    >
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          use().catch(() => undefined)
        }}
      >
        <TextNumber
          label="Density as you scoop or pour it, g/ml"
          value={density}
          onChange={setDensity}
          placeholder={
            made ? 'worked out' : (entry?.table_density_g_per_ml?.toFixed(3) ?? 'not in the tables')
          }
          fault={badDensity ? 'Write 0.05 to 3 g/ml.' : undefined}
          hint={entry?.table_density_source ? `Tables: ${entry.table_density_source}.` : undefined}
        />
        <TextNumber
          label="Weight of one piece, g"
          value={piece}
          onChange={setPiece}
          placeholder={entry?.table_pieces[0]?.weight_g.toString() ?? 'not in the tables'}
          fault={badPiece ? 'Write a weight above 0 g.' : undefined}
          hint={entry?.table_pieces
            .map((each) => `1 ${each.unit} = ${each.weight_g} g (${each.source})`)
            .join('; ')}
        />
        {!made && (
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={remember}
              onChange={(event) => setRemember(event.target.checked)}
            />
            Remember these weights in the pantry for new lines
          </label>
        )}
        <TextNumber
          label="Highest temperature this line reached, °C"
          value={cook}
          onChange={setCook}
          placeholder="as the whole"
          numeric={false}
          fault={badCook ? 'Write 0 to 180 °C, or so many °F.' : undefined}
          hint={'fahrenheit' in heat && c != null ? `${cook.trim()} is ${c} °C.` : HEAT_HINT}
        />
        {keep.isError && (
          <p role="alert" className="text-hot">
            Not remembered: {keep.error.message}
          </p>
        )}
        <div className="flex gap-3">
          <Button type="submit" look="primary" disabled={bad || keep.isPending}>
            Use these values
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Sheet>
  )
}
