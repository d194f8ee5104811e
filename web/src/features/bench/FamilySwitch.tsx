import { DropdownMenu } from 'radix-ui'
import type { FamilyEntry } from '../../api/client'
import { useFamilies, useFamily } from '../../lib/families'
import type { BenchDocument } from './document'

interface FamilySwitchProps {
  document: BenchDocument
  edit: (change: (document: BenchDocument) => BenchDocument, tag?: string) => void
}

/** The family under the name; opens to judge the same bowl as another. */
export function FamilySwitch({ document, edit }: FamilySwitchProps) {
  const families = useFamilies().data ?? []
  const now = useFamily(document.family)
  const groups = [...new Set(families.map((each) => each.group))]
  const choose = (next: FamilyEntry) =>
    edit((d) => {
      if (next.family === d.family) return d
      // The job stays when the new family has it; its state and settings are the new family's own.
      const same = next.jobs.find((each) => each.job.kind === d.work.job.kind)
      const start = (same ?? next.jobs[0])?.start
      if (!start) return d
      const { history: _history, pour_temperature_c: _pour, ...work } = d.work
      return {
        ...d,
        family: next.family,
        process: start.process ?? {},
        work: {
          ...work,
          job: same ? d.work.job : start.work.job,
          temperature_c: Math.min(next.hottest_c, work.temperature_c),
          ...(start.work.pour_temperature_c != null && {
            pour_temperature_c: start.work.pour_temperature_c,
          }),
        },
      }
    })
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={`Family: ${now?.word ?? document.family}`}
        className="shrink-0 rounded-md px-1.5 font-[640] text-rim underline decoration-dotted underline-offset-4 hover:bg-rim-tint pointer-coarse:min-h-11"
      >
        {now?.word ?? '…'}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="tray z-50 max-h-[76vh] w-[330px] overflow-y-auto p-3"
        >
          {groups.map((group) => {
            const members = families.filter((each) => each.group === group)
            return (
              <DropdownMenu.Group key={group}>
                <DropdownMenu.Label className="px-2 pt-2 text-small text-ink2">
                  {members[0]?.group_word}
                </DropdownMenu.Label>
                {members.map((each) => (
                  <DropdownMenu.Item
                    key={each.family}
                    onSelect={() => choose(each)}
                    className={`flex min-h-9 cursor-pointer items-center rounded-md px-2 outline-none data-[highlighted]:bg-rim-tint pointer-coarse:min-h-11 ${
                      each.family === document.family ? 'font-[680]' : ''
                    }`}
                  >
                    {each.word}
                  </DropdownMenu.Item>
                ))}
              </DropdownMenu.Group>
            )
          })}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}
