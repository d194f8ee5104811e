import type { DeviceNow } from '../../api/client'
import { Select } from '../../ui/Select'
import { useDevice } from './devices'

/** Which of several scales or probes this page goes by; its name alone where there is one. */
export function WhichDevice({ kind, label }: { kind: DeviceNow['kind']; label: string }) {
  const { device, all, choose } = useDevice(kind)
  if (!device) return null
  if (all.length < 2) return <>{device.name}</>
  return (
    <Select
      inline
      label={label}
      className="min-h-12"
      value={device.name}
      onChange={choose}
      options={all.map((own) => [own.name, own.name] as const)}
    />
  )
}
