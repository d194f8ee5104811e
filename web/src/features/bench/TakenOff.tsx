import { useState } from 'react'
import type { Process } from '../../api/client'
import { numberOrNull } from '../../lib/number'
import { Button } from '../../ui/Button'
import { Select } from '../../ui/Select'
import { Sheet } from '../../ui/Sheet'
import { TextNumber } from '../../ui/TextNumber'
import { Tick } from '../../ui/Tick'
import type { BenchLine } from './document'
import { leftWords, readKept, readLeft, STRAINED, strainedAs, strainedTo } from './taken'
import type { Taken } from './taken'

interface TakenOffProps {
  name: string
  /** The line; or what is done to all of it. */
  line?: BenchLine
  process?: Process | undefined
  onClose: () => void
  onTaken: (taken: Taken) => void
}

/** What is strained, boiled and lifted off a line before it goes in, or off all of it when it is done. */
export function TakenOff({ name, line, process, onClose, onTaken }: TakenOffProps) {
  const was = line ?? process
  const [as, setAs] = useState(strainedAs(was?.strained))
  const [kept, setKept] = useState(leftWords(was?.strained?.left))
  const [left, setLeft] = useState(leftWords(was?.boiled))
  const [steeped, setSteeped] = useState(line?.steeped != null)
  const [wet, setWet] = useState(line?.steeped?.wet_g?.toString() ?? '')
  const [asked, setAsked] = useState(false)
  const keep = as === 'none' ? null : readKept(kept)
  const boiled = readLeft(left)
  const wetG = steeped ? numberOrNull(wet) : null
  const noKept = as !== 'none' && !keep
  const badWet = wetG === undefined || (wetG !== null && !(wetG > 0))
  const bad = noKept || boiled === undefined || badWet
  const use = () => {
    setAsked(true)
    if (bad) return
    onTaken({
      strained: keep ? strainedTo(as, keep) : null,
      steeped: steeped ? (wetG == null ? {} : { wet_g: wetG }) : null,
      boiled,
    })
    onClose()
  }
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && onClose()}
      title={`What is taken off: ${name}`}
      lead={
        line
          ? 'Before it goes in. What is weighed stays as it is written; what is left of it is counted.'
          : 'When all of it is done: boiled down first, strained then. What is left is predicted, and what runs off can go into another formula.'
      }
    >
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          use()
        }}
      >
        <Select label="Strained" value={as} onChange={setAs} options={STRAINED} />
        {as !== 'none' && (
          <TextNumber
            label="Kept of it, g or %"
            value={kept}
            onChange={setKept}
            numeric={false}
            placeholder="420 g, or 60 %"
            fault={
              noKept && (asked || kept !== '')
                ? 'Write what the scale shows, 420 g, or a share, 60 %.'
                : undefined
            }
          />
        )}
        {line && (
          <>
            <Tick checked={steeped} onChange={setSteeped}>
              Steeped in the rest and taken out again: coffee beans, tea, pods
            </Tick>
            {steeped && (
              <TextNumber
                label="What it weighs wet when it is taken out, g"
                value={wet}
                onChange={setWet}
                placeholder="three times dry"
                fault={badWet ? 'Write a weight above 0 g.' : undefined}
                hint="It takes some of the liquid with it: weigh it back once."
              />
            )}
          </>
        )}
        <TextNumber
          label="Boiled down, to what is left"
          value={left}
          onChange={setLeft}
          numeric={false}
          placeholder="not boiled down"
          fault={boiled === undefined ? 'Write 50 %, 240 g, 72 Bx or 118 °C.' : undefined}
          hint="50 % for by half; or a weight, a strength, a temperature. Boiling sugar burns: gloves, long sleeves, no children near."
        />
        <div className="flex gap-3">
          <Button type="submit" look="primary" disabled={asked && bad}>
            Count with what is left
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Sheet>
  )
}
