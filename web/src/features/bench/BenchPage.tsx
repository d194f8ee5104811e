import { useCallback, useState } from 'react'
import { Link, Navigate, useLocation, useNavigate, useParams, useSearchParams } from 'react-router'
import type { FormulaDocument, Kitchen } from '../../api/client'
import { ProblemError } from '../../api/client'
import { useCarried } from '../../desk/session'
import { newId } from '../../desk/tabs'
import { Unsaved } from '../../desk/Unsaved'
import { useOpened } from '../../desk/useOpened'
import type { Looked } from '../../desk/useOpened'
import { useFamilies } from '../../lib/families'
import { Button } from '../../ui/Button'
import { useKitchen } from '../kitchen/queries'
import { Bench } from './Bench'
import { useComponent } from './queries'

/** Loads what the address names and puts it on the Bench, with unsaved work on top. */
export function BenchPage() {
  const { id = 'new' } = useParams()
  const [asked] = useSearchParams()
  const { session } = useCarried()
  const draft = asked.get('draft')
  // Something new has a name for its draft from the first moment: it is found again by Back and by a reload.
  if (id === 'new' && !draft) return <NamedStart />
  return id === 'new' || session !== undefined ? (
    <OnBench key={session ?? draft} id={id} draft={draft} />
  ) : (
    <OnBench key={`${id} ${draft ?? ''}`} id={id} draft={draft} />
  )
}

function NamedStart() {
  const [asked] = useSearchParams()
  const { state } = useLocation() as { state: unknown }
  const [named] = useState(() => {
    const next = new URLSearchParams(asked)
    next.set('draft', newId())
    return next.toString()
  })
  return <Navigate to={`/bench/new?${named}`} replace state={state} />
}

/** What the kitchen's file has under an address, or what a new formula begins with. */
function useLooked(id: string): Looked<FormulaDocument> {
  const isNew = id === 'new'
  const kitchen = useKitchen()
  const families = useFamilies()
  const component = useComponent(id, !isNew)
  const [asked] = useSearchParams()
  const family = families.data?.find((each) => each.family === asked.get('family')) ?? families.data?.[0]
  const job = family?.jobs.find((each) => each.word === asked.get('job')) ?? family?.jobs[0]
  if (isNew) {
    if (kitchen.isError || families.isError) {
      const again = () => {
        void kitchen.refetch()
        void families.refetch()
      }
      return { wrong: 'The kitchen cannot be read.', gone: false, again }
    }
    if (!kitchen.data || !job) return null
    const start = begun(kitchen.data, job.start)
    // A family chosen by name opens with its formula; a bare address with an empty bowl.
    const first = asked.has('family') ? start : { ...start, lines: [] }
    return { saved: null, begun: first, basedOn: 0 }
  }
  if (component.isError) {
    const gone = component.error instanceof ProblemError && component.error.problem.status === 404
    const wrong = gone ? 'There is no formula at this address.' : (component.error?.message ?? '')
    return { wrong, gone, again: () => void component.refetch() }
  }
  if (!component.data || !families.data) return null
  return { saved: component.data.document, begun: null, basedOn: component.data.revision }
}

function OnBench({ id, draft: named }: { id: string; draft: string | null }) {
  const navigate = useNavigate()
  const { session } = useCarried()
  // What was open at the first look stays: its own first save changes the address under it.
  const [first] = useState(id)
  const thing = first === 'new' ? null : first
  const { opened, wrong } = useOpened('formula', thing, named, useLooked(first))
  const onBorn = useCallback(
    (born: string) =>
      void navigate(`/bench/${born}`, {
        replace: thing === null,
        state: { session: session ?? named ?? born },
      }),
    [navigate, thing, session, named],
  )
  if (opened) return <Bench opened={opened} onBorn={onBorn} />
  if (wrong) return <NotThere words={wrong.words} again={wrong.again} />
  return <div className="tray flex-1" aria-busy="true" />
}

function NotThere({ words, again }: { words: string; again: () => void }) {
  return (
    <div className="tray flex-1 p-8">
      <h1 className="text-display text-hot">Nothing to put on the Bench</h1>
      <p className="mt-2">{words}</p>
      <div className="mt-4 flex gap-3">
        <Button look="primary" onClick={again}>
          Try again
        </Button>
        <Link className="inline-flex items-center px-3 font-[640] text-rim underline" to="/">
          Open what was saved last
        </Link>
      </div>
      <div className="mt-6 max-w-3xl">
        <Unsaved noun="formula" />
      </div>
    </div>
  )
}

/** A starting formula in this kitchen: its cups, its room. */
function begun(kitchen: Kitchen, start: FormulaDocument): FormulaDocument {
  return {
    ...start,
    measures: kitchen.measures,
    work: { ...start.work, room_temperature_c: kitchen.room_temperature_c },
  }
}
