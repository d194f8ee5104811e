import { useMemo, useRef, useState } from 'react'
import type { Assessment, Point } from '../../api/client'
import { twoDigits } from '../../lib/format'
import { useSize } from '../../lib/hooks'
import { lifted } from '../../lib/mixture'
import { Button } from '../../ui/Button'
import { MapField, TickWords } from './MapField'
import { WayCurve } from './WayCurve'
import { scaleOfSpoon, SPOON, spoonCorner } from './mapPlaces'
import { FOOT, GUTTER, mapScales } from './mapScales'
import type { Box } from './mapScales'
import { isGood } from './point'
import { Spoon } from './Spoon'
import { TemperatureHandle } from './TemperatureHandle'
import { useKeys } from '../../lib/keys'

interface WindowMapProps {
  answer: Assessment | undefined
  here: Point | undefined
  temperature: number
  room: number
  /** The way that is looked at: its curve, with its name. */
  way: { words: string; onMap: number[] } | null
  /** The answer is an old one: draw it dotted. */
  stale: boolean
  onTemperature: (temperature: number) => void
}

const LEAST_HEIGHT = 330

export function WindowMap({ answer, here, way, temperature, room, stale, onTemperature }: WindowMapProps) {
  const frame = useRef<HTMLDivElement>(null)
  const { width, height: room_height } = useSize(frame)
  const [close, setClose] = useState(false)
  const height = Math.max(LEAST_HEIGHT, room_height)
  const box: Box = useMemo(
    () => ({ left: GUTTER, right: Math.max(GUTTER + 100, width - 8), top: 2, bottom: height - FOOT }),
    [width, height],
  )
  // The close look moves by whole degrees, so that a drag does not slide the paper under the pencil.
  const anchor = close ? Math.round(temperature / 4) * 4 : 0
  const scales = useMemo(() => mapScales(box, answer, anchor, close), [box, answer, anchor, close])

  useKeys('Bench', [{ key: 'z', words: 'The map, close or whole', run: () => setClose((now) => !now) }])

  // Without an answer the line is neither right nor wrong.
  const good = !here || (isGood(here) && !stale)
  const lineX = scales.x(temperature)
  const colour = answer ? lifted(answer.tint) : 'var(--line2)'
  const corner = spoonCorner(answer, scales, box)
  const spoonScale = scaleOfSpoon(box)
  // A map this narrow has no corner free for the spoon: what it does is written below.
  const narrow = width < 460
  const numbers = here && answer && (
    <>
      {answer.axis === 'yield_stress_pa' && (
        <>
          {twoDigits(here.yield_stress_pa.value)} Pa, {twoDigits(here.yield_stress_pa.low)} to{' '}
          {twoDigits(here.yield_stress_pa.high)}
          {narrow ? '; ' : <br />}
        </>
      )}
      {twoDigits(here.viscosity_pa_s.value)} Pa·s, {twoDigits(here.viscosity_pa_s.low)} to{' '}
      {twoDigits(here.viscosity_pa_s.high)}
    </>
  )
  return (
    <>
      <div ref={frame} className="relative h-[max(330px,calc(100dvh-470px))] max-tablet:h-[440px]">
        {width > 0 && (
          <>
            <svg width={width} height={height} className="absolute inset-0 block" aria-hidden="true">
              <MapField box={box} scales={scales} answer={answer} stale={stale} room={room} />
              {way && answer && <WayCurve way={way} answer={answer} scales={scales} box={box} />}
              <TickWords box={box} scales={scales} hidden={lineX} />
              <line
                x1={lineX}
                x2={lineX}
                y1={box.top}
                y2={box.bottom + 14}
                stroke={good ? 'var(--rim)' : 'var(--hot)'}
                strokeWidth={2.4}
              />
              {here && (
                <circle
                  cx={lineX}
                  cy={scales.y(here.on_map.value)}
                  r={9}
                  fill={colour}
                  stroke="var(--enamel)"
                  strokeWidth={3}
                />
              )}
              {here && (
                <circle
                  cx={lineX}
                  cy={scales.y(here.on_map.value)}
                  r={10.8}
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth={1.2}
                />
              )}
            </svg>
            {here && answer && !narrow && (
              <div
                className="pointer-events-none absolute flex items-start"
                style={
                  corner === 'upper right'
                    ? { right: 14, top: 6 }
                    : { left: box.left + 14, top: box.bottom - SPOON.height * spoonScale + 8 }
                }
                data-testid="spoon"
              >
                <Spoon
                  yieldStress={here.yield_stress_pa.value}
                  viscosity={here.viscosity_pa_s.value}
                  density={1000 * answer.figures.density_g_per_ml.value}
                  colour={colour}
                  width={SPOON.width * spoonScale}
                  height={SPOON.height * spoonScale}
                />
                <div className="mt-14 -ml-3 w-[126px] rounded-md bg-shade/85 px-1.5 py-0.5 text-small leading-snug">
                  <b className="block font-head text-lead leading-tight">{sentenceCase(here.spoon_words)}</b>
                  {numbers}
                </div>
              </div>
            )}
            <TemperatureHandle
              box={box}
              scales={scales}
              temperature={temperature}
              good={good}
              says={here ? here.headline : 'no answer yet'}
              onTemperature={onTemperature}
            />
            <div className="absolute top-2" style={{ left: box.left + 8 }}>
              <Button
                look="quiet"
                hotkey="Z"
                className="min-h-8 bg-shade px-2 py-0.5 text-small"
                aria-pressed={close}
                onClick={() => setClose(!close)}
              >
                {close ? 'Whole map' : 'Look closer'}
              </Button>
            </div>
          </>
        )}
      </div>
      {here && narrow && width > 0 && (
        <p data-testid="spoon" className="text-note">
          <b>{sentenceCase(here.spoon_words)}</b>: {numbers}
        </p>
      )}
    </>
  )
}

function sentenceCase(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1)
}
