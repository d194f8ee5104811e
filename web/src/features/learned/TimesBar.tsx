import type { LearnedOffset } from '../../api/client'

/** Half and twice the book stand at the ends. */
const END = Math.log(2)
const WIDTH = 220

/** How far something is off the book, with its band, on a scale from half to twice. */
export function TimesBar({ times }: { times: LearnedOffset['times'] }) {
  const x = (value: number) => {
    const at = Math.max(-END, Math.min(END, Math.log(value)))
    return WIDTH / 2 + (at / END) * (WIDTH / 2 - 8)
  }
  return (
    <svg width={WIDTH} height={26} viewBox={`0 0 ${WIDTH} 26`} aria-hidden="true" className="max-w-full">
      <line x1={4} x2={WIDTH - 4} y1={13} y2={13} stroke="var(--line)" strokeWidth={2} />
      <line x1={WIDTH / 2} x2={WIDTH / 2} y1={3} y2={23} stroke="var(--ink)" strokeWidth={2} />
      <rect
        x={x(times.low)}
        y={8}
        width={Math.max(3, x(times.high) - x(times.low))}
        height={10}
        rx={3}
        fill="var(--rim)"
        opacity={0.35}
      />
      <circle cx={x(times.value)} cy={13} r={6} fill="var(--rim)" stroke="var(--enamel)" strokeWidth={2} />
    </svg>
  )
}
