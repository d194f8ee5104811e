import { useState } from 'react'
import { faultWords } from '../../api/ask'
import { ProblemError } from '../../api/client'
import type { DeviceAddress, DeviceNow, DeviceSettings } from '../../api/client'
import { useShow } from '../../api/live'
import { degrees, weighed } from '../../lib/format'
import { Button } from '../../ui/Button'
import { NumberField } from '../../ui/NumberField'
import { Select } from '../../ui/Select'
import { Sheet } from '../../ui/Sheet'
import { TextField } from '../../ui/TextField'
import { saveDevices, useDevices } from './queries'

const KINDS: readonly (readonly [DeviceAddress['kind'], string])[] = [
  ['scale', 'Bench scale'],
  ['probe', 'Probe'],
  ['fridge', 'Fridge logger'],
  ['printer', 'Label printer'],
]

/** What a device shows, in a word. */
function shows(own: DeviceNow): string {
  if (own.g != null) return `${weighed(own.g)} g`
  if (own.c != null) return degrees(own.c)
  if (own.left_mm != null) return `${(own.left_mm / 1000).toFixed(1)} m of tape`
  return ''
}

/** The devices of the kitchen: where each is, and how it stands. */
export function DevicesSheet({ onClose }: { onClose: () => void }) {
  const devices = useDevices()
  return (
    <Sheet
      open
      wide
      onOpenChange={(open) => !open && onClose()}
      title="Devices"
      lead="Scales, probes, fridge loggers and label printers of this kitchen. Only what is named here is ever connected to."
    >
      {devices.isError && !devices.data && (
        <p role="alert" className="text-hot">
          They cannot be read. {devices.error?.message}
        </p>
      )}
      {devices.data && <Editor key={devices.data.settings.revision} settings={devices.data.settings} />}
    </Sheet>
  )
}

function Editor({ settings }: { settings: DeviceSettings }) {
  const show = useShow()
  const [all, setAll] = useState<DeviceAddress[]>(settings.devices)
  const [most, setMost] = useState(settings.fridge_most_c)
  const [long, setLong] = useState(settings.fridge_most_min)
  const [error, setError] = useState<unknown>(null)
  const [busy, setBusy] = useState(false)
  const change = (at: number, next: Partial<DeviceAddress>) =>
    setAll(all.map((own, other) => (other === at ? { ...own, ...next } : own)))
  const faults = error instanceof ProblemError ? (error.problem.errors ?? []) : []
  const faultAt = (field: string) => faults.find((own) => own.field === field)?.message
  const changed =
    JSON.stringify(all) !== JSON.stringify(settings.devices) ||
    most !== settings.fridge_most_c ||
    long !== settings.fridge_most_min
  const save = async () => {
    setBusy(true)
    try {
      await saveDevices({ ...settings, devices: all, fridge_most_c: most, fridge_most_min: long })
      setError(null)
    } catch (cause) {
      setError(cause)
    } finally {
      setBusy(false)
    }
  }
  return (
    <form
      className="flex min-h-0 flex-col gap-4 overflow-y-auto"
      onSubmit={(event) => {
        event.preventDefault()
        void save()
      }}
    >
      {all.length === 0 && <p>No device is named yet: weights and temperatures are typed.</p>}
      <ul className="flex flex-col gap-3">
        {all.map((own, at) => {
          const now = show?.devices.find((each) => each.name === own.name.trim())
          const words = now && settings.devices[at]?.address === own.address ? now : undefined
          return (
            <li key={at} className="border-b border-line pb-3">
              <div className="flex flex-wrap items-end gap-3">
                <Select
                  label="What"
                  options={KINDS}
                  value={own.kind}
                  onChange={(kind) => change(at, { kind })}
                />
                <TextField
                  label="Called"
                  maxLength={60}
                  value={own.name}
                  fault={faultAt(`devices.${at}.name`)}
                  onChange={(name) => change(at, { name })}
                />
                <TextField
                  label="Address and port"
                  placeholder="192.168.1.20:4721"
                  maxLength={60}
                  value={own.address}
                  fault={faultAt(`devices.${at}.address`)}
                  onChange={(address) => change(at, { address })}
                />
                <Button look="quiet" onClick={() => setAll(all.filter((_, other) => other !== at))}>
                  Take {own.name || 'it'} out
                </Button>
              </div>
              {words && (
                <p className={words.state === 'live' ? '' : 'text-hot'}>
                  {words.words} {words.state === 'live' && <b>{shows(words)}</b>}
                  {words.torn > 0 && ` ${words.torn} of its lines arrived torn.`}
                </p>
              )}
            </li>
          )
        })}
      </ul>
      <p>
        <Button
          onClick={() => setAll([...all, { kind: 'scale', name: '', address: '' }])}
          disabled={all.length >= 40}
        >
          Another device
        </Button>
      </p>
      <div className="flex flex-wrap gap-4">
        <NumberField
          label="A fridge is too warm above"
          unit="°C"
          value={most}
          min={0}
          max={15}
          step={0.5}
          onCommit={setMost}
          fault={faultAt('fridge_most_c')}
        />
        <NumberField
          label="and is told after"
          unit="min"
          value={long}
          min={0}
          max={240}
          step={5}
          onCommit={setLong}
          fault={faultAt('fridge_most_min')}
        />
      </div>
      {error !== null && (
        <p role="alert" className="text-hot">
          Not saved: {faultWords(error)}
        </p>
      )}
      <p>
        <Button look="primary" type="submit" disabled={!changed || busy}>
          Save
        </Button>
      </p>
    </form>
  )
}
