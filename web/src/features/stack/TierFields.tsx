import type { Body, StackDocument } from '../../api/client'
import type { Edit } from '../../desk/history'
import { moveBy, writeAt } from '../../lib/path'
import { useBeginnings } from '../orders/queries'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { SHAPES, SIZE_WORD } from './fields'
import { TextField } from '../../ui/TextField'
import { Tick } from '../../ui/Tick'
import { Select } from '../../ui/Select'

interface TierFieldsProps {
  document: StackDocument
  tier: number
  edit: Edit<StackDocument>
  onSelect: (path: string | null) => void
}

/** Shape and size of a tier, its container, collar and dowels. */
export function TierFields({ document, tier: at, edit, onSelect }: TierFieldsProps) {
  const tier = document.tiers[at]
  if (!tier) return null
  const path = `tiers.${at}`
  const put = (field: string, value: unknown, tag?: string) =>
    edit((own) => writeAt(own, `${path}.${field}`, value), tag ? `${path}.${field}` : undefined)
  const own = tier.body.shape === 'cup' || tier.body.shape === 'loaf'
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-lead">Tier {at + 1}</h2>
      <BodyFields body={tier.body} onBody={(body) => put('body', body)} />
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2.5">
        {own && (
          <>
            <TextField
              label="Sold in"
              className="w-44"
              placeholder="turned out, or its tin"
              maxLength={80}
              value={tier.container?.name ?? ''}
              onChange={(name) =>
                put(
                  'container',
                  name === '' ? null : { headspace_mm: 5, ...tier.container, name },
                  'container',
                )
              }
            />
            {tier.container && (
              <NumberField
                label="Left under the rim"
                unit="mm"
                min={0}
                max={100}
                step={1}
                value={tier.container.headspace_mm ?? 0}
                onCommit={(value) => put('container.headspace_mm', value)}
              />
            )}
          </>
        )}
        <Optional
          label="Collar"
          unit="mm"
          value={tier.collar_mm}
          usual={100}
          onValue={(value) => put('collar_mm', value)}
        />
        <Optional
          label="Equal pieces"
          unit=""
          value={tier.many?.count}
          usual={12}
          max={2000}
          onValue={(value) =>
            put('many', value === null ? null : { spare: 0, ...tier.many, count: Math.round(value) })
          }
        />
        {tier.many && (
          <>
            <NumberField
              label="More, for those that break"
              unit=""
              min={0}
              max={500}
              step={1}
              value={tier.many.spare ?? 0}
              onCommit={(value) => put('many.spare', Math.round(value))}
            />
            <Tick
              checked={tier.many.pile != null}
              onChange={(on) => put('many.pile', on ? { each_g: 4 } : null)}
            >
              Piled up
            </Tick>
          </>
        )}
        {tier.body.shape === 'rectangle' && !tier.many && (
          <>
            <Optional
              label="Cut in rows"
              unit=""
              value={tier.cut?.rows}
              usual={3}
              max={40}
              onValue={(value) =>
                put('cut', value === null ? null : { columns: 3, ...tier.cut, rows: Math.round(value) })
              }
            />
            {tier.cut && (
              <NumberField
                label="of so many"
                unit=""
                min={1}
                max={40}
                step={1}
                value={tier.cut.columns}
                onCommit={(value) => put('cut', { rows: 3, ...tier.cut, columns: Math.round(value) })}
              />
            )}
          </>
        )}
        <Optional
          label="Dowels for the tier above"
          unit=""
          value={tier.dowels?.count}
          usual={4}
          onValue={(value) =>
            put(
              'dowels',
              value === null ? null : { diameter_mm: 8, ...tier.dowels, count: Math.round(value) },
            )
          }
        />
      </div>
      <div className="flex flex-wrap gap-2">
        {document.tiers.length > 1 && (
          <>
            <Button
              className="px-3"
              disabled={at + 1 >= document.tiers.length}
              onClick={() => {
                edit((whole) => moveBy(whole, 'tiers', at, 1))
                onSelect(`tiers.${at + 1}`)
              }}
            >
              Up
            </Button>
            <Button
              className="px-3"
              disabled={at === 0}
              onClick={() => {
                edit((whole) => moveBy(whole, 'tiers', at, -1))
                onSelect(`tiers.${at - 1}`)
              }}
            >
              Down
            </Button>
            <Button
              look="quiet"
              className="px-3"
              onClick={() => {
                edit((whole) => writeAt(whole, path, null))
                onSelect(null)
              }}
            >
              Take the tier away
            </Button>
          </>
        )}
      </div>
    </div>
  )
}

interface BodyFieldsProps {
  body: Body
  onBody: (body: Body) => void
}

/** A shape and its sizes. */
export function BodyFields({ body, onBody }: BodyFieldsProps) {
  const [, most = 1500] = useBeginnings().data?.body_mm ?? []
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-2.5">
      <Select
        label="Shape"
        value={body.shape}
        onChange={(shape) => {
          const begun = SHAPES.find(([key]) => key === shape)?.[2]
          if (begun) onBody({ ...begun })
        }}
        options={[...SHAPES.map(([key, word]) => [key, word] as const)]}
      />
      {Object.entries(body)
        .filter(([name]) => name in SIZE_WORD)
        .map(([name, value]) => (
          <NumberField
            key={name}
            label={SIZE_WORD[name] ?? name}
            unit="mm"
            // What is too small is spoken of at its place, the cake drawn as it was.
            min={0}
            max={most}
            step={name === 'corner_mm' ? 1 : 10}
            value={Number(value)}
            onCommit={(mm) => onBody({ ...body, [name]: mm })}
          />
        ))}
    </div>
  )
}

interface OptionalProps {
  label: string
  unit: string
  value: number | null | undefined
  usual: number
  min?: number
  max?: number
  onValue: (value: number | null) => void
}

/** A number that need not be there: a tick, and then the number. */
export function Optional({ label, unit, value, usual, min = 1, max = 1500, onValue }: OptionalProps) {
  return (
    <span className="flex items-end gap-2">
      <Tick checked={value != null} onChange={(on) => onValue(on ? usual : null)}>
        {label}
      </Tick>
      {value != null && (
        <NumberField
          inline
          label={label}
          unit={unit}
          min={min}
          max={max}
          step={unit === 'mm' ? 5 : 1}
          value={value}
          onCommit={onValue}
        />
      )}
    </span>
  )
}
