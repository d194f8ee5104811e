import { asking, useKept } from '../../api/ask'
import { answer, api } from '../../api/client'
import type { DeviceAsk, DeviceSettings } from '../../api/client'
import { attempt } from '../../desk/attempt'

/** The devices of the kitchen, as they are set and as they stand. */
export function useDevices(on = true) {
  return useKept(asking('get', '/api/devices'), { on })
}

/** Sets the devices. */
export function saveDevices(settings: DeviceSettings) {
  return attempt(['devices', settings], (header) =>
    answer(api.PUT('/api/devices', { params: { header }, body: settings })),
  )
}

/** Asks a device to do something; what it says when it does not is thrown. */
export function askDevice(device: string, wish: DeviceAsk['wish']) {
  return answer(api.POST('/api/devices/ask', { body: { device, wish } }))
}
