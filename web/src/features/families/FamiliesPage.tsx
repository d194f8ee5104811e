import { Link } from 'react-router'
import { Unsaved } from '../../desk/Unsaved'
import { useFamilies } from '../../lib/families'
import { useTitle } from '../../lib/hooks'
import { NotRead } from '../../ui/NotRead'

/** What would you like to make? Every family, with a formula to start with for each of its jobs. */
export function FamiliesPage() {
  const families = useFamilies()
  useTitle('New formula')
  if (families.isError) {
    return <NotRead title="The families cannot be read" error={families.error} onAgain={families.refetch} />
  }
  const all = families.data ?? []
  const groups = [...new Set(all.map((each) => each.group))]
  return (
    <div className="tray flex flex-1 flex-col gap-3 px-6 pt-4 pb-5 max-phone:px-4">
      <h1 className="text-display leading-tight">What will you make?</h1>
      <p className="text-ink2">
        Pick what it is to do: it opens with a formula that does it. Or start with{' '}
        <Link className="font-[640] text-rim underline" to="/bench/new">
          an empty bowl
        </Link>
        .
      </p>
      <Unsaved noun="formula" />
      <div className="columns-3 gap-8 max-narrow:columns-2 max-phone:columns-1">
        {groups.map((group) => {
          const members = all.filter((each) => each.group === group)
          return (
            <section
              key={group}
              aria-label={members[0]?.group_word}
              className="mb-4 break-inside-avoid-column"
            >
              <h2 className="border-b-2 border-ink pb-0.5 text-title">
                {capital(members[0]?.group_word ?? '')}
              </h2>
              <ul>
                {members.map((family) => (
                  <li key={family.family} className="break-inside-avoid border-b border-line py-1.5">
                    <b>{capital(family.word)}</b>
                    <span className="block text-small leading-tight text-ink2">{family.about}</span>
                    <span className="mt-0.5 flex flex-wrap gap-x-3">
                      {family.jobs.map((job) => (
                        <Link
                          key={job.word}
                          to={`/bench/new?family=${family.family}&job=${job.word}`}
                          aria-label={`${shown(job.word)}: ${family.word} to ${job.verb}`}
                          className="inline-flex min-h-7 items-center font-[640] text-rim underline pointer-coarse:min-h-11"
                        >
                          {shown(job.word)}
                        </Link>
                      ))}
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          )
        })}
      </div>
    </div>
  )
}

/** A job as the page writes it. */
function shown(word: string): string {
  return word === 'nappe' ? 'coat a spoon' : word
}

function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1)
}
