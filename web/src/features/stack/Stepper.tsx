import type { PlaceStep } from '../../api/client'

interface StepperProps {
  step: PlaceStep
  onStep: (value: number) => void
}

/** A number of the selected place, one step at a time, with what one more takes. */
export function Stepper({ step, onStep }: StepperProps) {
  const rounded = (value: number) => Math.round(value * 1000) / 1000
  const shown = rounded(Math.round(step.value * 100) / 100)
  const unit = step.unit ? ` ${step.unit}` : ''
  const button = (sign: -1 | 1, word: string) => (
    <button
      type="button"
      aria-label={`${word} ${step.word}: ${rounded(shown + sign * step.by)}${unit}`}
      disabled={shown + sign * step.by <= 0}
      className="h-9 w-9 shrink-0 rounded-lg border-2 border-rim text-title leading-none font-[720] text-rim hover:bg-rim-tint disabled:opacity-50 pointer-coarse:h-11 pointer-coarse:w-11"
      onClick={() => onStep(rounded(shown + sign * step.by))}
    >
      {sign < 0 ? '−' : '+'}
    </button>
  )
  return (
    <div role="group" aria-label={step.word} className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <b className="w-[5.2em] text-[14.5px] first-letter:uppercase">{step.word}</b>
      {button(-1, 'Less')}
      <span className="min-w-[4.4em] text-center text-title font-[720]">
        {shown}
        <span className="text-body font-[450]">{unit}</span>
      </span>
      {button(1, 'More')}
      <span className="text-note text-ink2">{step.words}</span>
    </div>
  )
}
