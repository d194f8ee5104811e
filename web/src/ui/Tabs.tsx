import { Tabs as Parts } from 'radix-ui'
import type { ReactNode } from 'react'

interface TabsProps<T extends string> {
  label: string
  value: T
  onChange: (value: T) => void
  tabs: readonly { key: T; words: string; content: ReactNode; className?: string }[]
}

/** Several panes, one of them shown. */
export function Tabs<T extends string>({ label, value, onChange, tabs }: TabsProps<T>) {
  const turn = (key: string) => {
    const chosen = tabs.find((tab) => tab.key === key)
    if (chosen) onChange(chosen.key)
  }
  return (
    <Parts.Root className="flex min-h-0 flex-col" value={value} onValueChange={turn}>
      <Parts.List aria-label={label} className="mb-1 flex gap-1 border-b border-line">
        {tabs.map((tab) => (
          <Parts.Trigger
            key={tab.key}
            value={tab.key}
            className="min-h-10 rounded-t-lg border-b-[3px] border-transparent px-3 font-head text-lead font-[640] text-ink2 data-[state=active]:border-rim data-[state=active]:text-ink pointer-coarse:min-h-11"
          >
            {tab.words}
          </Parts.Trigger>
        ))}
      </Parts.List>
      {tabs.map((tab) => (
        <Parts.Content key={tab.key} value={tab.key} className={tab.className}>
          {tab.content}
        </Parts.Content>
      ))}
    </Parts.Root>
  )
}
