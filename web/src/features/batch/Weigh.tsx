import { useRef, useState } from 'react'
import type { BatchLine, BatchView } from '../../api/client'
import { unbroken, weighed } from '../../lib/format'
import { useKeys } from '../../lib/keys'
import { readNumber } from '../../lib/number'
import { Button } from '../../ui/Button'
import { BIG } from './looks'
import { useTake } from './useTake'
import type { Pour } from './usePour'
import type { Say } from './say'
import { Bowls } from './Bowls'
import { WhichDevice } from './WhichDevice'

interface WeighProps {
  view: BatchView
  line: BatchLine
  pour: Pour
  onSay: Say
  onUndo: () => void
}

/** One ingredient: what is still to pour, and what the cook's scale shows. */
export function Weigh({ view, line, pour, onSay, onUndo }: WeighProps) {
  const [typed, setTyped] = useState('')
  const [wrong, setWrong] = useState<string | null>(null)
  /** Whether it is asked if it is left out on purpose. */
  const [asking, setAsking] = useState(false)
  const field = useRef<HTMLInputElement>(null)
  const turn = view.order.indexOf(line.line) + 1
  const [lot, setLot] = useState('')
  const put = (grams: number, by: 'hand' | 'device') => {
    setTyped('')
    setWrong(null)
    setAsking(false)
    const [event] = onSay({
      what: 'weighed',
      line: line.line,
      grams,
      by,
      ...(lot.trim() ? { lot: lot.trim() } : {}),
    })
    pour.taken(event)
  }
  const { takes, take } = useTake(line, pour, (grams) => put(grams, 'device'))
  const onScale = pour.some ? (pour.net ?? 0) : 0
  const still = Math.max(0, line.still_g - onScale)
  const over = line.in_g + onScale - line.band.to_g
  const next = () => {
    const read = readNumber(typed)
    if (read.kind === 'nothing' && pour.some) return take()
    if (read.kind === 'wrong') setWrong(read.words)
    else if (read.kind === 'number' && read.value > 0) put(read.value, 'hand')
    else if (read.kind === 'number')
      setWrong('Less than nothing cannot go in: set the scale to 0 with the bowl on it.')
    else setAsking(true)
  }
  useKeys('Make', [
    { key: [' ', 'enter', 'pagedown'], shown: 'Space', words: 'Next', run: next },
    {
      key: 't',
      shown: 'T',
      words: 'Scale to 0',
      run: () => void pour.tare?.(),
      when: () => pour.scale !== null,
    },
    { key: ['backspace', 'pageup'], shown: 'Backspace', words: 'One back', run: onUndo },
    {
      key: ['0', '1', '2', '3', '4', '5', '6', '7', '8', '9', '.', ','],
      shown: '0 to 9',
      words: 'How much went in',
      run: (event) => {
        setTyped((now) => now + event.key)
        field.current?.focus()
      },
    },
  ])
  const short = line.stands === 'short'
  return (
    <section aria-label="To weigh" className="flex min-w-0 flex-col">
      <p className="text-title text-ink2">
        Weigh {turn} of {view.order.length}
        {line.step != null && `, for step ${line.step + 1}`}
      </p>
      <h1 className="text-[52px] leading-[1.05] max-phone:text-[34px]">{unbroken(line.name)}</h1>
      <p className={`mt-auto pt-4 text-title ${over > 0 ? 'font-[640] text-hot' : 'text-ink2'}`}>
        {over > 0 ? 'too much' : 'still to pour'}
      </p>
      <p
        className={`font-head text-[184px] leading-[0.9] font-[720] max-tablet:text-[132px] max-phone:text-[96px] ${over > 0 ? 'text-hot' : ''}`}
      >
        {weighed(over > 0 ? line.in_g + onScale - line.band.mark_g : still)}
        <span className="pl-2 text-[0.36em]">g</span>
      </p>
      <p className="mt-3 text-head">
        <b>{weighed(line.in_g + onScale)} g</b> in, target <b>{weighed(line.band.mark_g)} g</b>
        {line.in_pieces && `, ${line.in_pieces}`}
      </p>
      <p className="text-title text-ink2">{line.may}</p>
      <OnScale pour={pour} line={line} still={still} onSay={onSay} />
      <form
        className="mt-4 flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          next()
        }}
      >
        <label className="flex flex-col gap-1 text-note text-ink2">
          Went in
          <span className="flex items-center gap-2">
            <input
              ref={field}
              inputMode="decimal"
              autoComplete="off"
              className={`h-[68px] w-40 rounded-xl border-2 bg-enamel px-3 text-right text-display font-[720] text-ink ${wrong ? 'border-hot' : 'border-line2'}`}
              value={typed}
              aria-invalid={wrong ? true : undefined}
              aria-describedby={wrong ? 'weigh-wrong' : undefined}
              onChange={(event) => {
                setTyped(event.target.value)
                setWrong(null)
              }}
              onKeyDown={(event) => {
                // A pedal and the wide key are next; an empty field hands its last key back to the page.
                const back = typed === '' && event.key === 'Backspace'
                if (event.key !== ' ' && event.key !== 'PageDown' && !back) return
                event.preventDefault()
                if (back) onUndo()
                else next()
              }}
            />
            <span className="text-head text-ink">g</span>
          </span>
        </label>
        <Button className={BIG} look={typed || pour.some ? 'primary' : 'plain'} hotkey="Space" type="submit">
          {typed
            ? `${typed} g went in`
            : takes
              ? 'Until it stands'
              : pour.some
                ? `${weighed(onScale)} g went in`
                : 'Next'}
        </Button>
        {pour.scale?.g == null && (
          <Button
            className={BIG}
            look={typed ? 'plain' : 'primary'}
            onClick={() => put(Math.max(0.01, line.still_g), 'hand')}
          >
            {weighed(Math.max(0, line.still_g))} g went in
          </Button>
        )}
        <LotField lots={line.lots} lot={lot} onLot={setLot} />
      </form>
      {wrong && (
        <p id="weigh-wrong" role="alert" className="mt-2 text-title text-hot">
          {wrong}
        </p>
      )}
      {asking && (
        <div role="alert" className="mt-4 rounded-xl border-[3px] border-hot p-4 text-title">
          <p className="font-[640] text-hot">
            {short
              ? `${weighed(line.still_g)} g of ${unbroken(line.name)} are missing. Is it to stay so?`
              : `${unbroken(line.name)} has not gone in. Left out on purpose?`}
          </p>
          {!short && line.without && <p className="mt-1">Without it: {line.without}</p>}
          <p className="mt-3 flex flex-wrap gap-3">
            <Button
              className={BIG}
              onClick={() => {
                setAsking(false)
                onSay(
                  short
                    ? { what: 'decided', line: line.line, way: 'leave' }
                    : { what: 'line_left_out', line: line.line },
                )
              }}
            >
              {short ? 'Leave it so' : 'Leave it out'}
            </Button>
            <Button className={BIG} look="quiet" onClick={() => setAsking(false)}>
              No, weigh it
            </Button>
          </p>
        </div>
      )}
    </section>
  )
}

