import { useCallback } from 'react'
import { Link, useSearchParams } from 'react-router'
import type { KitchenDocument, TookMinutes } from '../../api/client'
import { DraftNotice } from '../../desk/DraftNotice'
import { useHistory } from '../../desk/history'
import { SavePanel } from '../../desk/SavePanel'
import { useDeskKeys } from '../../desk/useDeskKeys'
import { useOpened } from '../../desk/useOpened'
import type { Looked } from '../../desk/useOpened'
import { useSaving } from '../../desk/useSaving'
import type { Opened } from '../../desk/useSaving'
import { useTitle } from '../../lib/hooks'
import { Button } from '../../ui/Button'
import { Select } from '../../ui/Select'
import { NumberField } from '../../ui/NumberField'
import { TextField } from '../../ui/TextField'
import { Tick } from '../../ui/Tick'
import { RULES } from '../clock/choice'
import { Equipment } from './Equipment'
import { OwnMinutes } from './OwnMinutes'
import { Hours } from './Hours'
import { ROOM, THE_ROOM, useRoom } from './queries'
import { TimeField } from './TimeField'
import { TakeOut } from './TakeOut'
import { NotRead } from '../../ui/NotRead'

/** Under which a room that is not kept yet is a draft: there is one. */
const FIRST = 'the-first-room'

/** The pastry room: hours, cooks, equipment. */
export function RoomPage() {
  useTitle('The kitchen, Day')
  const room = useRoom()
  const [asked] = useSearchParams()
  if (room.isError && !room.data) {
    return <NotRead title="The kitchen cannot be read" error={room.error} onAgain={room.refetch} />
  }
  if (!room.data) return <div className="tray flex-1" aria-busy="true" />
  const { kept, usual, took } = room.data
  const looked: Looked<KitchenDocument> = kept
    ? { saved: kept.document, begun: null, basedOn: kept.revision }
    : { saved: null, begun: usual, basedOn: 0 }
  return (
    <OnDesk
      thing={kept ? THE_ROOM : null}
      looked={looked}
      draft={asked.get('draft') ?? (kept ? null : FIRST)}
      took={took}
    />
  )
}

interface OnDeskProps {
  thing: string | null
  looked: Looked<KitchenDocument>
  draft: string | null
  /** What steps take by the kitchen's own batches. */
  took: readonly TookMinutes[]
}

function OnDesk({ thing, looked, draft, took }: OnDeskProps) {
  const { opened } = useOpened('room', thing, draft, looked)
  return opened ? <RoomDesk opened={opened} took={took} /> : <div className="tray flex-1" aria-busy="true" />
}

const SKILLS = [
  ['sugar', 'boil sugar'],
  ['pipe', 'pipe and drip'],
  ['bake', 'bake'],
] as const

