import { useCallback, useState } from 'react'
import { same } from '../../desk/same'
import { newId } from '../../desk/tabs'
import type { Brought } from '../../lib/brought'
import { broughtBy, withOtherKeys } from '../../lib/brought'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { readDocument, readVersion, useComponents } from './queries'

interface Asking {
  clashes: Brought[]
  answered: (which: 'ours' | 'theirs' | null) => void
}

/** The component's key, whatever version it is held at. */
function idOf(own: Brought): string {
  return own.key.split('@')[0] ?? own.key
}

/** What of a component is its own, without what it brings along. */
function bare({ components: _components, ingredients: _ingredients, ...own }: Brought['document']) {
  return own
}

/**
 * A file may bring components that this kitchen has by the same keys, and other than they are here: which to use is asked
 * once. None when the file is left.
 */
export function useWhichToUse() {
  const components = useComponents()
  const [asking, setAsking] = useState<Asking | null>(null)
  const kept = components.data
  const settle = useCallback(
    async <T,>(file: T): Promise<T | null> => {
      const here = broughtBy(file).filter((own) => kept?.some((each) => each.id === idOf(own)))
      const clashes: Brought[] = []
      for (const own of here) {
        const version = own.key.split('@')[1]
        const ours = await (version ? readVersion(idOf(own), version) : readDocument(own.key))
        if (ours && !same(bare(ours), bare(own.document))) clashes.push(own)
      }
      if (clashes.length === 0) return file
      const which = await new Promise<'ours' | 'theirs' | null>((answered) => {
        setAsking({ clashes, answered })
      })
      setAsking(null)
      if (which === null) return null
      if (which === 'ours') return file
      return withOtherKeys(file, new Map(clashes.map((own) => [idOf(own), newId()])))
    },
    [kept],
  )
  const sheet = asking && (
    <Sheet
      open
      onOpenChange={(open) => !open && asking.answered(null)}
      title={
        asking.clashes.length === 1
          ? `${asking.clashes[0]?.document.name ?? 'A formula'} is here already, and other than in the file`
          : `${asking.clashes.length} formulas are here already, and other than in the file`
      }
      lead="Which should be used for what was opened? Nothing that is saved here changes either way."
    >
      <ul className="list-disc pl-5">
        {asking.clashes.map((own) => (
          <li key={own.key}>{own.document.name || 'Without a name'}</li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        <Button look="primary" onClick={() => asking.answered('ours')}>
          Use this kitchen’s
        </Button>
        <Button onClick={() => asking.answered('theirs')}>Use the file’s, beside ours</Button>
        <Button look="quiet" onClick={() => asking.answered(null)}>
          Leave the file
        </Button>
      </div>
    </Sheet>
  )
  return { settle, sheet }
}