/** What the scale says besides its number, and how it is set to nothing. */
interface OnScaleProps {
  pour: Pour
  line: BatchLine
  still: number
  onSay: Say
}

function OnScale({ pour, line, still, onSay }: OnScaleProps) {
  const { scale } = pour
  const [bowls, setBowls] = useState(false)
  if (!scale) return null
  const step = scale.device.step_g ?? 0
  const coarse = scale.g !== null && line.band.mark_g > 0 && step > line.needs_step_g + 1e-9
  const words =
    scale.g === null
      ? scale.device.words
      : pour.less
        ? 'The scale shows less than when this line began: put the bowl back, or set it to 0.'
        : null
  return (
    <div className="mt-2 flex flex-col gap-1">
      {words && (
        <p role="status" className="text-title text-hot">
          {words}
        </p>
      )}
      {coarse && (
        <p role="status" className="text-title text-hot">
          {`${weighed(line.band.mark_g)} g on a scale that counts ${weighed(step)} g here: `}
          {line.one_in_ten
            ? `weigh ${line.one_in_ten}, or use a finer scale.`
            : 'use a finer scale, or an empty bowl.'}
        </p>
      )}
      {pour.said && (
        <p role="alert" className="text-title text-hot">
          {pour.said}
        </p>
      )}
      <p className="flex flex-wrap items-center gap-2 text-lead text-ink2">
        <span>
          <WhichDevice kind="scale" label="Which scale" />
          {scale.g !== null && `: ${weighed(scale.g)} g, ${scale.steady ? 'still' : 'moving'}`}
        </span>
        <Button className="min-h-12 px-3" hotkey="T" disabled={!pour.tare} onClick={() => void pour.tare?.()}>
          To 0
        </Button>
        <Button className="min-h-12 px-3" onClick={() => setBowls(true)}>
          Bowls
        </Button>
        {scale.device.stand_in && scale.g !== null && (
          <>
            <Button className="min-h-12 px-3" onClick={() => void pour.play(still, 0)}>
              Pour
            </Button>
            <Button
              className="min-h-12 px-3"
              onClick={() => void pour.play(still, Math.max(2, 0.07 * line.band.mark_g))}
            >
              Pour too much
            </Button>
          </>
        )}
      </p>
      {bowls && (
        <Bowls
          onScale={pour.bowlOn}
          {...(scale.g === null ? {} : { onUse: (bowl) => pour.inBowl(bowl.grams) })}
          onSay={onSay}
          onClose={() => setBowls(false)}
        />
      )}
    </div>
  )
}

/** Which lot it is from, where the cook says so. */
function LotField({ lots, lot, onLot }: { lots: string[]; lot: string; onLot: (lot: string) => void }) {
  return (
    <label className="flex flex-col gap-1 text-note text-ink2">
      Lot{lots.length > 0 && `, in already: ${lots.join(', ')}`}
      <input
        autoComplete="off"
        maxLength={80}
        className="h-[68px] w-28 rounded-xl border-2 border-line2 bg-enamel px-3 text-lead text-ink"
        value={lot}
        onChange={(event) => onLot(event.target.value)}
      />
    </label>
  )
}
