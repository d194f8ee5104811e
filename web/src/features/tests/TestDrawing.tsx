import type { BenchTestKind } from '../../api/client'

const MASS = 'var(--tape)'
const LINE = { fill: 'none', stroke: 'var(--ink)', strokeWidth: 2 } as const
const RULE = { fill: 'none', stroke: 'var(--rim)', strokeWidth: 2 } as const

/** What is done, drawn: the mass, the tool, and where the number is read. */
export function TestDrawing({ kind }: { kind: BenchTestKind }) {
  return (
    <svg viewBox="0 0 240 160" aria-hidden="true" className="h-[160px] w-[240px] self-start">
      {DRAWN[kind]}
    </svg>
  )
}

/** From one point to another, with a stroke across each end. */
function Measure({ x1, y1, x2, y2 }: { x1: number; y1: number; x2: number; y2: number }) {
  const flat = y1 === y2
  const end = (x: number, y: number) => (flat ? `M${x} ${y - 6}V${y + 6}` : `M${x - 6} ${y}H${x + 6}`)
  return <path d={`M${x1} ${y1}L${x2} ${y2}${end(x1, y1)}${end(x2, y2)}`} {...RULE} />
}

const DRAWN: Record<BenchTestKind, React.ReactNode> = {
  plate_spread: (
    <>
      <path d="M30 118Q120 86 210 118Z" fill={MASS} />
      <path d="M10 120H230" {...LINE} />
      <Measure x1={32} y1={140} x2={208} y2={140} />
    </>
  ),
  ring_slump: (
    <>
      <path d="M62 120Q64 74 90 70H150Q176 74 178 120Z" fill={MASS} />
      <path d="M70 30V84M170 30V84M70 30H170" {...LINE} strokeDasharray="5 5" />
      <path d="M10 120H230" {...LINE} />
      <Measure x1={200} y1={30} x2={200} y2={70} />
    </>
  ),
  tilt: (
    <>
      <g transform="rotate(-22 20 130)">
        <rect x="20" y="112" width="200" height="14" fill={MASS} />
        <path d="M20 127H225" {...LINE} />
      </g>
      <path d="M20 130H225" {...LINE} strokeDasharray="5 5" />
      <path d="M120 130A100 100 0 0 0 113 92" {...RULE} />
    </>
  ),
  spoon_fall: (
    <>
      <path d="M80 50Q120 86 160 50Z" fill={MASS} />
      <path d="M78 50H162M162 50L225 34" {...LINE} />
      <path d="M78 50Q120 14 162 50" {...LINE} />
      <path d="M120 88V130M112 120L120 132L128 120" {...RULE} />
    </>
  ),
  rod: (
    <>
      <rect x="40" y="80" width="160" height="60" fill={MASS} />
      <rect x="112" y="34" width="16" height="66" fill="var(--enamel)" stroke="var(--ink)" strokeWidth="2" />
      <rect x="92" y="10" width="56" height="24" fill="var(--enamel)" stroke="var(--ink)" strokeWidth="2" />
      <path d="M40 80V140H200V80" {...LINE} />
      <Measure x1={160} y1={80} x2={160} y2={100} />
    </>
  ),
  drip_length: (
    <>
      <path d="M60 20H180V34H140V104Q132 116 124 104V34H60Z" fill={MASS} />
      <path d="M60 34V150M180 34V150" {...LINE} />
      <Measure x1={156} y1={34} x2={156} y2={110} />
    </>
  ),
  cup_flow: (
    <>
      <path d="M84 26H156L126 80V112H114V80Z" fill={MASS} />
      <path d="M76 12L114 80V112M164 12L126 80V112" {...LINE} />
      <path d="M92 118V150H148V118" {...LINE} />
      <circle cx="200" cy="60" r="22" {...RULE} />
      <path d="M200 60V46M200 60L210 66" {...RULE} />
    </>
  ),
  held_weight: (
    <>
      <rect x="84" y="40" width="72" height="66" fill={MASS} />
      <path d="M84 36V106H156V36" {...LINE} />
      <rect x="60" y="108" width="120" height="30" fill="var(--enamel)" stroke="var(--ink)" strokeWidth="2" />
      <path d="M100 124H140" {...RULE} />
    </>
  ),
}
