import { useState } from 'react'
import { useNavigate } from 'react-router'
import { faultWords } from '../../api/ask'
import { answer, api } from '../../api/client'
import type { BatchAsk } from '../../api/client'
import { weighed } from '../../lib/format'
import { Button } from '../../ui/Button'
import { beginBatch } from './queries'

interface MakeOfProps {
  /** Key of the formula in the library; with `@` and its number where it is held at a revision. */
  component: string
  /** What it is called. */
  name: string
  /** How much is weighed, g. */
  grams: number
  madeFor: NonNullable<BatchAsk['made_for']>
}

/** The formula as the library has it, at the revision it is held at. */
async function formulaOf(component: string) {
  const [id = '', held] = component.split('@')
  if (held === undefined) return answer(api.GET('/api/components/{id}', { params: { path: { id } } }))
  const path = { id, revision: Number(held) }
  return answer(api.GET('/api/components/{id}/revisions/{revision}', { params: { path } }))
}

/** Begins a batch of a formula of the library, as much as something takes of it. */
export function MakeOf({ component, name, grams, madeFor }: MakeOfProps) {
  const navigate = useNavigate()
  const [busy, setBusy] = useState(false)
  const [wrong, setWrong] = useState<string | null>(null)
  const begin = async () => {
    setBusy(true)
    setWrong(null)
    try {
      const own = await formulaOf(component)
      const begun = await beginBatch({
        formula: own.document,
        weigh_g: grams,
        component: own.id,
        revision: own.revision,
        made_for: madeFor,
      })
      void navigate(`/make/${begun.kept.id}`)
    } catch (error) {
      setWrong(faultWords(error))
      setBusy(false)
    }
  }
  return (
    <>
      <Button className="mt-1 px-3" disabled={busy} onClick={() => void begin()}>
        Make {weighed(grams)} g<span className="sr-only"> of {name}</span>
      </Button>
      {wrong && (
        <p role="alert" className="text-hot">
          {wrong}
        </p>
      )}
    </>
  )
}
