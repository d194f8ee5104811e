import { memo } from 'react'
import { spoonShapes } from './spoonShapes'

interface SpoonProps {
  yieldStress: number
  viscosity: number
  density: number
  colour: string
  width: number
  height: number
}

/** What a spoonful does. Yield stress and viscosity decide every line of it, nothing else. */
export const Spoon = memo(function Spoon({
  yieldStress,
  viscosity,
  density,
  colour,
  width,
  height,
}: SpoonProps) {
  const shapes = spoonShapes(yieldStress, viscosity, density)
  return (
    <svg width={width} height={height} viewBox="0 0 190 260" aria-hidden="true" className="overflow-hidden">
      <line x1={0} x2={190} y1={shapes.ground} y2={shapes.ground} stroke="var(--line2)" strokeWidth={1.4} />
      <g fill={colour} className="transition-[d] duration-200">
        {shapes.mass.map((d, k) => (
          <path key={k} d={d} />
        ))}
      </g>
      {shapes.coils.map((d, k) => (
        <path key={k} d={d} fill="none" stroke="#fff" strokeOpacity={0.42} strokeWidth={1.2} />
      ))}
      <path d={shapes.back} fill="none" stroke="var(--ink)" strokeWidth={1.5} transform={shapes.turn} />
      <path
        d={shapes.bowl}
        fill="var(--spoon)"
        stroke="var(--ink)"
        strokeWidth={1.5}
        transform={shapes.turn}
      />
      <g fill={colour}>
        {shapes.front.map((d, k) => (
          <path key={k} d={d} />
        ))}
      </g>
      <path
        d={shapes.rim}
        fill="none"
        stroke="var(--rim)"
        strokeWidth={3.2}
        strokeLinecap="round"
        transform={shapes.turn}
      />
      {shapes.gleam && (
        <path
          d={shapes.gleam}
          fill="none"
          stroke="#fff"
          strokeOpacity={0.45}
          strokeWidth={3}
          strokeLinecap="round"
        />
      )}
    </svg>
  )
})
