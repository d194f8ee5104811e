import { useState } from 'react'
import type { Assessment, ClockAnswer, FormulaDocument } from '../../api/client'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { Tabs } from '../../ui/Tabs'
import { Spoken } from '../../ui/Spoken'
import { BoilPane } from './BoilPane'
import type { ClockChoice } from './choice'
import { ClockFields } from './ClockFields'
import { CoolingChart } from './CoolingChart'
import { useClock } from './queries'

interface ClockSheetProps {
  document: FormulaDocument
  answer: Assessment | undefined
  choice: ClockChoice
  onChoice: (choice: ClockChoice) => void
  /** Takes a formula back to where it came from; none where nothing is changed from here. */
  onUse: ((document: FormulaDocument) => void) | null
  onClose: () => void
}

/** When it is right, set and cold enough: in its vessel, where that stands; and when to stop over a ring. */
export function ClockSheet(props: ClockSheetProps) {
  const [pane, setPane] = useState<'cool' | 'boil'>('cool')
  return (
    <Sheet open wide onOpenChange={(open) => !open && props.onClose()} title="Clock">
      <Tabs
        label="Clock"
        value={pane}
        onChange={setPane}
        tabs={[
          {
            key: 'cool',
            words: 'Cooling and setting',
            className: 'min-h-0 overflow-y-auto',
            content: <CoolPane {...props} />,
          },
          {
            key: 'boil',
            words: 'Over a ring',
            className: 'min-h-0 overflow-y-auto',
            content: <BoilPane document={props.document} onUse={props.onUse} />,
          },
        ]}
      />
    </Sheet>
  )
}

function CoolPane({ document, answer, choice, onChoice, onUse }: ClockSheetProps) {
  const clock = useClock(document, choice, document.lines.length > 0)
  const told = clock.answer
  return (
    <div className="grid grid-cols-[300px_minmax(0,1fr)] gap-x-8 gap-y-4 px-1 pt-1 pb-1 max-tablet:grid-cols-1">
      <div className="col-span-2 max-tablet:col-span-1">
        <Verdict told={told} wrong={clock.wrong} offline={clock.offline} />
      </div>
      <div className="max-tablet:order-2">
        <ClockFields
          choice={choice}
          told={told}
          document={document}
          faults={clock.faults}
          onChoice={onChoice}
        />
      </div>
      <div className="flex min-w-0 flex-col gap-3">
        {told && <CoolingChart told={told} answer={answer} at={choice.at} />}
        {told && <Sets told={told} document={document} onUse={onUse} />}
        <Sooner
          told={clock.full ?? (clock.wrong ? undefined : clock.before)}
          stale={!clock.full}
          choice={choice}
          onChoice={onChoice}
        />
        {told && <Kept told={told} />}
      </div>
    </div>
  )
}

interface VerdictProps {
  told: ClockAnswer | undefined
  wrong: string | null
  offline: boolean
}

function Verdict({ told, wrong, offline }: VerdictProps) {
  if (wrong) {
    return (
      <p role="alert" className="text-title font-[640] text-hot">
        {wrong}
      </p>
    )
  }
  if (!told) return <p aria-busy="true">{offline ? 'The kitchen does not answer.' : 'Following it…'}</p>
  const window = told.window
  const spread = window?.from.spread_words
  return (
    <div>
      {offline && (
        <p className="font-[640] text-hot">From before: it is worked out anew when the server answers.</p>
      )}
      <Spoken>
        <h3
          className={`font-head text-head leading-tight text-balance ${told.verdict === 'right' ? '' : 'text-hot'}`}
        >
          {told.sentence}
        </h3>
      </Spoken>
      <p className="text-ink2">
        {spread && <>It may begin {spread}, as the heat goes. </>}
        {sentence(told.vessel.words)}, {told.places}; from {told.start.c} °C, {told.start.how}. Meant is{' '}
        {told.point}.
      </p>
    </div>
  )
}

