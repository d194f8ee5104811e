import { useRef, useState } from 'react'
import type { BenchWork, Mend, OrderedCake, PartAnswer, StackAnswer, StackDocument } from '../../api/client'
import type { Edit } from '../../desk/history'
import { writeAll } from '../../lib/path'
import { pngOf, svgOf } from '../../lib/picture'
import { fileName, saveAs } from '../../lib/save'
import { Button } from '../../ui/Button'
import { BakesSheet } from './BakesSheet'
import { BuildList } from './BuildList'
import { CakeSheet } from './CakeSheet'
import { Drawing } from './Drawing'
import type { Known } from './Fields'
import { Findings } from './Findings'
import { ResizeSheet } from './ResizeSheet'
import { Selected } from './Selected'
import { Takes } from './Takes'
import { TopView } from './TopView'
import { Spoken } from '../../ui/Spoken'
import { Tabs } from '../../ui/Tabs'

interface CakeViewProps {
  cake: OrderedCake
  answer: StackAnswer | undefined
  room: number
  known: Known
  selected: string | null
  onSelect: (path: string | null) => void
  edit: Edit<StackDocument>
  /** Puts a component on the Bench: with the work of a place, or brought to a size. */
  onBench: (component: string, how?: { work: BenchWork['work'] } | { grams: number }) => void
  onCount: (count: number) => void
  onWhole: (form: 'json' | 'recipe') => void
}

type SheetName = 'cake' | 'bakes' | 'resize' | null

/** One cake: whether it stands, the cake to scale, what it takes, and how it is built. */
export function CakeView(props: CakeViewProps) {
  const { cake, answer, selected, onSelect, edit } = props
  const [view, setView] = useState<'side' | 'above'>('side')
  const [zoom, setZoom] = useState(1)
  const [tab, setTab] = useState<'takes' | 'build'>('takes')
  const [sheet, setSheet] = useState<SheetName>(null)
  const [failed, setFailed] = useState<string | null>(null)
  const drawing = useRef<SVGSVGElement>(null)
  const document = cake.stack
  const mend = (change: Mend) => {
    if (change.writes.length > 0) edit((own) => writeAll(own, change.writes))
  }
  const bench = (work: BenchWork) => props.onBench(work.component, { work: work.work })
  const sized = (part: PartAnswer) => props.onBench(part.key, { grams: part.to_make_g * cake.count })
  if (!answer) return <div className="min-h-[420px]" aria-busy="true" />
  const picture = async (kind: 'svg' | 'png') => {
    if (!drawing.current) return
    const name = fileName(document.name ?? '', 'cake')
    setFailed(null)
    try {
      if (kind === 'svg') saveAs(`${name}.svg`, 'image/svg+xml', svgOf(drawing.current))
      else saveAs(`${name}.png`, 'image/png', await pngOf(drawing.current))
    } catch (error) {
      setFailed(error instanceof Error ? error.message : 'The picture could not be drawn.')
    }
  }
  return (
    <div className="grid flex-1 grid-cols-[minmax(0,1fr)_392px] gap-x-6 gap-y-4 max-narrow:grid-cols-1">
      <section aria-label="The cake" className="flex min-w-0 flex-col">
        <Verdict answer={answer} document={document} edit={edit} />
        <Numbers answer={answer} count={cake.count} />
        <div className="mt-1 flex flex-wrap items-center gap-2">
          <div role="group" aria-label="View" className="flex">
            <Toggle on={view === 'side'} onClick={() => setView('side')}>
              From the side
            </Toggle>
            <Toggle on={view === 'above'} onClick={() => setView('above')}>
              From above
            </Toggle>
          </div>
          {view === 'side' && (
            <div role="group" aria-label="Size of the drawing" className="flex items-center gap-1">
              <Button
                className="min-w-9 px-2"
                aria-label="Smaller"
                disabled={zoom <= 1}
                onClick={() => setZoom(zoom / 1.5)}
              >
                −
              </Button>
              <Button
                className="min-w-9 px-2"
                aria-label="Larger"
                disabled={zoom >= 5}
                onClick={() => setZoom(zoom * 1.5)}
              >
                +
              </Button>
            </div>
          )}
          <span className="ml-auto flex flex-wrap gap-2">
            <Files onPicture={(kind) => void picture(kind)} onWhole={props.onWhole} drawn={view === 'side'} />
            <Button className="px-3" onClick={() => setSheet('resize')}>
              Size
            </Button>
            <Button className="px-3" onClick={() => setSheet('bakes')}>
              Bakes
            </Button>
            <Button className="px-3" onClick={() => setSheet('cake')}>
              Serving
            </Button>
          </span>
        </div>
        {failed && (
          <p role="alert" className="text-hot">
            {failed}
          </p>
        )}
        {view === 'side' ? (
          <Drawing
            ref={drawing}
            answer={answer}
            selected={selected}
            onSelect={onSelect}
            zoom={zoom}
            board={document.board_mm}
          />
        ) : (
          <TopView answer={answer} />
        )}
      </section>
      <aside className="flex min-w-0 flex-col gap-3 border-l border-line pl-6 max-narrow:border-0 max-narrow:pl-0">
        <section aria-label="What is selected" className="border-b-2 border-ink pb-3">
          <Selected
            answer={answer}
            document={document}
            selected={selected}
            onSelect={onSelect}
            known={props.known}
            edit={edit}
            onBench={(component) => props.onBench(component)}
          />
        </section>
        <Tabs
          label="Beside the drawing"
          value={tab}
          onChange={setTab}
          tabs={[
            {
              key: 'takes',
              words: 'What it takes',
              content: <Takes answer={answer} count={cake.count} onBench={sized} />,
            },
            {
              key: 'build',
              words: 'Build',
              className: 'max-h-105 overflow-y-auto max-narrow:max-h-none',
              content: (
                <BuildList
                  answer={answer}
                  document={document}
                  selected={selected}
                  onSelect={onSelect}
                  edit={edit}
                />
              ),
            },
          ]}
        />
        <Findings findings={answer.findings} onSelect={onSelect} onMend={mend} onBench={bench} />
      </aside>
      {sheet === 'cake' && (
        <CakeSheet
          document={document}
          count={cake.count}
          edit={edit}
          onCount={props.onCount}
          onClose={() => setSheet(null)}
        />
      )}
      {sheet === 'bakes' && <BakesSheet document={document} edit={edit} onClose={() => setSheet(null)} />}
      {sheet === 'resize' && (
        <ResizeSheet
          document={document}
          room={props.room}
          portions={answer.portions * cake.count}
          onUse={(next, pieces) => {
            edit(() => next)
            if (pieces > 1) props.onCount(pieces)
            setSheet(null)
          }}
          onClose={() => setSheet(null)}
        />
      )}
    </div>
  )
}

