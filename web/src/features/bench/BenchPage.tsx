import { useMemo, useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import type { Component, FormulaDocument, Kitchen } from '../../api/client'
import { ProblemError } from '../../api/client'
import { Button } from '../../ui/Button'
import { readDraft, same } from '../../lib/draft'
import { useFamilies } from '../../lib/families'
import { useKitchen } from '../kitchen/queries'
import { Bench } from './Bench'
import { useComponent } from './queries'

/** Loads what the address names and puts it on the Bench, with unsaved work on top. */
export function BenchPage() {
  const { id = 'new' } = useParams()
  const [asked] = useSearchParams()
  return id === 'new' ? <NewBench key={asked.toString()} /> : <SavedBench key={id} id={id} />
}

function NewBench() {
  const kitchen = useKitchen()
  const families = useFamilies()
  const [asked] = useSearchParams()
  const family = families.data?.find((each) => each.family === asked.get('family')) ?? families.data?.[0]
  const job = family?.jobs.find((each) => each.word === asked.get('job')) ?? family?.jobs[0]
  if (kitchen.isError || families.isError) {
    return <NotThere words="The kitchen cannot be read." again={() => void kitchen.refetch()} />
  }
  if (!kitchen.data || !job) return <div className="tray flex-1" aria-busy="true" />
  const saved = begun(kitchen.data, job.start)
  // A family chosen by name opens with its formula; a bare address with an empty bowl.
  return (
    <Opened
      id="new"
      basedOn={0}
      saved={asked.has('family') ? saved : { ...saved, lines: [] }}
      fresh={asked.has('family')}
    />
  )
}

function SavedBench({ id }: { id: string }) {
  const component = useComponent(id)
  const families = useFamilies()
  if (component.isError) {
    const gone = component.error instanceof ProblemError && component.error.problem.status === 404
    const draft = readDraft<FormulaDocument>(id, 'bright-spoon/formula')
    if (!gone && draft) return <Opened id={id} basedOn={draft.basedOn} saved={draft.document} />
    return (
      <NotThere
        words={gone ? 'There is no formula at this address.' : component.error.message}
        again={() => void component.refetch()}
      />
    )
  }
  if (!component.data || !families.data) return <div className="tray flex-1" aria-busy="true" />
  return <SavedOpened component={component.data} />
}

function SavedOpened({ component }: { component: Component }) {
  return <Opened id={component.id} basedOn={component.revision} saved={component.document} />
}

interface OpenedProps {
  id: string
  basedOn: number
  saved: FormulaDocument
  /** A formula begun on purpose: unsaved work of an earlier new one stays where it is. */
  fresh?: boolean
}

function Opened({ id, basedOn, saved, fresh = false }: OpenedProps) {
  // What was open at the first look stays: a refetch must not pour over work in hand.
  const [start] = useState({ id, basedOn, saved })
  const draft = useMemo(() => {
    const found = fresh ? null : readDraft<FormulaDocument>(start.id, 'bright-spoon/formula')
    return found && !same(found.document, start.saved) ? found : null
  }, [start, fresh])
  return (
    <Bench
      id={start.id}
      saved={start.saved}
      basedOn={draft ? draft.basedOn : start.basedOn}
      document={draft ? draft.document : start.saved}
      draftFrom={draft?.at ?? null}
    />
  )
}

function NotThere({ words, again }: { words: string; again: () => void }) {
  return (
    <div className="tray flex-1 p-8">
      <h1 className="text-[30px] text-hot">Nothing to put on the Bench</h1>
      <p className="mt-2">{words}</p>
      <div className="mt-4 flex gap-3">
        <Button look="primary" onClick={again}>
          Try again
        </Button>
        <Link className="inline-flex items-center px-3 font-[640] text-rim underline" to="/">
          Open what was saved last
        </Link>
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
