import { useState } from 'react'
import type { Assessment } from '../../api/client'
import { twoDigits } from '../../lib/format'
import { keysAreFree } from '../../lib/hooks'
import { Keycap } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { useKeys } from '../../lib/keys'

/** Where the prediction comes from, in plain words: its terms, what each line does, where the band comes from. */
export function WhySheet({ answer }: { answer: Assessment }) {
  const [open, setOpen] = useState(false)
  useKeys('Bench', [
    {
      key: 'w',
      words: 'Why it comes out so',
      // The key that opened it closes it; over another sheet it opens nothing.
      always: true,
      when: (event) => open || keysAreFree(event),
      run: () => setOpen(!open),
    },
  ])
  const { why, at } = answer
  const widest = Math.max(1, ...why.levers.map((lever) => Math.abs(lever.stiffer_percent)))
  return (
    <>
      <button
        type="button"
        className="inline-flex items-center gap-1 rounded-md px-1 font-[640] text-rim underline hover:bg-rim-tint pointer-coarse:min-h-11"
        onClick={() => setOpen(true)}
      >
        Why? <Keycap>W</Keycap>
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={`Why ${twoDigits(at.on_map.value)} ${answer.axis === 'yield_stress_pa' ? 'Pa' : 'Pa·s'}?`}
        lead={why.structure}
      >
        <div className="flex min-h-0 flex-col gap-5 overflow-y-auto pr-1">
          <section aria-label="Where the strength comes from">
            <h3 className="font-head text-lead font-[640]">Where its strength comes from</h3>
            {why.terms.length === 0 && <p>Nothing holds it: it flows under its own weight.</p>}
            <ul>
              {why.terms.map((term) => (
                <li key={term.key} className="border-b border-line py-2 last:border-0">
                  <span className="flex items-baseline gap-3">
                    <b className="w-36">{term.name}</b>
                    <span className="w-20 text-right font-[640]">{twoDigits(term.pascal)} Pa</span>
                    <svg width="180" height="12" aria-hidden="true" className="shrink-0">
                      <rect width="180" height="12" rx="2" fill="var(--well)" />
                      <rect width={1.8 * term.of_yield_percent} height="12" rx="2" fill="var(--rim)" />
                    </svg>
                    <span className="text-ink2">{term.of_yield_percent.toFixed(0)} %</span>
                  </span>
                  <span className="text-note text-ink2">{term.sentence}</span>
                </li>
              ))}
            </ul>
          </section>
          <section aria-label="What a little more does">
            <h3 className="font-head text-lead font-[640]">What a little more would do</h3>
            <ul>
              {why.levers.map((lever) => {
                const length = (90 * Math.abs(lever.stiffer_percent)) / widest
                const stiffer = lever.stiffer_percent > 0
                return (
                  <li
                    key={lever.change}
                    className="flex items-center gap-3 border-b border-line py-1.5 last:border-0"
                  >
                    <span className="min-w-0 flex-1">{lever.change}</span>
                    <svg width="184" height="12" aria-hidden="true" className="shrink-0">
                      <line x1="92" x2="92" y1="0" y2="12" stroke="var(--line2)" />
                      <rect
                        x={stiffer ? 92 : 92 - length}
                        y="2"
                        width={Math.max(1, length)}
                        height="8"
                        fill={stiffer ? 'var(--ink)' : 'var(--rim)'}
                      />
                    </svg>
                    <span className="w-40">{lever.effect}</span>
                  </li>
                )
              })}
            </ul>
          </section>
          {answer.learned && (
            <section aria-label="What your own tests say">
              <h3 className="font-head text-lead font-[640]">What your own tests say</h3>
              <ul className="list-disc pl-5">
                {answer.learned.parts.map((part) => (
                  <li key={part.name}>
                    {part.words}{' '}
                    <span className="text-note text-ink2">{twoDigits(part.here)} times of it here.</span>
                  </li>
                ))}
              </ul>
            </section>
          )}
          <section aria-label="How sure it is">
            <h3 className="font-head text-lead font-[640]">How sure it is</h3>
            <ul className="list-disc pl-5 text-note">
              {why.band.map((words) => (
                <li key={words}>{words}</li>
              ))}
            </ul>
          </section>
        </div>
      </Sheet>
    </>
  )
}