function RoomDesk({ opened, took }: { opened: Opened<KitchenDocument>; took: readonly TookMinutes[] }) {
  const history = useHistory(opened.document)
  const { document, edit } = history
  // Its key is known before: nothing moves when it gets it.
  const onBorn = useCallback(() => undefined, [])
  const saving = useSaving(ROOM, opened, document, document, onBorn)
  useDeskKeys('The kitchen', { save: saving.save, undo: history.undo, redo: history.redo })
  const faults = saving.state.kind === 'refused' ? saving.state.faults : []
  const fault = (field: string) =>
    faults.find((own) => own.field === field || own.field === `document.${field}`)?.message
  const put = (next: Partial<KitchenDocument>, tag?: string) => edit((own) => ({ ...own, ...next }), tag)
  const cooks = document.cooks
  const putCook = (at: number, next: Partial<KitchenDocument['cooks'][number]>, tag?: string) =>
    put({ cooks: cooks.map((cook, place) => (place === at ? { ...cook, ...next } : cook)) }, tag)
  const reserve = document.reserve ?? { serve_min: 30, inside_min: 10 }
  const dates = document.dates ?? []
  const kept = opened.saved
  return (
    <div className="tray flex flex-1 flex-col gap-4 px-6 pt-3 pb-6 max-phone:px-4">
      <div className="flex flex-wrap items-start justify-between gap-4">
        <div className="min-w-0 flex-1 basis-72">
          <h1 className="text-display">The kitchen</h1>
          <p className="text-ink2">
            When it is open, who is there and what stands in it: every plan is made for this.{' '}
            <Link className="font-[640] text-rim underline" to="/day">
              To the day
            </Link>
          </p>
          <DraftNotice saving={saving} onBack={kept && (() => history.load(kept))} />
        </div>
        <SavePanel
          compact
          keeping={ROOM}
          saving={saving}
          steps={history}
          name={document.name ?? ''}
          take="Take in hand"
          begin="Save the kitchen"
          inHand={(own) => own}
          onLoad={(next) => edit(() => next)}
        />
      </div>
      <div className="grid grid-cols-2 gap-x-10 gap-y-5 max-narrow:grid-cols-1">
        <section aria-label="Hours" className="flex flex-col gap-2">
          <TextField
            label="What it is called"
            value={document.name ?? ''}
            maxLength={120}
            fault={fault('name')}
            onChange={(name) => put({ name }, 'name')}
          />
          <h2 className="text-title">Open</h2>
          <Hours
            of="the kitchen"
            hours={document.hours}
            add="Other hours on other days"
            fault={fault('hours')}
            onChange={(hours) => put({ hours })}
          />
          <h3 className="font-[700]">On single dates</h3>
          <ul className="flex flex-col gap-1">
            {dates.map((own, at) => (
              <li key={at} className="flex flex-wrap items-end gap-3">
                <TextField
                  label="date"
                  type="date"
                  value={own.on}
                  className="w-40"
                  onChange={(on) =>
                    on &&
                    put(
                      { dates: dates.map((each, place) => (place === at ? { ...each, on } : each)) },
                      `on-${at}`,
                    )
                  }
                />
                <Tick
                  checked={(own.hours ?? []).length === 0}
                  onChange={(closed) =>
                    put({
                      dates: dates.map((each, place) =>
                        place === at
                          ? { ...each, hours: closed ? [] : [{ from: '07:00:00', to: '13:00:00' }] }
                          : each,
                      ),
                    })
                  }
                >
                  Closed
                </Tick>
                {(own.hours ?? []).map((hours, k) => (
                  <span key={k} className="flex gap-2">
                    {(['from', 'to'] as const).map((end) => (
                      <TimeField
                        key={end}
                        label={end}
                        value={hours[end]}
                        onChange={(time) =>
                          put({
                            dates: dates.map((each, place) =>
                              place === at
                                ? {
                                    ...each,
                                    hours: (each.hours ?? []).map((one, n) =>
                                      n === k ? { ...one, [end]: time } : one,
                                    ),
                                  }
                                : each,
                            ),
                          })
                        }
                      />
                    ))}
                  </span>
                ))}
                <TakeOut
                  what={`${own.on}`}
                  onClick={() => put({ dates: dates.filter((_, place) => place !== at) })}
                />
              </li>
            ))}
          </ul>
          <div>
            <Button
              look="quiet"
              className="px-2"
              onClick={() =>
                put({ dates: [...dates, { on: new Date().toISOString().slice(0, 10), hours: [] }] })
              }
            >
              A date with other hours
            </Button>
          </div>
          <TimeField
            label="A day of the kitchen begins at"
            value={document.day_starts ?? '04:00:00'}
            onChange={(day_starts) => put({ day_starts })}
          />
          <p className="text-note text-ink2">
            Work through the night counts to the day before: one day, one run sheet.
          </p>
        </section>
        <section aria-label="Cooks" className="flex flex-col gap-2">
          <h2 className="text-title">Cooks</h2>
          {fault('cooks') && (
            <p role="alert" className="text-small text-hot">
              {fault('cooks')}
            </p>
          )}
          <ul className="flex flex-col gap-3">
            {cooks.map((cook, at) => (
              <li key={at} className="border-t border-line pt-2">
                <div className="flex flex-wrap items-end gap-3">
                  <TextField
                    label="Name"
                    value={cook.name}
                    maxLength={60}
                    className="w-48"
                    fault={fault(`cooks.${at}.name`)}
                    onChange={(name) => putCook(at, { name }, `cook-${at}`)}
                  />
                  <Tick
                    checked={(cook.hours ?? []).length === 0}
                    onChange={(always) =>
                      putCook(at, {
                        hours: always
                          ? []
                          : [
                              {
                                on: ['monday', 'tuesday', 'wednesday', 'thursday', 'friday'],
                                from: '08:00:00',
                                to: '14:00:00',
                              },
                            ],
                      })
                    }
                  >
                    There whenever it is open
                  </Tick>
                  <TakeOut
                    what={`${cook.name}`}
                    onClick={() => put({ cooks: cooks.filter((_, place) => place !== at) })}
                  />
                </div>
                {(cook.hours ?? []).length > 0 && (
                  <div className="mt-1">
                    <Hours
                      of={cook.name || `cook ${at + 1}`}
                      hours={cook.hours ?? []}
                      add="Other hours on other days"
                      fault={fault(`cooks.${at}.hours`)}
                      onChange={(hours) => putCook(at, { hours })}
                    />
                  </div>
                )}
                <fieldset className="mt-1 flex flex-wrap items-center gap-x-4">
                  <legend className="text-small text-ink2">Does not</legend>
                  {SKILLS.map(([skill, words]) => (
                    <Tick
                      key={skill}
                      checked={(cook.cannot ?? []).includes(skill)}
                      onChange={(on) =>
                        putCook(at, {
                          cannot: on
                            ? [...(cook.cannot ?? []), skill]
                            : (cook.cannot ?? []).filter((own) => own !== skill),
                        })
                      }
                    >
                      {words}
                    </Tick>
                  ))}
                </fieldset>
              </li>
            ))}
          </ul>
          <div>
            <Button onClick={() => put({ cooks: [...cooks, { name: `Cook ${cooks.length + 1}` }] })}>
              One cook more
            </Button>
          </div>
          <Tick checked={document.shares ?? true} onChange={(shares) => put({ shares })}>
            One batch for several orders, where it keeps as good as fresh
          </Tick>
          <h2 className="mt-2 text-title">Held back</h2>
          <p className="text-note text-ink2">
            For a day that goes wrong. Where nothing can be held back, the plan says so.
          </p>
          <div className="flex flex-wrap gap-6">
            <NumberField
              label="Before each serving"
              unit="min"
              value={reserve.serve_min}
              min={0}
              max={1440}
              step={5}
              onCommit={(serve_min) => put({ reserve: { ...reserve, serve_min } })}
            />
            <NumberField
              label="Inside each longest wait"
              unit="min"
              value={reserve.inside_min}
              min={0}
              max={1440}
              step={5}
              onCommit={(inside_min) => put({ reserve: { ...reserve, inside_min } })}
            />
          </div>
          <Select
            label="Whose rule of cooling is kept (your local code decides)"
            value={document.cooling_rule ?? 'us_fda'}
            options={RULES}
            onChange={(cooling_rule) => put({ cooling_rule })}
          />
        </section>
        <Equipment document={document} put={put} fault={fault} />
        <OwnMinutes
          took={took}
          own={document.own_minutes ?? []}
          onChange={(own_minutes, tag) => put({ own_minutes }, tag)}
          fault={fault}
        />
      </div>
    </div>
  )
}
