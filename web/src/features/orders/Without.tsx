import type { Without as WithoutValue } from '../../api/client'
import { Tick } from '../../ui/Tick'
import { useWords } from '../../lib/words'

interface WithoutProps {
  value: WithoutValue
  onChange: (value: WithoutValue) => void
}

const DIETS = [
  ['animals', 'Nothing of animals'],
  ['meat', 'Nothing of dead animals'],
  ['pork', 'Nothing of pigs'],
  ['alcohol', 'No alcohol'],
] as const

/** What must not be in the order. */
export function Without({ value, onChange }: WithoutProps) {
  const allergens = value.allergens ?? []
  const words = useWords()
  const more = allergens.filter((each) => !words.allergens.includes(each))
  const tick = (label: string, checked: boolean, onTick: (checked: boolean) => void) => (
    <Tick key={label} checked={checked} onChange={onTick}>
      {label}
    </Tick>
  )
  return (
    <fieldset>
      <legend className="font-head text-title font-[720]">Must not be in it</legend>
      <div className="mt-1 flex flex-wrap gap-x-6">
        {DIETS.map(([key, word]) =>
          tick(word, value[key] ?? false, (checked) => onChange({ ...value, [key]: checked })),
        )}
      </div>
      <div className="mt-1 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-4">
        {[...words.allergens, ...more].map((word) =>
          tick(word, allergens.includes(word), (checked) =>
            onChange({
              ...value,
              allergens: checked ? [...allergens, word] : allergens.filter((each) => each !== word),
            }),
          ),
        )}
      </div>
    </fieldset>
  )
}
