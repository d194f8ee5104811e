import { useState } from 'react'
import type { BenchWork, OrderAnswer, OrderDocument } from '../../api/client'
import type { Edit } from '../../desk/history'
import { price } from '../../lib/format'
import { insertAt, writeAll, writeAt } from '../../lib/path'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { Findings } from '../stack/Findings'
import { Optional } from '../stack/TierFields'
import { cakeOf } from './document'
import { useWhichToUse } from '../library/useWhichToUse'
import { readFile, useBeginnings } from './queries'
import { Without } from './Without'
import { Spoken } from '../../ui/Spoken'
import { TextArea, TextField } from '../../ui/TextField'
import { FilePick, JSON_FILES } from '../../ui/FilePick'
import { Select } from '../../ui/Select'

interface OrderViewProps {
  document: OrderDocument
  answer: OrderAnswer | undefined
  currency: string
  edit: Edit<OrderDocument>
  onCake: (at: number) => void
  onBench: (work: BenchWork) => void
  onWhole: (form: 'json' | 'recipe') => void
}

const NOTHING = { animals: false, meat: false, pork: false, alcohol: false, allergens: [] }

/** The order itself: for whom and when, what must not be in it, its cakes, what it costs. */
export function OrderView({ document, answer, currency, edit, onCake, onBench, onWhole }: OrderViewProps) {
  const put = (field: string, value: unknown, tag?: string) =>
    edit((own) => writeAt(own, field, value), tag ? field : undefined)
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_392px] gap-x-8 gap-y-5 max-tablet:grid-cols-1">
      <section aria-label="The order" className="flex min-w-0 flex-col gap-4">
        <Spoken>
          <h1 className={`text-display leading-tight ${answer?.standing === 'trouble' ? 'text-hot' : ''}`}>
            {answer?.headline ?? ' '}
          </h1>
          <p className="min-h-[20px] text-ink2">{answer?.detail}</p>
        </Spoken>
        <div className="flex flex-wrap items-end gap-x-5 gap-y-3">
          <Text
            label="Name"
            width="w-72"
            value={document.name ?? ''}
            onChange={(value) => put('name', value, 'name')}
          />
          <TextField
            label="Eaten"
            type="datetime-local"
            value={(document.served_at ?? '').slice(0, 16)}
            onChange={(at) => put('served_at', at === '' ? null : `${at}:00`)}
          />
          <TextField
            label="Made on"
            type="date"
            value={document.made_on ?? ''}
            onChange={(day) => put('made_on', day === '' ? null : day)}
          />
          <Optional
            label="Portions wanted"
            unit=""
            max={100000}
            usual={Math.max(1, answer?.portions ?? 20)}
            value={document.servings}
            onValue={(value) => put('servings', value === null ? null : Math.round(value))}
          />
          <NumberField
            label="Room where it is eaten"
            unit="°C"
            min={0}
            max={45}
            step={0.5}
            value={document.room_temperature_c}
            onCommit={(value) => put('room_temperature_c', value)}
          />
        </div>
        <Cakes document={document} answer={answer} edit={edit} onCake={onCake} />
        <Without value={document.without ?? NOTHING} onChange={(value) => put('without', value)} />
        <TextArea
          label="Note"
          maxLength={4000}
          value={document.note ?? ''}
          onChange={(note) => put('note', note, 'note')}
        />
      </section>
      <aside className="flex min-w-0 flex-col gap-4 border-l border-line pl-6 max-tablet:border-0 max-tablet:pl-0">
        {answer && answer.findings.length > 0 && (
          <Findings
            findings={answer.findings}
            onMend={(mend) => edit((own) => writeAll(own, mend.writes))}
            onBench={onBench}
          />
        )}
        {answer && <Money answer={answer} currency={currency} />}
        {answer && (
          <section aria-label="Allergens and care">
            <h2 className="text-title">Allergens and care</h2>
            <p className="mt-1">
              {answer.allergens.length > 0 ? (
                <b>{answer.allergens.join(', ')}</b>
              ) : (
                'None known of what is in it.'
              )}
            </p>
            {answer.cautions.map((caution) => (
              <p key={caution.caution} className="mt-1 text-note text-ink2">
                {caution.words}
              </p>
            ))}
            <p className="mt-1 text-note text-ink2">
              From what the pantry knows; your own labels and your local food code decide.
            </p>
          </section>
        )}
        <div className="flex flex-wrap gap-2">
          <Button onClick={() => onWhole('json')}>Save as JSON</Button>
          <Button onClick={() => onWhole('recipe')}>Save as recipe</Button>
        </div>
      </aside>
    </div>
  )
}

function Text({
  label,
  width,
  value,
  onChange,
}: {
  label: string
  width: string
  value: string
  onChange: (value: string) => void
}) {
  return (
    <label className="flex max-w-full flex-col gap-1 text-small text-ink2">
      {label}
      <input
        className={`min-h-9 ${width} max-w-full rounded-md border border-line2 bg-enamel px-2 text-body text-ink pointer-coarse:min-h-11`}
        maxLength={120}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  )
}

