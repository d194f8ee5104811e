import { createPortal } from 'react-dom'
import type { Assessment, FormulaDocument, MethodSheet, Ways } from '../../api/client'
import { unbroken, weighed } from '../../lib/format'
import { comesOut } from '../bench/point'
import { LETTERS } from '../bench/useTrying'
import { MethodSteps } from './MethodSteps'

interface PrintSheetProps {
  document: FormulaDocument
  answer: Assessment | undefined
  ways: Ways | undefined
  school: MethodSheet | undefined
}

/** What comes out of the printer: the formula to weigh, its verdict, the ways there and how it is made. */
export function PrintSheet({ document, answer, ways, school }: PrintSheetProps) {
  if (!answer) return null
  return createPortal(
    <div data-testid="print" className="hidden bg-white p-2 text-[12pt] text-black print:block">
      <h1 className="text-[20pt] leading-tight">{document.name || 'New formula'}</h1>
      {document.note && <p>{document.note}</p>}
      <p className="mt-1">
        <b>{answer.at.headline}.</b> {answer.at.detail} {comesOut(answer.at)}
      </p>
      <table className="mt-3 w-full text-left">
        <thead className="text-[9pt]">
          <tr>
            <th className="w-8" />
            <th>Ingredient</th>
            <th className="text-right">g</th>
            <th className="text-right">% of total</th>
            <th className="pl-4">That is</th>
          </tr>
        </thead>
        <tbody>
          {answer.lines.map((line, at) => (
            <tr key={at} className="border-t border-black/40">
              <td>
                <span className="inline-block h-[11pt] w-[11pt] border border-black" />
              </td>
              <td className="py-0.5">{unbroken(line.name)}</td>
              <td className="text-right text-[14pt] font-[700]">
                {line.mass_g.toLocaleString('en', { maximumFractionDigits: line.mass_g < 20 ? 1 : 0 })}
              </td>
              <td className="text-right">{line.of_total_percent.toFixed(1)}</td>
              <td className="pl-4">{line.in_pieces ?? line.in_spoons ?? ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1">
        Makes {Math.round(answer.totals.batch_mass_g).toLocaleString('en')} g,{' '}
        {Math.round(answer.figures.volume_ml).toLocaleString('en')} ml.
      </p>
      {[...answer.strained, ...answer.boiled].map((each) => (
        <p key={each.sentence} className="mt-1">
          {each.sentence}.
        </p>
      ))}
      {answer.to_make.length > 0 && (
        <section className="mt-4">
          <h2 className="text-[15pt]">Made first</h2>
          {answer.to_make.map((batch) => (
            <div key={batch.key} className="mt-1 break-inside-avoid">
              <p>
                <b>{batch.sentence}</b> Keeps {batch.cold_days} {batch.cold_days === 1 ? 'day' : 'days'} in
                the cold; it is made by its own sheet.
              </p>
              <table className="w-full text-left">
                <tbody>
                  {batch.lines.map((line, at) => (
                    <tr key={at} className="border-t border-black/40">
                      <td className="w-8">
                        <span className="inline-block h-[11pt] w-[11pt] border border-black" />
                      </td>
                      <td className="py-0.5">{unbroken(line.name)}</td>
                      <td className="text-right text-[14pt] font-[700]">{weighed(line.mass_g)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          ))}
        </section>
      )}
      {ways && ways.ways.length > 0 && (
        <section className="mt-4 break-inside-avoid">
          <h2 className="text-[15pt]">Ways there</h2>
          <ul>
            {ways.ways.map((way, at) => (
              <li key={way.title} className="border-t border-black/40 py-0.5">
                <b>
                  {LETTERS[at]}. {unbroken(way.title)}
                </b>
                : {way.effect_words}. {way.at.headline}.
                {way.changes.length > 1 &&
                  ` ${way.changes.map((change) => `${change.name} ${weighed(change.from_g)} → ${weighed(change.to_g)} g`).join(', ')}.`}
              </li>
            ))}
          </ul>
        </section>
      )}
      {school && (
        <section className="mt-4">
          <h2 className="text-[15pt]">Method</h2>
          <MethodSteps school={school} />
        </section>
      )}
      <p className="mt-4 text-[9pt]">
        Predictions carry their uncertainty; taste, probe and look. Allergens: check your own labels. Your
        local food code decides.
      </p>
    </div>,
    window.document.body,
  )
}
