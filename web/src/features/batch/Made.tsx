import { useState } from 'react'
import { useNavigate } from 'react-router'
import { asking, faultWords, useKept } from '../../api/ask'
import type { BatchView } from '../../api/client'
import { newId } from '../../desk/tabs'
import { weighed } from '../../lib/format'
import { readNumber } from '../../lib/number'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'
import { askDevice, useDevices } from '../devices/queries'
import { LabelText } from '../orders/LabelsView'
import { useDevice } from './devices'
import { BIG } from './looks'
import type { Say } from './say'

interface MadeProps {
  id: string
  view: BatchView
  onSay: Say
}

/** The day as the wall of the pastry room has it. */
function today(): string {
  const now = new Date()
  const two = (value: number) => String(value).padStart(2, '0')
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
}

/** A batch that is made: who gets how much, the tape on its lid, where it stands, what is left. */
export function Made({ id, view, onSay }: MadeProps) {
  const navigate = useNavigate()
  const short = view.shares.some((own) => own.gets_g < own.wanted_g - 0.5)
  return (
    <section aria-label="Made" className="flex min-w-0 flex-col gap-5">
      <h1 className="text-[52px] leading-[1.05] max-phone:text-[34px]">Made.</h1>
      <p className="text-head">
        {weighed(view.in_g)} g went in{view.yielded_g != null && `, ${weighed(view.yielded_g)} g came out`}.
      </p>
      {view.shares.length > 0 && (
        <section aria-label="Who gets how much" className="max-w-2xl">
          <h2 className="text-title">
            {short ? 'There is less than was planned: each gets its part of it' : 'Weigh out'}
          </h2>
          <ul className="border-t border-line">
            {view.shares.map((own) => (
              <li key={own.name} className="flex items-baseline gap-3 border-b border-line py-2 text-head">
                <b className="w-32 text-right">{weighed(own.gets_g)} g</b>
                <span className="min-w-0 flex-1">
                  {own.name}
                  {own.count > 1 && `: ${own.count}, ${weighed(own.each_g)} g each`}
                </span>
                {own.gets_g < own.wanted_g - 0.5 && (
                  <span className="text-lead text-hot">of {weighed(own.wanted_g)} g</span>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      <Tape id={id} />
      <Stands view={view} onSay={onSay} />
      <p>
        <Button className={BIG} look="primary" onClick={() => void navigate('/make')}>
          All batches
        </Button>
      </p>
    </section>
  )
}

/** What the tape on the lid says, by what is really in it. */
function Tape({ id }: { id: string }) {
  const tape = useKept(
    asking('get', '/api/batches/{id}/tape', { params: { path: { id }, query: { on: today() } } }),
  )
  const { device: printer } = useDevice('printer')
  const tray = useKept(asking('get', '/api/devices/tray'), { on: printer !== undefined })
  const [said, setSaid] = useState<string | null>(null)
  const [printed, setPrinted] = useState<string | null>(null)
  if (tape.isError) {
    return (
      <p role="alert" className="text-title text-hot">
        The tape cannot be written. {faultWords(tape.error)}
      </p>
    )
  }
  if (!tape.data) return <div aria-busy="true" className="h-24" />
  const { label, text } = tape.data
  const print = async () => {
    if (!printer) return
    setSaid(null)
    const job = newId()
    try {
      await askDevice(printer.name, { do: 'print', job, text })
      setPrinted(job)
      void tray.refetch()
    } catch (error) {
      setSaid(faultWords(error))
    }
  }
  const picture = tray.data?.find((own) => own.job === printed)
  return (
    <section aria-label="Tape" className="flex flex-wrap items-start gap-4">
      <div className="tape max-w-md p-4 text-lead">
        <LabelText label={label} />
      </div>
      <div className="flex flex-col gap-2">
        {printer && (
          <Button className={BIG} onClick={() => void print()}>
            Print it on {printer.name}
          </Button>
        )}
        {said && (
          <p role="alert" className="max-w-sm text-title text-hot">
            {said}
          </p>
        )}
        {printed && <p role="status">Printed.</p>}
        {picture && (
          <p className="flex flex-col gap-1">
            <img
              className="w-64 border border-line bg-white"
              src={picture.png}
              alt={`As it was printed: ${text}`}
            />
            <a className="font-[640] text-rim underline" href={picture.pdf} target="_blank" rel="noreferrer">
              As a PDF
            </a>
          </p>
        )}
      </div>
    </section>
  )
}

/** Where it stands, and what is left of it. */
function Stands({ view, onSay }: { view: BatchView; onSay: Say }) {
  const devices = useDevices()
  const fridges = (devices.data?.now ?? []).filter((own) => own.kind === 'fridge')
  const [place, setPlace] = useState('')
  const [typed, setTyped] = useState('')
  const [wrong, setWrong] = useState<string | null>(null)
  const put = (where: string) => {
    if (where.trim() === '') return setWrong('Say where it stands: a fridge, a shelf.')
    setWrong(null)
    setPlace('')
    onSay({ what: 'put', place: where.trim() })
  }
  const left = () => {
    const read = readNumber(typed)
    if (read.kind !== 'number' || read.value <= 0) return setWrong('Write how much is left, in grams.')
    setWrong(null)
    setTyped('')
    onSay({ what: 'left_over', grams: read.value })
  }
  return (
    <section aria-label="Where it stands" className="flex flex-col gap-3">
      <p className="text-head">
        {view.stands_in ? (
          <>
            It stands in <b>{view.stands_in}</b>.
          </>
        ) : (
          'Where does it stand?'
        )}
      </p>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          put(place)
        }}
      >
        {fridges
          .filter((own) => own.name !== view.stands_in)
          .map((own) => (
            <Button key={own.name} className={BIG} onClick={() => put(own.name)}>
              {own.name}
            </Button>
          ))}
        <TextField label="Another place" value={place} onChange={setPlace} maxLength={80} />
        <Button className="min-h-12" type="submit">
          Put it there
        </Button>
      </form>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          left()
        }}
      >
        <TextField label="Left over, g" inputMode="decimal" value={typed} onChange={setTyped} />
        <Button className="min-h-12" type="submit">
          Write it down
        </Button>
        {view.left_over_g != null && (
          <span className="text-lead">
            {view.left_over_g > 0 ? `${weighed(view.left_over_g)} g left over` : 'Nothing is left of it.'}
          </span>
        )}
        {view.left_over_g !== 0 && (
          <Button className="min-h-12" look="quiet" onClick={() => onSay({ what: 'used_up' })}>
            Nothing is left
          </Button>
        )}
      </form>
      {wrong && (
        <p role="alert" className="text-title text-hot">
          {wrong}
        </p>
      )}
    </section>
  )
}
