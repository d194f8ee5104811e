import { useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { ComponentSummary, FormulaDocument } from '../../api/client'
import { ProblemError } from '../../api/client'
import { Unsaved } from '../../desk/Unsaved'
import { useFamilies } from '../../lib/families'
import { Button } from '../../ui/Button'
import { LibraryRow } from './LibraryRow'
import { useWhichToUse } from './useWhichToUse'
import { lately, matches, readDocument, useComponents, useCreate, usePlace } from './queries'
import { useTitle } from '../../lib/hooks'
import { FilePick } from '../../ui/FilePick'
import { TextField } from '../../ui/TextField'
import { Select } from '../../ui/Select'
import { Tick } from '../../ui/Tick'
import { NotRead } from '../../ui/NotRead'

const MOST_COMPARED = 3

/** All formulas: find, tag, duplicate, put away, compare, and what was open lately. */
export function LibraryPage() {
  const components = useComponents()
  useTitle('Formulas')
  const families = useFamilies()
  const navigate = useNavigate()
  const create = useCreate()
  const place = usePlace()
  const which = useWhichToUse()
  const [typed, setTyped] = useState('')
  const [group, setGroup] = useState('')
  const [tag, setTag] = useState('')
  const [away, setAway] = useState(false)
  const [chosen, setChosen] = useState<string[]>([])
  const [said, setSaid] = useState<string | null>(null)

  const all = useMemo(() => components.data ?? [], [components.data])
  const groupOf = (each: ComponentSummary) =>
    families.data?.find((family) => family.family === each.family)?.group
  const shown = all.filter(
    (each) =>
      (away || !each.archived) &&
      matches(each, typed.trim()) &&
      (!group || groupOf(each) === group) &&
      (!tag || each.tags.includes(tag)),
  )
  const tags = [...new Set(all.filter((each) => !each.archived).flatMap((each) => each.tags))].sort()
  const groups = [...new Map(families.data?.map((family) => [family.group, family.group_word])).entries()]
  const recent = lately()
    .map((id) => all.find((each) => each.id === id))
    .filter((each) => each !== undefined)

  const tell = (error: unknown) =>
    setSaid(
      error instanceof ProblemError
        ? (error.problem.errors?.[0]?.message ?? error.problem.detail)
        : error instanceof Error
          ? error.message
          : 'something went wrong here; try again.',
    )
  const duplicate = async (each: ComponentSummary) => {
    try {
      const document = await readDocument(each.id)
      const made = await create.mutateAsync({ ...document, name: `${document.name}, copy`.slice(0, 120) })
      await navigate(`/bench/${made.id}`)
    } catch (error) {
      tell(error)
    }
  }
  const takeFile = async (picked: File) => {
    try {
      const document = await which.settle(JSON.parse(await picked.text()) as FormulaDocument)
      if (!document) return
      const made = await create.mutateAsync(document)
      await navigate(`/bench/${made.id}`)
    } catch (error) {
      if (error instanceof SyntaxError) setSaid(`${picked.name} is not JSON: pick a formula saved as a file.`)
      else tell(error)
    }
  }
  const choose = (id: string, on: boolean) =>
    setChosen((now) => (on ? [...now, id].slice(-MOST_COMPARED) : now.filter((other) => other !== id)))

  if (components.isError && !components.data) {
    return (
      <NotRead title="The formulas cannot be read" error={components.error} onAgain={components.refetch} />
    )
  }
  return (
    <div className="tray flex flex-1 flex-col gap-3 px-6 pt-4 pb-4 max-phone:px-4">
      {which.sheet}
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-display leading-tight">Formulas</h1>
        <p className="text-ink2">{components.data ? `${shown.length} of ${all.length}` : ''}</p>
        <div className="ml-auto flex flex-wrap gap-2">
          <Button
            look={chosen.length >= 2 ? 'primary' : 'plain'}
            disabled={chosen.length < 2}
            onClick={() => void navigate(`/compare?ids=${chosen.join(',')}`)}
          >
            {chosen.length >= 2 ? `Compare ${chosen.length} formulas` : 'Tick two or three to compare'}
          </Button>
          <FilePick
            label="Formula file"
            accept="application/json,.json"
            onPick={(picked) => void takeFile(picked)}
          >
            Open a file
          </FilePick>
          <Button
            look={chosen.length >= 2 ? 'plain' : 'primary'}
            hotkey="N"
            onClick={() => void navigate('/new')}
          >
            New formula
          </Button>
        </div>
      </div>
      {said && (
        <p role="alert" className="flex items-center gap-3 text-hot">
          Not done: {said}
          <Button look="quiet" className="min-h-7 px-2 py-0 underline" onClick={() => setSaid(null)}>
            Close
          </Button>
        </p>
      )}
      <Unsaved noun="formula" />
      <div className="flex flex-wrap items-center gap-2">
        <TextField
          inline
          label="Find a formula"
          type="search"
          placeholder="Find by name, family, job, tag"
          className="w-72"
          value={typed}
          onChange={setTyped}
        />
        <Select
          inline
          label="Family"
          value={group}
          onChange={setGroup}
          options={[['', 'every family'], ...groups]}
        />
        <Select
          inline
          label="Tag"
          value={tag}
          onChange={setTag}
          options={[['', 'every tag'], ...tags.map((each) => [each, each] as const)]}
        />
        <Tick className="text-ink2" checked={away} onChange={setAway}>
          also those put away
        </Tick>
      </div>
      {recent.length > 0 && (
        <p className="flex flex-wrap items-baseline gap-x-3 text-note">
          <span className="text-ink2">Lately on the Bench:</span>
          {recent.map((each) => (
            <Link key={each.id} to={`/bench/${each.id}`} className="font-[640] text-rim underline">
              {each.name}
            </Link>
          ))}
        </p>
      )}
      {components.data && shown.length === 0 ? (
        <p className="py-6 text-ink2">
          {all.length === 0
            ? 'Nothing is saved yet. Pick a cream and save it.'
            : 'Nothing answers to that. Loosen what you look for.'}
        </p>
      ) : (
        <ul aria-label="All formulas" className="border-t border-line">
          {shown.map((each) => (
            <LibraryRow
              key={each.id}
              component={each}
              tags={tags}
              chosen={chosen.includes(each.id)}
              onChoose={(on) => choose(each.id, on)}
              onDuplicate={() => void duplicate(each)}
              onPlace={(change) =>
                place.mutate(
                  { id: each.id, tags: each.tags, archived: each.archived, ...change },
                  { onError: tell },
                )
              }
            />
          ))}
        </ul>
      )}
    </div>
  )
}
