import type { Cut, StackAnswer } from '../../api/client'

interface TopViewProps {
  answer: StackAnswer
}

/** Each tier from above, cut into portions. */
export function TopView({ answer }: TopViewProps) {
  const largest = Math.max(60, ...answer.cuts.map((cut) => extent(cut)[0]))
  return (
    <div className="flex flex-wrap items-start gap-6 pt-2">
      {answer.cuts.map((cut) => (
        <TierFromAbove key={cut.tier} cut={cut} largest={largest} tiers={answer.tiers.length} />
      ))}
      {answer.cuts.length === 0 && <p className="text-ink2">No tier has a size yet.</p>}
    </div>
  )
}

function extent(cut: Cut): [number, number] {
  const outline = cut.outline
  switch (outline.shape) {
    case 'round':
      return [outline.diameter_mm, outline.diameter_mm]
    case 'rectangle':
      return [outline.length_mm, outline.width_mm]
    case 'heart':
      return [outline.side_mm * 1.71, outline.side_mm * 1.56]
    case 'hexagon':
      return [outline.across_mm * 1.16, outline.across_mm]
  }
}

function TierFromAbove({ cut, largest, tiers }: { cut: Cut; largest: number; tiers: number }) {
  const [wide, deep] = extent(cut)
  const scale = Math.min(1.7, 360 / largest)
  const pad = 8
  const [w, h] = [wide * scale + 2 * pad, deep * scale + 2 * pad]
  return (
    <figure>
      <svg width={w} height={h} role="img" aria-label={`Tier ${cut.tier + 1} from above: ${cut.words}`}>
        <g transform={`translate(${w / 2} ${h / 2}) scale(${scale})`}>
          <Outline cut={cut} />
          {cut.rings_mm.map((ring) => (
            <circle
              key={ring}
              r={ring / 2}
              fill="none"
              stroke="var(--rim)"
              strokeWidth={1.6 / scale}
              strokeDasharray={`${6 / scale} ${4 / scale}`}
            />
          ))}
          {cut.lines_mm.map(([x0, y0, x1, y1], k) => (
            <line
              key={k}
              x1={x0}
              y1={y0}
              x2={x1}
              y2={y1}
              stroke="var(--rim)"
              strokeWidth={1.6 / scale}
              strokeDasharray={`${6 / scale} ${4 / scale}`}
            />
          ))}
        </g>
      </svg>
      <figcaption className="mt-1 max-w-[360px]">
        {tiers > 1 && <b>Tier {cut.tier + 1}: </b>}
        {cut.portions} {cut.portions === 1 ? 'portion' : 'portions'}. {cut.words}.
      </figcaption>
    </figure>
  )
}

function Outline({ cut }: { cut: Cut }) {
  const look = { fill: 'var(--well)', stroke: 'var(--ink)', strokeWidth: 1.2 }
  const outline = cut.outline
  switch (outline.shape) {
    case 'round':
      return (
        <>
          <circle r={outline.diameter_mm / 2} {...look} />
          {outline.hole_mm > 0 && <circle r={outline.hole_mm / 2} {...look} fill="var(--enamel)" />}
        </>
      )
    case 'rectangle':
      return (
        <rect
          x={-outline.length_mm / 2}
          y={-outline.width_mm / 2}
          width={outline.length_mm}
          height={outline.width_mm}
          {...look}
        />
      )
    case 'heart': {
      // A square on its corner, with a half circle on each of its upper sides.
      const s = outline.side_mm
      const d = s * Math.SQRT1_2
      const r = s / 2
      return <path d={`M0 ${d}L${-d} 0A${r} ${r} 0 0 1 0 ${-d}A${r} ${r} 0 0 1 ${d} 0Z`} {...look} />
    }
    case 'hexagon': {
      const r = outline.across_mm / Math.sqrt(3)
      const points = Array.from({ length: 6 }, (_, k) => {
        const angle = (Math.PI / 3) * k
        return `${r * Math.cos(angle)} ${r * Math.sin(angle)}`
      })
      return <path d={`M${points.join('L')}Z`} {...look} />
    }
  }
}