interface CakesProps {
  document: OrderDocument
  answer: OrderAnswer | undefined
  edit: Edit<OrderDocument>
  onCake: (at: number) => void
}

function Cakes({ document, answer, edit, onCake }: CakesProps) {
  const beginnings = useBeginnings()
  const which = useWhichToUse()
  const [said, setSaid] = useState<string | null>(null)
  const add = (cake: OrderDocument['cakes'][number]) =>
    edit((own) => insertAt(own, 'cakes', own.cakes.length, cake))
  const take = async (text: string) => {
    try {
      const read = await which.settle(await readFile(text))
      if (!read) return
      if (read.kind === 'stack') add(cakeOf(read.document))
      else if (read.kind === 'order')
        edit((own) => ({ ...own, cakes: [...own.cakes, ...read.document.cakes] }))
      else setSaid('That is a formula: read it from the list of orders or on the Bench.')
    } catch (error) {
      setSaid(error instanceof Error ? error.message : 'The file cannot be read.')
    }
  }
  return (
    <section aria-label="Cakes">
      {which.sheet}
      <h2 className="text-title">Cakes</h2>
      <ul className="border-t border-line">
        {document.cakes.map((cake, at) => {
          const own = answer?.cakes[at]
          return (
            <li key={at} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-2">
              <NumberField
                inline
                label={`How many of cake ${at + 1}`}
                unit="×"
                min={1}
                max={5000}
                step={1}
                value={cake.count}
                onCommit={(count) => edit((order) => writeAt(order, `cakes.${at}.count`, Math.round(count)))}
              />
              <button
                type="button"
                className="min-h-11 min-w-[200px] flex-1 rounded-lg px-1 text-left hover:bg-rim-tint"
                onClick={() => onCake(at)}
              >
                <span className="block font-head text-title font-[640]">
                  {cake.stack.name || `Cake ${at + 1}`}
                </span>
                <span className={own?.standing === 'trouble' ? 'text-hot' : 'text-ink2'}>
                  {own?.headline}
                </span>
              </button>
              <span className="text-ink2">
                {own
                  ? `${own.portions * cake.count} portions, ${((own.finished_g * cake.count) / 1000).toFixed(1)} kg`
                  : ''}
              </span>
              <Button className="px-3" onClick={() => add(cake)}>
                One more like it
              </Button>
              <Button
                look="quiet"
                className="px-3"
                onClick={() => edit((order) => writeAt(order, `cakes.${at}`, null))}
              >
                Take it away
              </Button>
            </li>
          )
        })}
      </ul>
      {document.cakes.length === 0 && <p className="py-2 text-ink2">No cake yet: add one to begin.</p>}
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <Select
          label="Add a cake"
          value=""
          onChange={(key) => {
            const template = beginnings.data?.templates.find((own) => own.key === key)
            if (template) add(cakeOf({ ...template.document, name: '' }))
          }}
          options={[
            ['', 'Choose a build…'],
            ...(beginnings.data?.templates ?? []).map((template) => [template.key, template.name] as const),
          ]}
        />
        <FilePick
          label="File with a cake"
          accept={JSON_FILES}
          onPick={(chosen) => void chosen.text().then(take)}
        >
          Add one from a file
        </FilePick>
      </div>
      {said && (
        <p role="alert" className="mt-1 text-hot">
          {said}
        </p>
      )}
    </section>
  )
}

/** What it costs, and where the money goes. */
function Money({ answer, currency }: { answer: OrderAnswer; currency: string }) {
  const { cost } = answer
  const most = cost.by_ingredient[0]?.cost ?? 0
  return (
    <section aria-label="What it costs">
      <h2 className="text-title">What it costs</h2>
      <p className="mt-1">
        <b className="text-title">{price(cost.used, currency)}</b> of ingredients
        {cost.per_portion != null && <>, {price(cost.per_portion, currency)} a portion</>}. Packs to buy:{' '}
        {price(cost.packs, currency)}.
      </p>
      <ul className="mt-2">
        {cost.by_ingredient.slice(0, 6).map((share) => (
          <li key={share.name} className="flex items-center gap-3 border-t border-line py-1">
            <span className="min-w-0 flex-1 truncate">{share.name}</span>
            <span aria-hidden="true" className="h-2.5 w-24">
              <span
                className="block h-full rounded-sm bg-rim"
                style={{ width: `${most > 0 ? (100 * share.cost) / most : 0}%` }}
              />
            </span>
            <span className="w-24 text-right">{price(share.cost, currency)}</span>
            <span className="w-12 text-right text-ink2">{share.of_cost_percent.toFixed(0)} %</span>
          </li>
        ))}
      </ul>
      {cost.without_price.length > 0 && (
        <p className="mt-1 text-note text-ink2">Without a price: {cost.without_price.join(', ')}.</p>
      )}
    </section>
  )
}
