import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api } from '../../api/client'
import type { OwnWeights, PantryEntry } from '../../api/client'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import type { BenchLine } from './document'

interface WeightSheetProps {
  entry: PantryEntry | undefined
  line: BenchLine
  onClose: () => void
  onLine: (change: (line: BenchLine) => BenchLine) => void
}

/** What a cup or a piece of an ingredient weighs here: for this line, and for the pantry. */
export function WeightSheet({ entry, line, onClose, onLine }: WeightSheetProps) {
  const [density, setDensity] = useState(line.density_g_per_ml?.toString() ?? '')
  const [piece, setPiece] = useState(line.piece_g?.toString() ?? '')
  const [remember, setRemember] = useState(true)
  const client = useQueryClient()
  const keep = useMutation({
    mutationFn: ({ ingredient, own }: { ingredient: string; own: OwnWeights }) =>
      answer(api.PUT('/api/pantry/{ingredient}', { params: { path: { ingredient } }, body: own })),
    onSuccess: () => void client.invalidateQueries({ queryKey: ['pantry'] }),
  })
  const number = (text: string): number | null | undefined => {
    if (text.trim() === '') return null
    const value = Number(text.replace(',', '.'))
    return Number.isFinite(value) ? value : undefined
  }
  const [d, p] = [number(density), number(piece)]
  const badDensity = d === undefined || (d !== null && !(d >= 0.05 && d <= 3))
  const badPiece = p === undefined || (p !== null && !(p > 0 && p <= 100_000))
  const bad = badDensity || badPiece
  const name = entry?.name ?? line.ingredient
  const use = async () => {
    if (bad) return
    if (remember && entry) {
      await keep.mutateAsync({
        ingredient: entry.ingredient,
        own: { density_g_per_ml: d ?? null, piece_g: p ?? null, revision: entry.own.revision },
      })
    }
    onLine((l) => {
      const { density_g_per_ml: _density, piece_g: _piece, ...bare } = l
      return { ...bare, ...(d != null && { density_g_per_ml: d }), ...(p != null && { piece_g: p }) }
    })
    onClose()
  }
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title={`What ${name} weighs`}
      lead="Weigh a cup of it once, and every cup after that is right. Leave a field empty to follow the tables."
    >
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          use().catch(() => undefined)
        }}
      >
        <label className="flex flex-col gap-1">
          <span>Density as you scoop or pour it, g/ml</span>
          <input
            inputMode="decimal"
            className={`min-h-10 w-40 rounded-lg border bg-enamel px-2 ${badDensity ? 'border-hot' : 'border-line2'}`}
            aria-invalid={badDensity ? true : undefined}
            placeholder={entry?.table_density_g_per_ml?.toFixed(3) ?? 'not in the tables'}
            value={density}
            onChange={(event) => setDensity(event.target.value)}
          />
          <span className="text-[13px] text-ink2">
            {badDensity
              ? 'Write 0.05 to 3 g/ml.'
              : entry?.table_density_source && `Tables: ${entry.table_density_source}.`}
          </span>
        </label>
        <label className="flex flex-col gap-1">
          <span>Weight of one piece, g</span>
          <input
            inputMode="decimal"
            className={`min-h-10 w-40 rounded-lg border bg-enamel px-2 ${badPiece ? 'border-hot' : 'border-line2'}`}
            aria-invalid={badPiece ? true : undefined}
            placeholder={entry?.table_pieces[0]?.weight_g.toString() ?? 'not in the tables'}
            value={piece}
            onChange={(event) => setPiece(event.target.value)}
          />
          <span className="text-[13px] text-ink2">
            {badPiece
              ? 'Write a weight above 0 g.'
              : entry?.table_pieces
                  .map((each) => `1 ${each.unit} = ${each.weight_g} g (${each.source})`)
                  .join('; ')}
          </span>
        </label>
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={remember} onChange={(event) => setRemember(event.target.checked)} />
          Remember it in the pantry for new lines
        </label>
        {keep.isError && (
          <p role="alert" className="text-hot">
            Not remembered: {keep.error.message}
          </p>
        )}
        <div className="flex gap-3">
          <Button type="submit" look="primary" disabled={bad || keep.isPending}>
            Use these weights
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Sheet>
  )
}
