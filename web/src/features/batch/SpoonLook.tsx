import type { SpoonToSee } from '../../api/client'
import { degrees } from '../../lib/format'
import { lifted } from '../../lib/mixture'
import { Spoon } from '../bench/Spoon'

/** The sign to look for, drawn by the spoon. */
export function SpoonLook({ look }: { look: SpoonToSee }) {
  return (
    <figure className="mt-3 mr-4 flex items-center gap-4">
      <Spoon
        yieldStress={look.yield_stress_pa}
        viscosity={look.viscosity_pa_s}
        density={look.density_kg_m3}
        colour={look.tint ? lifted(look.tint) : 'var(--line2)'}
        width={110}
        height={150}
      />
      <figcaption className="text-title">
        <b className="block first-letter:uppercase">{look.words}</b>
        <span className="block text-lead text-ink2">
          {look.at_c == null ? 'so it falls from the spoon then' : `as worked out, at ${degrees(look.at_c)}`}
        </span>
      </figcaption>
    </figure>
  )
}
