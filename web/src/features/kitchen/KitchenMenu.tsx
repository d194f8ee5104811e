import { Popover } from 'radix-ui'
import { lazy, Suspense, useState } from 'react'
import type { Kitchen } from '../../api/client'
import { deviceName, LONGEST_NAME, nameDevice } from '../../api/device'
import { degrees } from '../../lib/format'
import { NumberField } from '../../ui/NumberField'
import { Button } from '../../ui/Button'
import { LatelySheet } from './LatelySheet'
import { useKitchen, useSaveKitchen } from './queries'
import { Select } from '../../ui/Select'
import { TextField } from '../../ui/TextField'
import { useWords } from '../../lib/words'

const DevicesSheet = lazy(() =>
  import('../devices/DevicesSheet').then((own) => ({ default: own.DevicesSheet })),
)

/** No zone said: the clock is that of whoever looks. */
const AS_HERE = ''

/** Every zone this browser knows, and the one that is chosen. */
function zones(chosen: string | null | undefined) {
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone
  const all = new Set(['UTC', ...Intl.supportedValuesOf('timeZone'), ...(chosen ? [chosen] : [])])
  return [
    [AS_HERE, `as on each device (here ${here})`] as const,
    ...[...all].sort().map((zone) => [zone, zone.replaceAll('_', ' ')] as const),
  ]
}

/** Room temperature in the rail; opens to change it and the kitchen's cups. */
export function KitchenMenu({ onKeys }: { onKeys: () => void }) {
  const kitchen = useKitchen()
  const save = useSaveKitchen()
  const words = useWords()
  const [failed, setFailed] = useState<string | null>(null)
  const [open, setOpen] = useState(false)
  const [lately, setLately] = useState(false)
  const [devices, setDevices] = useState(false)
  if (!kitchen.data) return null
  const now = kitchen.data
  const change = (next: Partial<Kitchen>) =>
    save.mutate(
      { ...now, ...next },
      { onError: (error) => setFailed(error.message), onSuccess: () => setFailed(null) },
    )
  return (
    <>
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger className="min-h-9 rounded-lg px-2 whitespace-nowrap hover:bg-rim-tint pointer-coarse:min-h-11">
          Room <b>{degrees(now.room_temperature_c)}</b>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            sideOffset={6}
            align="end"
            aria-label="The kitchen"
            className="tray z-50 flex w-80 flex-col gap-4 p-5"
          >
            <h2 className="text-title">{now.name}</h2>
            <NumberField
              label="Room"
              unit="°C"
              value={now.room_temperature_c}
              min={0}
              max={45}
              step={0.5}
              onCommit={(room_temperature_c) => change({ room_temperature_c })}
            />
            <Select
              label="Cups and spoons of new formulas"
              value={now.measures}
              onChange={(measures) => change({ measures })}
              options={words.measures.map((each) => [each.measures, each.long] as const)}
            />
            <Select
              label="Clock on the wall"
              value={now.time_zone ?? AS_HERE}
              onChange={(zone) => change({ time_zone: zone === AS_HERE ? null : zone })}
              options={zones(now.time_zone)}
            />
            <NumberField
              label="Above the sea"
              unit="m"
              value={now.altitude_m ?? 0}
              min={-500}
              max={6000}
              step={50}
              onCommit={(altitude_m) => change({ altitude_m })}
            />
            <DeviceName />
            <Button
              onClick={() => {
                setOpen(false)
                setDevices(true)
              }}
            >
              Devices
            </Button>
            <Button
              onClick={() => {
                setOpen(false)
                setLately(true)
              }}
            >
              Saved lately
            </Button>
            <Button
              hotkey="?"
              onClick={() => {
                setOpen(false)
                onKeys()
              }}
            >
              Keys
            </Button>
            {failed && (
              <p role="alert" className="text-hot">
                Not saved: {failed}
              </p>
            )}
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {lately && <LatelySheet onClose={() => setLately(false)} />}
      {devices && (
        <Suspense>
          <DevicesSheet onClose={() => setDevices(false)} />
        </Suspense>
      )}
    </>
  )
}

/** What the history calls this device. */
function DeviceName() {
  const [typed, setTyped] = useState(deviceName)
  return (
    <TextField
      label="This device, as the versions name it"
      maxLength={LONGEST_NAME}
      value={typed}
      onChange={setTyped}
      onBlur={() => setTyped(nameDevice(typed))}
      onKeyDown={(event) => {
        if (event.key === 'Enter') setTyped(nameDevice(typed))
      }}
    />
  )
}
