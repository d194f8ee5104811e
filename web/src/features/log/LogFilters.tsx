import { useState } from 'react'
import type { ComponentProps } from 'react'
import type { LogCounts } from '../../api/client'
import { Button } from '../../ui/Button'
import { Select } from '../../ui/Select'
import { TextField } from '../../ui/TextField'
import { Tick } from '../../ui/Tick'
import { CAME } from '../batch/came'
import { ANY, asksFor, WRONG } from './filters'

interface LogFiltersProps {
  address: URLSearchParams
  counts: LogCounts | undefined
  onChange: (name: string, value: string) => void
  onNone: () => void
}

/** What the log is looked through for: words first, the rest as far as it is needed. */
export function LogFilters({ address, counts, onChange, onNone }: LogFiltersProps) {
  const deeper = ['ingredient', 'lot', 'from', 'to', 'room_from_c', 'room_to_c', 'tested']
  const [more, setMore] = useState(() => deeper.some((name) => address.get(name)))
  const of = (name: string) => address.get(name) ?? ''
  const choices = (all: LogCounts['families'] | undefined, none: string, own: string) => {
    const listed = (all ?? []).map((each) => [each.key, `${each.name} (${each.batches})`] as const)
    const known = own === '' || listed.some(([key]) => key === own)
    return [['', none] as const, ...(known ? [] : [[own, own] as const]), ...listed]
  }
  const came = [
    [ANY, 'however it came out'] as const,
    [WRONG, 'wrong ones only'] as const,
    ...CAME.map(([key, word]) => [key as string, word.toLowerCase()] as const),
  ]
  return (
    <search className="no-print flex flex-wrap items-end gap-2">
      <Typed
        inline
        id="find-batch"
        label="Find a batch"
        type="search"
        maxLength={200}
        placeholder="Any word: a name, a lot, what was said…"
        className="min-w-64 flex-1"
        first={of('words')}
        onTyped={(text) => onChange('words', text)}
      />
      <Select
        inline
        label="Family"
        value={of('family')}
        onChange={(value) => onChange('family', value)}
        options={choices(counts?.families, 'every family', of('family'))}
      />
      <Select
        inline
        label="Job"
        value={of('job')}
        onChange={(value) => onChange('job', value)}
        options={choices(counts?.jobs, 'every job', of('job'))}
      />
      <Select
        inline
        label="How it came out"
        value={of('came')}
        onChange={(value) => onChange('came', value)}
        options={came}
      />
      <Button look="quiet" aria-expanded={more} onClick={() => setMore(!more)}>
        {more ? 'Less' : 'More'}
      </Button>
      {asksFor(address) && (
        <Button look="quiet" onClick={onNone}>
          All batches
        </Button>
      )}
      {more && (
        <div className="flex w-full flex-wrap items-end gap-3">
          <Select
            label="With"
            className="w-56"
            value={of('ingredient')}
            onChange={(value) => onChange('ingredient', value)}
            options={choices(counts?.ingredients, 'any ingredient', of('ingredient'))}
          />
          <Select
            label="Lot"
            className="w-36"
            value={of('lot')}
            onChange={(value) => onChange('lot', value)}
            options={choices(counts?.lots, 'any lot', of('lot'))}
          />
          <TextField label="From" type="date" value={of('from')} onChange={(v) => onChange('from', v)} />
          <TextField label="To" type="date" value={of('to')} onChange={(v) => onChange('to', v)} />
          <Typed
            label="Room from, °C"
            className="w-24"
            inputMode="decimal"
            first={of('room_from_c')}
            onTyped={(v) => onChange('room_from_c', v)}
          />
          <Typed
            label="to, °C"
            className="w-24"
            inputMode="decimal"
            first={of('room_to_c')}
            onTyped={(v) => onChange('room_to_c', v)}
          />
          <Tick checked={of('tested') !== ''} onChange={(on) => onChange('tested', on ? 'yes' : '')}>
            tested ones only
          </Tick>
        </div>
      )}
    </search>
  )
}

interface TypedProps extends Omit<ComponentProps<typeof TextField>, 'value' | 'onChange'> {
  first: string
  onTyped: (text: string) => void
}

/** A field that holds what is typed by itself: the address follows, and is slower than a hand. */
function Typed({ first, onTyped, ...rest }: TypedProps) {
  const [typed, setTyped] = useState(first)
  const type = (text: string) => {
    setTyped(text)
    onTyped(text)
  }
  return <TextField {...rest} value={typed} onChange={type} />
}
