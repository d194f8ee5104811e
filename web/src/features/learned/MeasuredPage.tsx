import { useState } from 'react'
import { Link } from 'react-router'
import type { KitchenMeasured, MeasuredKind, MeasuredPoint } from '../../api/client'
import { dayOf, degrees, twoDigits } from '../../lib/format'
import { useTitle } from '../../lib/hooks'
import { Button } from '../../ui/Button'
import { NotRead } from '../../ui/NotRead'
import { Select } from '../../ui/Select'
import { LogNav } from '../log/LogNav'
import { AgreementPlot } from './AgreementPlot'
import type { Against } from './AgreementPlot'
import { OverTimePlot } from './OverTimePlot'
import { useMeasured } from './queries'

const AGAINST: readonly (readonly [Against, string])[] = [
  ['said', 'what was predicted then'],
  ['book', 'the book alone'],
]

/** Predicted against measured: whether the predictions hold, and whether they get better. */
export function MeasuredPage() {
  useTitle('Predicted and measured, Log')
  const measured = useMeasured()
  const [against, setAgainst] = useState<Against>('said')
  if (measured.isError && !measured.data) {
    return <NotRead title="The tests cannot be read" error={measured.error} onAgain={measured.refetch} />
  }
  return (
    <div className="tray flex flex-1 flex-col gap-3 px-6 pt-3 pb-4 max-phone:px-4" aria-busy={!measured.data}>
      <LogNav />
      {measured.data && <Measured measured={measured.data} against={against} onAgainst={setAgainst} />}
    </div>
  )
}

interface MeasuredProps {
  measured: KitchenMeasured
  against: Against
  onAgainst: (against: Against) => void
}

function Measured({ measured, against, onAgainst }: MeasuredProps) {
  const { kinds, over_time } = measured
  if (kinds.length === 0) {
    return (
      <>
        <h1 className="text-display leading-tight">Nothing was tested yet</h1>
        <p className="max-w-[62ch] text-lead">
          A minute with a plate, a ring or a rod says how stiff a cream really is. Press B on the Bench, in
          Make or at a batch of the log.
        </p>
      </>
    )
  }
  return (
    <>
      <header className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <h1 className="mr-auto text-display leading-tight">{held(kinds)}</h1>
        <Select label="Against" inline value={against} onChange={onAgainst} options={AGAINST} />
        <Button className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </header>
      <section aria-label="Over time">
        <p className="text-lead">{over_time.sentence}</p>
        {over_time.tests.length > 1 && <OverTimePlot over={over_time} />}
      </section>
      <div className="grid grid-cols-2 gap-x-8 gap-y-6 max-narrow:grid-cols-1">
        {kinds.map((kind) => (
          <Kind key={kind.kind} kind={kind} against={against} />
        ))}
      </div>
    </>
  )
}

/** How many lie where they were said to. */
function held(kinds: readonly MeasuredKind[]): string {
  const inside = kinds.reduce((sum, own) => sum + own.inside, 0)
  const of = kinds.reduce((sum, own) => sum + own.of, 0)
  if (of === 0) return 'No test that counts says a number yet'
  return `${inside} of ${of} tests came out as predicted`
}

function Kind({ kind, against }: { kind: MeasuredKind; against: Against }) {
  return (
    <section aria-label={kind.name} className="min-w-0">
      <h2 className="text-title first-letter:uppercase">
        {kind.name}: {kind.counts}
        {kind.of > 0 && (
          <span className="text-lead font-normal text-ink2">
            {' '}
            {kind.inside} of {kind.of} within both bands
          </span>
        )}
      </h2>
      <AgreementPlot kind={kind} against={against} />
      <details className="mt-1">
        <summary className="inline-flex min-h-9 cursor-pointer items-center font-[640] text-rim pointer-coarse:min-h-11">
          As a table
        </summary>
        <Rows points={[...kind.points].reverse()} unit={kind.unit} against={against} />
      </details>
    </section>
  )
}

function Rows({ points, unit, against }: { points: MeasuredPoint[]; unit: string; against: Against }) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-[460px] border-collapse text-left text-note">
        <thead>
          <tr className="border-b border-line2">
            <th className="py-1 pr-3 font-[640]">Batch</th>
            <th className="pr-3 font-[640]">At</th>
            <th className="pr-3 text-right font-[640]">Predicted, {unit}</th>
            <th className="pr-3 text-right font-[640]">Measured, {unit}</th>
            <th className="font-[640]">Counts</th>
          </tr>
        </thead>
        <tbody>
          {points.map((own) => (
            <tr key={own.test} className="border-b border-line">
              <td className="py-1 pr-3">
                <Link className="text-rim underline" to={`/log/${own.batch}`}>
                  {own.name}
                </Link>
                , {dayOf(own.at)}
              </td>
              <td className="pr-3 whitespace-nowrap">{degrees(own.c)}</td>
              <td className="pr-3 text-right whitespace-nowrap">
                {twoDigits(own[against].value)} ({twoDigits(own[against].low)} to{' '}
                {twoDigits(own[against].high)})
              </td>
              <td className="pr-3 text-right whitespace-nowrap">
                {own.side === 'above' ? 'over ' : own.side === 'below' ? 'under ' : ''}
                {twoDigits(own.measured.value)}
              </td>
              <td className={own.counts === 'does_not_fit' ? 'text-hot' : ''}>
                {COUNTS[own.counts ?? 'none']}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

const COUNTS = {
  yes: 'yes',
  does_not_fit: 'does not fit: measure again',
  left_out: 'left out',
  none: 'teaches nothing',
} as const
