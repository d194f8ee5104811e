import { useState } from 'react'
import { asking, useQuestion } from '../../api/ask'
import type { OverpourWay } from '../../api/client'
import { unbroken } from '../../lib/format'
import { useIngredients } from '../../lib/ingredients'
import { madeEntries } from '../../lib/madeHere'
import { useComponents } from '../library/queries'
import type { InWork } from './desk'

/** A line poured past its mark: leave it, bring it back, or scale the batch. */
export function OverpourView({ work }: { work: InWork }) {
  const { document } = work
  const pantry = useIngredients('', true)
  const components = useComponents()
  const entries = [...(pantry.data ?? []), ...madeEntries(document, components.data ?? [])]
  const names = new Map(entries.map((entry) => [entry.ingredient, entry.name]))
  const [line, setLine] = useState<number | null>(null)
  const [typed, setTyped] = useState('')
  const poured = typed.trim()
  const ask = { document, line: line ?? 0, poured }
  const { found, wrong, current } = useQuestion(
    asking('post', '/api/overpour', { body: ask }),
    line !== null && poured !== '',
  )
  const shown = line !== null && poured !== '' ? found : undefined
  return (
    <div className="flex flex-col gap-4">
      <h2 className="text-head">Which line went over?</h2>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(250px,1fr))] gap-3">
        {document.lines.map((each, at) => (
          <li key={at}>
            <button
              type="button"
              aria-pressed={line === at}
              className={`flex min-h-16 w-full items-center justify-between gap-3 rounded-xl border-2 px-4 py-3 text-left text-title ${
                line === at ? 'border-rim bg-rim-tint' : 'border-line2 hover:bg-rim-tint'
              }`}
              onClick={() => setLine(at)}
            >
              <span className="min-w-0">{unbroken(names.get(each.ingredient) ?? each.ingredient)}</span>
              <b className="whitespace-nowrap">{each.amount}</b>
            </button>
          </li>
        ))}
      </ul>
      {line !== null && (
        <label className="flex flex-wrap items-center gap-3 text-title font-[640]">
          What really went in
          <input
            autoComplete="off"
            placeholder="212 g"
            className="min-h-14 w-40 rounded-xl border-2 border-line2 bg-enamel px-3 text-head font-[720]"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
      )}
      {wrong && (
        <p role="alert" className="text-title text-hot">
          {wrong}
        </p>
      )}
      {shown && (
        <div className={current ? '' : 'opacity-60'}>
          <p className="mb-3 text-title font-[640]">{unbroken(shown.sentence)}</p>
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-4">
            <Card way={shown.leave} word="As it is" onUse={work.use} />
            {shown.restore.map((way) => (
              <Card key={way.title} way={way} word="Bring it back" onUse={work.use} />
            ))}
            {shown.scale && <Card way={shown.scale} word="More of the same" onUse={work.use} />}
          </ul>
        </div>
      )}
    </div>
  )
}

function Card({ way, word, onUse }: { way: OverpourWay; word: string; onUse: InWork['use'] }) {
  return (
    <li className="flex flex-col gap-2 rounded-2xl border-2 border-rim p-4">
      <span className="text-ink2">{word}</span>
      <h3 className="text-head leading-tight font-[720] first-letter:uppercase">{unbroken(way.title)}</h3>
      {way.additions.length > 1 && (
        <ul>
          {way.additions.map((added) => (
            <li key={added.ingredient}>
              <b>{added.grams.toLocaleString('en', { maximumFractionDigits: 1 })} g</b> {unbroken(added.name)}
            </li>
          ))}
        </ul>
      )}
      <p className="first-letter:uppercase">{way.differs}.</p>
      <p className={way.inside ? 'font-[640]' : 'font-[640] text-hot'}>{way.headline}.</p>
      <button
        type="button"
        className="mt-auto min-h-12 rounded-xl border-2 border-rim px-4 text-lead font-[640] text-rim hover:bg-rim-tint"
        onClick={() => onUse(way.document)}
      >
        Do this
      </button>
    </li>
  )
}