function Verdict({
  answer,
  document,
  edit,
}: {
  answer: StackAnswer
  document: StackDocument
  edit: Edit<StackDocument>
}) {
  return (
    <div>
      <input
        aria-label="Name of the cake"
        className="w-full rounded-md bg-transparent font-head text-lead font-[640] text-ink2 hover:bg-rim-tint focus:bg-enamel"
        maxLength={120}
        placeholder="Name of the cake"
        value={document.name ?? ''}
        onChange={(event) => edit((own) => ({ ...own, name: event.target.value }), 'name')}
      />
      <Spoken>
        <h1 className={`text-display leading-[1.08] ${answer.standing === 'trouble' ? 'text-hot' : ''}`}>
          {answer.headline}
        </h1>
        <p className="mt-0.5 min-h-[20px] text-ink2">{answer.detail}</p>
      </Spoken>
    </div>
  )
}

function Numbers({ answer, count }: { answer: StackAnswer; count: number }) {
  const kg = (grams: number) => (grams >= 1000 ? `${(grams / 1000).toFixed(1)} kg` : `${grams.toFixed(0)} g`)
  const numbers: [string, string][] = [
    [`${answer.height_mm.toFixed(0)} mm`, 'tall'],
    [kg(answer.finished_g), count > 1 ? 'each, finished' : 'finished'],
    ...(count > 1 ? [[`${count}`, 'of them'] as [string, string]] : []),
    [
      `${answer.portions * count}`,
      answer.portion_g === answer.finished_g ? 'portions' : `portions of ${answer.portion_g.toFixed(0)} g`,
    ],
    ...(answer.drips > 0 ? [[`${answer.drips}`, 'drips'] as [string, string]] : []),
  ]
  return (
    <p className="mt-1.5 flex flex-wrap gap-x-7 gap-y-1">
      {numbers.map(([number, word]) => (
        <span key={word} className="whitespace-nowrap">
          <b className="text-title font-[720]">{number}</b> <span className="text-ink2">{word}</span>
        </span>
      ))}
    </p>
  )
}

function Toggle({ on, onClick, children }: { on: boolean; onClick: () => void; children: string }) {
  return (
    <button
      type="button"
      aria-pressed={on}
      className={`min-h-9 border-2 border-rim px-3 font-[640] first:rounded-l-tray last:rounded-r-tray last:border-l-0 pointer-coarse:min-h-11 ${
        on ? 'bg-rim text-rim-text' : 'bg-enamel text-rim hover:bg-rim-tint'
      }`}
      onClick={onClick}
    >
      {children}
    </button>
  )
}

interface FilesProps {
  drawn: boolean
  onPicture: (kind: 'svg' | 'png') => void
  onWhole: (form: 'json' | 'recipe') => void
}

/** The cake as a file. */
function Files({ drawn, onPicture, onWhole }: FilesProps) {
  return (
    <select
      aria-label="Save the cake as a file"
      className="min-h-9 w-[112px] rounded-tray border-2 border-rim bg-enamel px-2 font-[640] text-rim pointer-coarse:min-h-11"
      value=""
      onChange={(event) => {
        const kind = event.target.value
        if (kind === 'svg' || kind === 'png') onPicture(kind)
        else if (kind === 'json' || kind === 'recipe') onWhole(kind)
      }}
    >
      <option value="">Save as…</option>
      {drawn && <option value="svg">Picture, SVG</option>}
      {drawn && <option value="png">Picture, PNG</option>}
      <option value="json">Cake with its formulas, JSON</option>
      <option value="recipe">Recipe, JSON-LD</option>
    </select>
  )
}