function Sets({
  told,
  document,
  onUse,
}: Pick<ClockSheetProps, 'document' | 'onUse'> & { told: ClockAnswer }) {
  const hours = told.set_hours
  const now = document.process?.set_hours ?? 17
  const differs = hours != null && Math.abs(hours - now) > 0.05 * now
  if (told.sets.length === 0 && told.notes.length === 0) return null
  return (
    <section aria-label="Setting" className="flex flex-col gap-1">
      {told.sets.map((own) => (
        <p key={own.stage} className={own.when ? '' : 'text-hot'}>
          <b className="font-[640]">{own.sentence}.</b>
        </p>
      ))}
      {differs && onUse && (
        <p className="flex flex-wrap items-center gap-3 text-ink2">
          By then it has set as in {hours} h at 10 °C; the formula counts {now} h.
          <Button
            onClick={() => onUse({ ...document, process: { ...(document.process ?? {}), set_hours: hours } })}
          >
            Judge it so
          </Button>
        </p>
      )}
      {told.notes.map((note) => (
        <p key={note.words} className={note.serious ? 'font-[640] text-hot' : 'text-ink2'}>
          {note.words}.
        </p>
      ))}
    </section>
  )
}

interface SoonerProps {
  told: ClockAnswer | undefined
  /** Of another question: the next is on its way. */
  stale: boolean
  choice: ClockChoice
  onChoice: (choice: ClockChoice) => void
}

function Sooner({ told, stale, choice, onChoice }: SoonerProps) {
  if (!told) return null
  const { gains, safe } = told
  return (
    <div className={stale ? 'opacity-60' : ''} aria-busy={stale}>
      {safe && (
        <section aria-label="Safe cooling" className="mb-3 border-t border-line pt-2">
          <p className={safe.stood === 'broken' ? 'font-[640] text-hot' : 'font-[640]'}>{safe.sentence}</p>
          {safe.deepest_mm != null && (
            <p className="text-ink2">
              There a tray may stand {safe.deepest_mm} mm deep, reckoned with the least the cold takes.
            </p>
          )}
          {safe.ways.map((way) => (
            <Row
              key={way.words}
              words={sentence(way.words)}
              says="keeps to it"
              onTake={() => onChoice({ ...choice, vessel: way.vessel, places: way.places })}
            />
          ))}
        </section>
      )}
      {gains.length > 0 && (
        <section aria-label="Sooner" className="border-t border-line pt-2">
          <h4 className="font-head text-lead font-[640]">Sooner</h4>
          {gains.map((gain) => (
            <Row
              key={gain.words}
              words={gain.words}
              says={gain.says}
              onTake={() => onChoice({ ...choice, vessel: gain.vessel, places: gain.places })}
            />
          ))}
        </section>
      )}
    </div>
  )
}

function Row({ words, says, onTake }: { words: string; says: string; onTake: () => void }) {
  return (
    <div className="flex min-h-11 flex-wrap items-center gap-x-4 border-b border-line py-1 last:border-b-0">
      <span className="min-w-0 flex-1">
        <b className="font-[640]">{words}</b>: {says}
      </span>
      <Button aria-label={`Take: ${words}`} onClick={onTake}>
        Take
      </Button>
    </div>
  )
}

function Kept({ told }: { told: ClockAnswer }) {
  return (
    <section aria-label="Keeping" className="border-t border-line pt-2 text-ink2">
      {told.frozen && (
        <>
          <p className="text-ink">{told.frozen.sentence}</p>
          {told.frozen.thaws && <p>Thaws in the fridge in {told.frozen.thaws}.</p>}
          <ul className="flex flex-wrap gap-x-6">
            {told.frozen.hardness.map((own) => (
              <li key={own.temperature_c}>
                <b className="font-[640]">−{-own.temperature_c} °C</b>: {own.words}
                {own.ice_percent > 0 && (
                  <>
                    {' '}
                    ({own.band_percent[0]} to {own.band_percent[1]} % ice)
                  </>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
      <p>{told.keeps}</p>
    </section>
  )
}

function sentence(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1)
}
