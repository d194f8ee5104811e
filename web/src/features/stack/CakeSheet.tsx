import type { StackDocument } from '../../api/client'
import type { Edit } from '../../desk/history'
import { writeAt } from '../../lib/path'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { Sheet } from '../../ui/Sheet'
import { Optional } from './TierFields'
import { TextArea } from '../../ui/TextField'

interface CakeSheetProps {
  document: StackDocument
  count: number
  edit: Edit<StackDocument>
  onCount: (count: number) => void
  onClose: () => void
}

const USUAL_LOSSES = { spread_percent: 3, piped_percent: 6, poured_percent: 4 }

/** How the cake is served and carried, what it must fit, what stays in bowl and bag. */
export function CakeSheet({ document, count, edit, onCount, onClose }: CakeSheetProps) {
  const put = (field: string, value: unknown) => edit((own) => writeAt(own, field, value))
  const losses = { ...USUAL_LOSSES, ...document.losses }
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title="Serving and box"
      lead="At what temperature it is eaten and carried, and what it must fit into."
    >
      <div className="flex min-h-0 flex-col gap-4 overflow-y-auto p-1">
        <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
          <NumberField
            label="How many of it"
            unit=""
            min={1}
            max={5000}
            step={1}
            value={count}
            onCommit={(value) => onCount(Math.round(value))}
          />
          <Optional
            label="Eaten at"
            unit="°C"
            min={-5}
            max={45}
            usual={18}
            value={document.serve_c}
            onValue={(value) => put('serve_c', value)}
          />
          <Optional
            label="Warmest on the way"
            unit="°C"
            min={-20}
            max={45}
            usual={14}
            value={document.transport_c}
            onValue={(value) => put('transport_c', value)}
          />
          <Optional
            label="Portion"
            unit="g"
            min={5}
            max={5000}
            usual={100}
            value={document.portion_g}
            onValue={(value) => put('portion_g', value)}
          />
        </div>
        <p className="text-note text-ink2">
          Without a temperature of its own it is eaten as warm as the room of the order.
        </p>
        <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
          <Optional
            label="Board"
            unit="mm"
            usual={300}
            value={document.board_mm}
            onValue={(value) => put('board_mm', value)}
          />
          <Optional
            label="Smoother"
            unit="mm"
            usual={150}
            value={document.smoother_mm}
            onValue={(value) => put('smoother_mm', value)}
          />
          <Optional
            label="Box, wide"
            unit="mm"
            usual={300}
            value={document.box_mm?.[0]}
            onValue={(value) => put('box_mm', value === null ? null : [value, document.box_mm?.[1] ?? 300])}
          />
          {document.box_mm && (
            <NumberField
              label="Box, high"
              unit="mm"
              min={1}
              max={1500}
              step={10}
              value={document.box_mm[1] ?? 300}
              onCommit={(value) => put('box_mm', [document.box_mm?.[0] ?? 300, value])}
            />
          )}
        </div>
        <fieldset className="flex flex-wrap items-end gap-x-6 gap-y-3">
          <legend className="mb-1 font-[640]">What stays in bowl, bag and pan, of what is made</legend>
          {(
            [
              ['Spread', 'spread_percent'],
              ['Piped', 'piped_percent'],
              ['Poured', 'poured_percent'],
            ] as const
          ).map(([word, field]) => (
            <NumberField
              key={field}
              label={word}
              unit="%"
              min={0}
              max={50}
              step={1}
              value={losses[field]}
              onCommit={(value) => put('losses', { ...losses, [field]: value })}
            />
          ))}
        </fieldset>
        <TextArea
          label="Note"
          maxLength={4000}
          value={document.note ?? ''}
          onChange={(note) => edit((own) => ({ ...own, note }), 'note')}
        />
      </div>
      <Button look="primary" onClick={onClose}>
        Back to the cake
      </Button>
    </Sheet>
  )
}
