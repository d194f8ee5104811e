import { createPortal } from 'react-dom'
import type { DayView, RunSheet } from '../../api/client'
import { shelfLabels } from './labels'
import { lanesOf } from './strip'
import { span, wallOf } from './time'

export type PrintKind = 'sheets' | 'timeline' | 'labels'

interface DayPrintProps {
  kind: PrintKind
  view: DayView
  sheets: RunSheet[] | undefined
  name: string
  revision: number
}

/** What comes out of the printer: a run sheet a cook, the timeline, or labels for the shelves; black on white. */
export function DayPrint({ kind, view, sheets, name, revision }: DayPrintProps) {
  const wall = wallOf(view)
  const printed = new Date().toLocaleString('en-GB', {
    dateStyle: 'medium',
    timeStyle: 'short',
    timeZone: view.zone,
  })
  const foot = `${name}, ${revision > 0 ? `plan version ${revision}` : 'a plan that is not used yet'}, printed ${printed}. A newer version replaces it.`
  const wrong = [...view.incomplete, ...view.exceeds, ...view.cautions]
  return createPortal(
    <div data-testid="print" className="hidden bg-white text-[11pt] text-black print:block">
      {wrong.length > 0 && (
        <section className="mb-2 border-[3px] border-black px-3 py-1">
          <b>Look here first</b>
          <ul>
            {wrong.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </section>
      )}
      {kind === 'sheets' &&
        (sheets ?? []).map((sheet) => (
          <section key={`${sheet.cook}${sheet.day}`} className="mb-6 break-after-page">
            <h1 className="text-[18pt] leading-tight">
              {sheet.cook}: {sheet.day}
            </h1>
            <p>
              {span(sheet.hands_min)} of hands.{' '}
              {view.orders.map((order) => `${order.letter} ${order.name}, ${order.words}`).join('; ')}.
            </p>
            <table className="mt-2 w-full border-collapse text-left">
              <thead>
                <tr className="border-b-2 border-black">
                  <th className="w-8" />
                  <th className="w-20">At</th>
                  <th>What</th>
                  <th className="w-16 text-right">Min</th>
                  <th className="w-24 pl-3">Really, °C</th>
                </tr>
              </thead>
              <tbody>
                {sheet.rows.map((row, at) => (
                  <tr key={at} className="break-inside-avoid border-b border-black/40 align-top">
                    <td className="pt-1.5">
                      <span className="block h-4 w-4 border-2 border-black" />
                    </td>
                    <td className="text-[14pt] font-[700]">{row.at}</td>
                    <td className="py-1">
                      <b>
                        {row.letter} {row.of}
                      </b>
                      : {row.what.join('; ')}
                      {[...row.out, ...row.into].map((words) => (
                        <span key={words} className="block text-[10pt]">
                          {words}
                        </span>
                      ))}
                    </td>
                    <td className="text-right">{row.lasts_min}</td>
                    <td className="border-l border-black/40" />
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="mt-2 text-[9pt]">
              Raw egg, hot sugar, blades, slow cooling: the method of each formula says what to mind; your
              local food code decides. {foot}
            </p>
          </section>
        ))}
      {kind === 'timeline' && (
        <section>
          <h1 className="text-[18pt]">{name}</h1>
          <p>{view.sentence}</p>
          {view.days.map((day) => (
            <section key={day.date} className="mt-3 break-inside-avoid">
              <h2 className="border-b-2 border-black text-[13pt]">{wall.date(day.strip[0] ?? 0)}</h2>
              <table className="w-full border-collapse text-left text-[10pt]">
                <tbody>
                  {lanesOf(view, day.strip).map((lane) => (
                    <tr key={lane.key} className="border-b border-black/40 align-top">
                      <th className="w-28 py-1">{lane.word}</th>
                      <td className="py-1">
                        {lane.rows
                          .flat()
                          .sort((a, b) => a.from - b.from)
                          .map((block) => (
                            <span key={block.step.step} className="mr-2 inline-block whitespace-nowrap">
                              <b>{wall.time(block.from)}</b>–{wall.time(block.to)} {block.step.letters}{' '}
                              {block.step.short}
                              {lane.cook === null ? ` (${block.step.of})` : ''};
                            </span>
                          ))}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
          ))}
          <p className="mt-2 text-[9pt]">{foot}</p>
        </section>
      )}
      {kind === 'labels' && (
        <div className="grid grid-cols-2 gap-3">
          {shelfLabels(view).map((label) => (
            <div key={label.key} className="break-inside-avoid border border-black p-3">
              <b className="block text-[14pt]">
                {label.letter} {label.of}
              </b>
              <p>For {label.order}</p>
              <p>
                Into the {label.place} {wall.date(label.from)} {wall.time(label.from)}
              </p>
              <p>
                Wanted {wall.date(label.until)} {wall.time(label.until)}
              </p>
              {label.useBy !== null && (
                <p className="font-[700]">
                  Use by {wall.date(label.useBy)} {wall.time(label.useBy)}
                </p>
              )}
              <p className="text-[8pt]">{foot}</p>
            </div>
          ))}
        </div>
      )}
    </div>,
    window.document.body,
  )
}
