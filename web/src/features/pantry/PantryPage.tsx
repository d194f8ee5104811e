import { useEffect, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { SETTLE_MS } from '../../api/ask'
import { price, unbroken } from '../../lib/format'
import { useSettled, useTitle } from '../../lib/hooks'
import { newId } from '../../desk/tabs'
import { Unsaved } from '../../desk/Unsaved'
import { useIngredients } from '../../lib/ingredients'
import { Button } from '../../ui/Button'
import { PHASE_WORD, PHASES, phaseFill, TinyBar } from '../../ui/phases'
import { useKitchen } from '../kitchen/queries'
import { IngredientCard } from './IngredientCard'
import { IngredientForm } from './IngredientForm'
import { PantryFiles } from './PantryFiles'
import { useKeys } from '../../lib/keys'
import { TextField } from '../../ui/TextField'
import { Select } from '../../ui/Select'
import { Tick } from '../../ui/Tick'
import { useWords } from '../../lib/words'

/** Every ingredient of the kitchen, and one of them whole. */
export function PantryPage() {
  const { key } = useParams()
  const [asked] = useSearchParams()
  const navigate = useNavigate()
  const kitchen = useKitchen()
  const [typed, setTyped] = useState('')
  const [shelf, setShelf] = useState('')
  const { shelves } = useWords()
  const [away, setAway] = useState(false)
  const [files, setFiles] = useState(false)
  const sought = useSettled(typed.trim(), SETTLE_MS)
  const ingredients = useIngredients(sought, away)
  // What stands in the list answers an older question until this one is answered.
  const seeking = sought !== typed.trim() || (!ingredients.current && !ingredients.isError)
  const shown = (ingredients.data ?? []).filter((each) => !shelf || each.group === shelf)
  const currency = kitchen.data?.currency ?? ''
  useTitle(
    key && key !== 'new'
      ? `${ingredients.data?.find((each) => each.ingredient === key)?.name ?? 'Ingredient'}, Pantry`
      : 'Pantry',
  )
  const form = key === 'new' || asked.has('edit')
  const unnamed = key === 'new' && !asked.has('draft')
  useEffect(() => {
    if (!unnamed) return
    // Something new has a name for its draft from the first moment: Back and a reload find it again.
    const next = new URLSearchParams(asked)
    next.set('draft', newId())
    void navigate(`/pantry/new?${next.toString()}`, { replace: true })
  }, [unnamed, asked, navigate])

  useKeys('Pantry', [
    {
      key: '/',
      words: 'Find an ingredient',
      run: () => window.document.getElementById('find-ingredient')?.focus(),
    },
  ])

  return (
    <div className="tray grid flex-1 grid-cols-[minmax(0,520px)_minmax(0,1fr)] gap-x-8 px-6 pt-4 pb-4 max-tablet:grid-cols-1 max-phone:px-4">
      <section
        aria-label="Shelf"
        className={`flex min-h-0 flex-col gap-2 border-r border-line pr-8 max-tablet:border-0 max-tablet:pr-0 ${
          key ? 'max-tablet:order-2' : ''
        }`}
      >
        <div className="flex flex-wrap items-center gap-2">
          <h1 className="mr-auto text-display leading-tight">Pantry</h1>
          <Button className="px-3" onClick={() => setFiles(true)}>
            Files
          </Button>
          <Button className="px-3" onClick={() => void navigate('/pantry/new')}>
            Add from a label
          </Button>
        </div>
        <Unsaved noun="ingredient" />
        <ul aria-label="What the colours are" className="flex flex-wrap gap-x-3 gap-y-1 text-small">
          {PHASES.map((phase) => (
            <li key={phase} className="flex items-center gap-1.5">
              <svg width="22" height="14" aria-hidden="true">
                <rect
                  x="0.5"
                  y="0.5"
                  width="21"
                  height="13"
                  rx="2"
                  fill={phaseFill(phase)}
                  stroke="var(--ink)"
                />
              </svg>
              {phase === 'dry' ? 'Cocoa & dry' : PHASE_WORD[phase]}
            </li>
          ))}
        </ul>
        <div className="flex flex-wrap items-center gap-2">
          <TextField
            inline
            id="find-ingredient"
            label="Find an ingredient"
            type="search"
            placeholder="Any name: double cream, caster…"
            className="min-w-48 flex-1"
            value={typed}
            onChange={setTyped}
          />
          <Select
            inline
            label="Shelf"
            value={shelf}
            onChange={setShelf}
            options={[['', 'every shelf'], ...shelves.map((each) => [each, each] as const)]}
          />
          <Tick className="text-note text-ink2" checked={away} onChange={setAway}>
            put away too
          </Tick>
        </div>
        {ingredients.isError && (
          <p className="text-hot">The pantry cannot be read: {ingredients.error?.message}</p>
        )}
        {ingredients.data && shown.length === 0 && (
          <p className="py-4 text-ink2">
            Nothing answers to “{typed.trim()}”.{' '}
            <Link className="font-[640] text-rim underline" to="/pantry/new">
              Add it from its label
            </Link>
          </p>
        )}
        <ul
          aria-label="Ingredients"
          aria-busy={seeking}
          className="max-h-[calc(100vh-260px)] min-h-40 overflow-y-auto border-t border-line max-tablet:max-h-[60vh]"
        >
          {shown.map((each) => (
            <li key={each.ingredient} className="border-b border-line">
              <Link
                to={`/pantry/${each.ingredient}`}
                aria-current={each.ingredient === key ? 'true' : undefined}
                className={`grid min-h-10 grid-cols-[minmax(0,1fr)_120px_104px] items-center gap-3 px-2 py-0.5 pointer-coarse:min-h-11 ${
                  each.ingredient === key ? 'bg-rim-tint font-[680]' : 'hover:bg-rim-tint'
                }`}
              >
                <span className="min-w-0 leading-tight">
                  <span className="block truncate">
                    {unbroken(each.name)}
                    {each.own && <span className="text-small font-[450] text-ink2"> own</span>}
                    {each.kitchen.archived && (
                      <span className="text-small font-[450] text-ink2"> put away</span>
                    )}
                  </span>
                </span>
                <TinyBar shares={each.phases_percent} full={100} width={120} height={15} />
                <span className="text-right text-note">
                  {each.price_per_kg != null && (
                    <>
                      {price(each.price_per_kg, '')}
                      <span className="text-[12.5px] font-[450] text-ink2">{currency}/kg</span>
                    </>
                  )}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="Ingredient" className="min-w-0 max-tablet:pb-4">
        {unnamed ? (
          <div aria-busy="true" />
        ) : form ? (
          <IngredientForm
            key={`${key ?? ''} ${asked.toString()}`}
            from={key === 'new' ? asked.get('copy') : (key ?? null)}
            edit={asked.has('edit')}
          />
        ) : key ? (
          <IngredientCard key={key} ingredient={key} currency={currency} />
        ) : (
          <div className="pt-10 text-ink2">
            <p className="font-head text-title text-ink">Pick an ingredient</p>
            <p className="mt-1 max-w-md">
              What it is made of, where each number is from, what a cup of it weighs, whom it hurts, and what
              it costs here.
            </p>
          </div>
        )}
      </section>
      {files && <PantryFiles onClose={() => setFiles(false)} />}
    </div>
  )
}
