import { useState } from 'react'
import type { ListKind, OrderDocument } from '../../api/client'
import { fileName, saveAs } from '../../lib/save'
import { Button } from '../../ui/Button'
import { writeList } from './queries'

interface ListButtonsProps {
  document: OrderDocument
  lists: ListKind[]
}

const WORD: Record<ListKind, string> = {
  shopping: 'shopping list',
  weighing: 'weighing list',
  bill: 'bill of materials',
  labels: 'labels',
}

/** Prints what is on the page, or saves a list for a spreadsheet. */
export function ListButtons({ document, lists }: ListButtonsProps) {
  const [failed, setFailed] = useState<string | null>(null)
  const save = async (list: ListKind) => {
    setFailed(null)
    try {
      saveAs(
        `${fileName(document.name ?? '', 'order')}-${list}.csv`,
        'text/csv',
        await writeList(document, list),
      )
    } catch (error) {
      setFailed(error instanceof Error ? error.message : 'The list could not be written.')
    }
  }
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Button hotkey="P" onClick={() => window.print()}>
        Print
      </Button>
      {lists.map((list) => (
        <Button key={list} onClick={() => void save(list)}>
          Save {WORD[list]} as CSV
        </Button>
      ))}
      {failed && (
        <p role="alert" className="text-hot">
          {failed}
        </p>
      )}
    </div>
  )
}
