import { Link } from 'react-router'
import type { IngredientDetail, KitchenValues } from '../../api/client'
import { ProblemError } from '../../api/client'
import { fixed, price, unbroken } from '../../lib/format'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { PHASE_WORD, PHASES, phaseFill, stacked } from '../../ui/phases'
import { useIngredient, useSaveValues } from './queries'
import { SolidFat } from './SolidFat'

/** One ingredient whole: what it is made of and how we know, its weights, whom it hurts, its price. */
export function IngredientCard({ ingredient, currency }: { ingredient: string; currency: string }) {
  const found = useIngredient(ingredient)
  if (found.isError && !found.data) {
    return (
      <div className="pt-8">
        <h2 className="text-display text-hot">Not on the shelf</h2>
        <p>{found.error?.message}</p>
      </div>
    )
  }
  if (!found.data) return <div aria-busy="true" />
  return <Card detail={found.data} currency={currency} />
}

function Card({ detail, currency }: { detail: IngredientDetail; currency: string }) {
  const { entry } = detail
  const save = useSaveValues(entry.ingredient)
  const keep = (change: Partial<KitchenValues>) => save.mutate({ ...entry.kitchen, ...change })
  const pack = entry.kitchen.pack ?? detail.table_pack
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-start gap-x-3 gap-y-2">
        <div className="min-w-0 flex-1">
          <h2 className="text-display leading-tight">{unbroken(entry.name)}</h2>
          <p className="text-ink2">
            {entry.also.length > 0
              ? `Also ${entry.also.slice(0, 6).join(', ')}.`
              : `On the ${entry.group} shelf.`}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          {entry.own && <LinkButton to={`/pantry/${entry.ingredient}?edit`}>Change it</LinkButton>}
          <LinkButton to={`/pantry/new?copy=${entry.ingredient}`}>Make a copy</LinkButton>
          <Button className="px-3" onClick={() => keep({ archived: !entry.kitchen.archived })}>
            {entry.kitchen.archived ? 'Take out again' : 'Put away'}
          </Button>
        </div>
      </div>
      <PhaseBar detail={detail} />
      <div className="grid grid-cols-[minmax(0,1fr)_280px] gap-6 max-laptop:grid-cols-1">
        <table className="w-full text-left">
          <thead>
            <tr className="border-b border-line text-small text-ink2">
              <th scope="col" className="py-1 font-[450]">
                In 100 g
              </th>
              <th scope="col" className="py-1 text-right font-[450]">
                g
              </th>
              <th scope="col" className="py-1 pl-4 font-[450]">
                how we know
              </th>
            </tr>
          </thead>
          <tbody>
            {detail.constituents.map((each) => (
              <tr key={each.part} className="border-b border-line align-baseline">
                <th scope="row" className="py-1 pr-2 font-[560]">
                  {each.name}
                </th>
                <td className="py-1 text-right text-lead font-[680]">
                  {fixed(each.percent, each.percent < 10 ? 2 : 1)}
                </td>
                <td className="py-1 pl-4 text-small leading-tight text-ink2">{each.source}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <div className="flex flex-col gap-4">
          {detail.solid_fat_percent && <SolidFat percents={detail.solid_fat_percent} />}
          <section aria-label="Whom it hurts" className="flex flex-col gap-1">
            <h3 className="font-head text-lead font-[640]">Whom it hurts</h3>
            <p>
              {entry.allergens.length > 0 ? (
                <b>{entry.allergens.join(', ')}.</b>
              ) : (
                'No allergen of the lists.'
              )}{' '}
              <span className="text-ink2">Check your own label.</span>
            </p>
            <p className="text-note text-ink2">
              Of {detail.origins.join(' and ') || 'unknown origin'}; {diets(detail)}.
            </p>
          </section>
        </div>
      </div>
      <section
        aria-label="In this kitchen"
        className="flex flex-wrap items-end gap-x-5 gap-y-2 border-t border-line pt-3"
      >
        <h3 className="w-full font-head text-lead font-[640]">In this kitchen</h3>
        <NumberField
          label="A pack weighs"
          unit="g"
          min={1}
          max={1_000_000}
          step={50}
          value={pack?.pack_g ?? 1000}
          onCommit={(pack_g) => keep({ pack: { pack_g, pack_price: pack?.pack_price ?? 0 } })}
        />
        <NumberField
          label="and costs"
          unit={currency}
          min={0}
          max={1_000_000}
          step={0.1}
          value={pack?.pack_price ?? 0}
          onCommit={(pack_price) => keep({ pack: { pack_g: pack?.pack_g ?? 1000, pack_price } })}
        />
        <p className="pb-1">
          {entry.price_per_kg != null && <b>{price(entry.price_per_kg, currency)}</b>} a kilo
          <span className="block text-small text-ink2">
            {entry.kitchen.pack ? 'your price' : 'assumed: write your own'}
          </span>
        </p>
        <NumberField
          label="Density as poured or scooped"
          unit="g/ml"
          min={0.05}
          max={3}
          step={0.01}
          value={entry.kitchen.density_g_per_ml ?? rounded(entry.table_density_g_per_ml)}
          onCommit={(density_g_per_ml) => keep({ density_g_per_ml })}
        />
        <p className="pb-1 text-small text-ink2">
          {entry.kitchen.density_g_per_ml != null
            ? 'your own'
            : (entry.table_density_source ?? 'not in the tables')}
          {entry.table_pieces.map((piece) => (
            <span key={piece.unit + piece.source} className="block">
              1 {piece.unit} = {piece.weight_g} g
            </span>
          ))}
        </p>
      </section>
      {save.isError && (
        <p role="alert" className="text-hot">
          Not saved: {save.error instanceof ProblemError ? save.error.problem.detail : save.error.message}
        </p>
      )}
      <section aria-label="Where it is used" className="border-t border-line pt-3">
        <h3 className="font-head text-lead font-[640]">
          {detail.used_in.length === 0
            ? 'In no formula yet'
            : `In ${detail.used_in.length} ${detail.used_in.length === 1 ? 'formula' : 'formulas'}`}
        </h3>
        <p className="flex flex-wrap gap-x-3 gap-y-1">
          {detail.used_in.map((each) => (
            <Link key={each.id} className="text-rim underline" to={`/bench/${each.id}`}>
              {each.name}
            </Link>
          ))}
        </p>
      </section>
    </div>
  )
}

function LinkButton({ to, children }: { to: string; children: string }) {
  return (
    <Link
      to={to}
      className="inline-flex min-h-9 items-center rounded-tray border-2 border-rim px-3 font-[640] text-rim hover:bg-rim-tint pointer-coarse:min-h-11"
    >
      {children}
    </Link>
  )
}

function rounded(value: number | null | undefined): number {
  return Math.round((value ?? 1) * 1000) / 1000
}

function diets({ diet }: IngredientDetail): string {
  const words = [
    diet.vegan ? 'vegan' : diet.vegetarian ? 'vegetarian' : 'not vegetarian',
    diet.no_pork ? 'no pork' : 'pork',
    diet.no_alcohol ? 'no alcohol' : 'alcohol',
  ]
  return words.join(', ')
}

/** The balance of one ingredient, with its words inside. */
function PhaseBar({ detail }: { detail: IngredientDetail }) {
  const shares = detail.entry.phases_percent
  const words = PHASES.filter((phase) => shares[phase] > 0.05)
    .map((phase) => `${PHASE_WORD[phase]} ${fixed(shares[phase], 1)} %`)
    .join(', ')
  return (
    <svg viewBox="0 0 600 46" className="block w-full" role="img" aria-label={`In 100 g: ${words}`}>
      {stacked(shares, 5.98).map(({ phase, start, size }) =>
        size > 0 ? (
          <g key={phase}>
            <rect
              x={1 + start}
              y={1}
              width={Math.max(1.5, size)}
              height={44}
              fill={phaseFill(phase)}
              stroke="var(--ink)"
            />
            {size > 92 && (
              <>
                <rect
                  x={start + 9}
                  y={11}
                  width={PHASE_WORD[phase].length * 8.4 + 46}
                  height={24}
                  rx={3}
                  fill={`var(--${phase})`}
                />
                <text
                  x={start + 14}
                  y={28}
                  fontSize={15}
                  fill={phase === 'dry' || phase === 'setting' ? '#fff' : 'var(--phase-text)'}
                >
                  {PHASE_WORD[phase]} <tspan fontWeight={700}>{fixed(shares[phase], 1)}</tspan>
                </text>
              </>
            )}
          </g>
        ) : null,
      )}
      <rect x={1} y={1} width={598} height={44} rx={4} fill="none" stroke="var(--ink)" strokeWidth={1.6} />
    </svg>
  )
}
