import { Link } from 'react-router'
import type { Assessment } from '../../api/client'
import { weighed } from '../../lib/format'
import { Bowl } from '../../ui/Bowl'

/** What must be made before, each once, with what is weighed for it. */
export function MadeFirst({ answer }: { answer: Assessment | undefined }) {
  if (!answer || answer.to_make.length === 0) return null
  return (
    <section aria-label="Made first" className="border-t border-line pt-1.5">
      <h2 className="flex items-center gap-1.5 font-head text-body font-[640]">
        <Bowl />
        Made first
      </h2>
      <ul>
        {answer.to_make.map((batch) => (
          <li key={batch.key}>
            <details className="group">
              <summary className="flex min-h-9 cursor-pointer items-center gap-2 leading-tight pointer-coarse:min-h-11">
                <span
                  aria-hidden="true"
                  className="text-small text-ink2 transition-transform group-open:rotate-90"
                >
                  ▸
                </span>
                <span>{batch.sentence}</span>
              </summary>
              <div className="pb-2 pl-5">
                <table className="w-full text-note">
                  <tbody>
                    {batch.lines.map((line, at) => (
                      <tr key={at} className="border-t border-line">
                        <td className="py-0.5">{line.name}</td>
                        <td className="text-right font-[640]">{weighed(line.mass_g)} g</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
                <p className="mt-1 text-small text-ink2">
                  A {batch.word}, keeps {batch.cold_days} {batch.cold_days === 1 ? 'day' : 'days'} in the
                  cold.{' '}
                  <Link className="font-[640] text-rim underline" to={`/bench/${batch.component}`}>
                    Its sheet and method
                  </Link>
                </p>
              </div>
            </details>
          </li>
        ))}
      </ul>
    </section>
  )
}
