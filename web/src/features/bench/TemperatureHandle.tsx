import { Slider } from 'radix-ui'
import { degrees } from '../../lib/format'
import { FOOT } from './mapScales'
import type { Box, MapScales } from './mapScales'

interface HandleProps {
  box: Box
  scales: MapScales
  temperature: number
  good: boolean
  says: string
  onTemperature: (temperature: number) => void
}

/** The working line's handle. The whole field answers to the pointer; arrows step half a degree. */
export function TemperatureHandle({ box, scales, temperature, good, says, onTemperature }: HandleProps) {
  const [from, to] = scales.temperatures
  const shown = Math.min(to, Math.max(from, temperature))
  return (
    <Slider.Root
      className="absolute touch-pan-y select-none"
      style={{
        left: box.left,
        width: box.right - box.left,
        top: box.top,
        height: box.bottom - box.top + FOOT,
      }}
      min={from}
      max={to}
      step={0.5}
      value={[shown]}
      onValueChange={([next]) => next !== undefined && onTemperature(next)}
    >
      <Slider.Track className="absolute inset-0 cursor-ew-resize" />
      <Slider.Thumb
        aria-label="Working temperature"
        aria-valuetext={`${degrees(temperature)}. ${says}`}
        className="group absolute block w-0 outline-none"
        style={{ top: box.bottom - box.top + 12 }}
      >
        <span className="absolute top-[-10px] left-[-61px] flex h-[48px] w-[122px] cursor-grab items-center justify-center">
          <span
            className={`relative flex h-[29px] w-[110px] items-center justify-center gap-1.5 rounded-lg text-lead font-[700] group-focus-visible:ring-3 group-focus-visible:ring-rim group-focus-visible:ring-offset-2 group-focus-visible:ring-offset-enamel ${
              good ? 'bg-rim text-rim-text' : 'bg-hot text-hot-text'
            }`}
          >
            <Arrow left />
            {degrees(temperature)}
            <Arrow />
          </span>
        </span>
      </Slider.Thumb>
    </Slider.Root>
  )
}

function Arrow({ left = false }: { left?: boolean }) {
  return (
    <svg width="7" height="11" viewBox="0 0 7 11" aria-hidden="true">
      <path
        d={left ? 'M6 1L1.5 5.5 6 10' : 'M1 1L5.5 5.5 1 10'}
        fill="none"
        stroke="currentColor"
        strokeWidth="2"
      />
    </svg>
  )
}
