import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { CALENDAR_KINDS, type CalendarKind } from '@core/classes/calendar.ts'
import { type CalendarAnswer } from '@contract/classes.ts'
import { type Units } from '@web/format/numbers.ts'
import { dayKey } from '@web/format/times.ts'
import { anyDay, wallText, writtenDay } from '@web/kit/day.ts'
import { idIn } from '@web/kit/idin.ts'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { PickTyped, TypedField } from '@web/kit/TypedField.tsx'
import { neededWords, useReadForm, type Reader } from '@web/kit/readform.ts'
import { weekdayName } from './calendarwords.ts'
import { Clashes } from './Clashes.tsx'
import { useDropEntry, useSaveEntry } from './queries.ts'

export const KIND_NAME: Record<CalendarKind, string> = {
  class: 'a class',
  cellStop: 'a planned stop of cells',
  other: 'something else',
}
const kindText: Reader<CalendarKind> = (text) => ({ ok: true, value: text as CalendarKind })
const chosen: Reader<string> = (text) => ({ ok: true, value: text })
const weeksText: Reader<number> = (text) => {
  const n = Number(text)
  return Number.isInteger(n) && n >= 1 && n <= 12
    ? { ok: true, value: n }
    : { ok: false, why: 'Every how many weeks: 1 to 12.' }
}
type Entry = CalendarAnswer['entries'][number]

/** A class or a planned stop: whose, on which days of the week, from when to when. */
export function EntryForm(props: { at: CalendarAnswer; units: Units; entry: Entry | null; onDone: () => void }) {
  const { at, units, entry, onDone } = props
  const save = useSaveEntry()
  const drop = useDropEntry()
  const today = dayKey(at.nowMs, at.zone)
  const [days, setDays] = useState<number[]>(entry?.weekly?.weekdays ?? (entry ? [] : [1, 2, 3, 4, 5]))
  const hasOwnRule = entry?.rule != null && entry.weekly === null
  const form = useEntryForm({ at, units, entry, today })
  const [clashes, setClashes] = useState<string[] | null>(null)
  const send = form.submit((read) => {
    const { untilDay, everyWeeks, firstDay, ...rest } = read
    const weekly = hasOwnRule ? ('keep' as const) : days.length > 0 ? { weekdays: days, untilDay, everyWeeks } : null
    save.mutate(
      {
        ...{ ...rest, id: entry?.id ?? null, firstDay: firstDay ?? today, weekly },
        groupId: rest.kind === 'class' ? (idIn(at.groups, rest.groupId) ?? null) : null,
        areaId: idIn(at.areas, rest.areaId) ?? null,
      },
      { onSuccess: (answer) => (answer.clashes.length > 0 ? setClashes(answer.clashes) : onDone()) },
    )
  })
  if (clashes) return <Clashes lines={clashes} onDone={onDone} />
  return (
    <Form noValidate className="entry-form" onSubmit={send}>
      <h2>{entry ? entry.name : 'New in the calendar'}</h2>
      <What form={form} at={at} />
      {hasOwnRule ? (
        <p className="dim">It comes by a rule of its own, which stays as it is.</p>
      ) : (
        <WeekDays days={days} onDays={setDays} />
      )}
      {!hasOwnRule && days.length > 0 ? (
        <div className="group-fields">
          <TypedField form={form} name="everyWeeks" id="entry-weeks" label="Every how many weeks" inputMode="numeric" />
          <TypedField form={form} name="untilDay" id="entry-until" label="Last day, where it ends" />
        </div>
      ) : null}
      <Trouble problem={save.error ?? drop.error} />
      <p>
        <Button type="submit" variant="chalk" disabled={save.isPending}>
          Keep it
        </Button>{' '}
        <Bare onClick={onDone}>leave it</Bare>{' '}
        {entry ? (
          <Bare onClick={() => drop.mutate({ id: entry.id }, { onSuccess: onDone })}>it comes no more</Bare>
        ) : null}
      </p>
    </Form>
  )
}

type Asked = { at: CalendarAnswer; units: Units; entry: Entry | null; today: string }
function useEntryForm({ at, units, entry, today }: Asked) {
  return useReadForm(
    {
      ...{
        name: neededWords('What is it called?'),
        kind: kindText,
        groupId: chosen,
        areaId: chosen,
        start: wallText,
        end: wallText,
      },
      ...{
        firstDay: anyDay(units, today, 'From which day on?'),
        untilDay: anyDay(units, today),
        everyWeeks: weeksText,
      },
    },
    {
      ...{ name: entry?.name ?? '', kind: entry?.kind ?? 'class', groupId: entry?.groupId ?? at.groups[0]?.id ?? '' },
      ...{ areaId: entry?.areaId ?? '', start: entry?.start ?? '', end: entry?.end ?? '' },
      firstDay: writtenDay(entry?.firstDay ?? today, units),
      untilDay: entry?.weekly?.untilDay ? writtenDay(entry.weekly.untilDay, units) : '',
      everyWeeks: String(entry?.weekly?.everyWeeks ?? 1),
    },
  )
}

function What({ form, at }: { form: ReturnType<typeof useEntryForm>; at: CalendarAnswer }) {
  return (
    <div className="group-fields">
      <PickTyped
        form={form}
        name="kind"
        id="entry-kind"
        label="What it is"
        options={CALENDAR_KINDS.map((k) => [k, KIND_NAME[k]] as const)}
      />
      <TypedField form={form} name="name" id="entry-name" label="Called" maxLength={80} />
      {form.typed('kind') === 'class' ? (
        <PickTyped
          form={form}
          name="groupId"
          id="entry-group"
          label="Group"
          none="which?"
          options={at.groups.map((g) => [g.id, g.name] as const)}
        />
      ) : (
        <PickTyped
          form={form}
          name="areaId"
          id="entry-area"
          label="Where"
          none="anywhere"
          options={at.areas.map((a) => [a.id, a.name] as const)}
        />
      )}
      <TypedField form={form} name="start" id="entry-start" label="From" placeholder="08:50" />
      <TypedField form={form} name="end" id="entry-end" label="To" placeholder="10:20" />
      <TypedField form={form} name="firstDay" id="entry-first" label="First day" />
    </div>
  )
}

/** Days of the week it comes on; none: once. */
function WeekDays({ days, onDays }: { days: readonly number[]; onDays: (days: number[]) => void }) {
  return (
    <div className="entry-days" role="group" aria-label="Days of the week; none: once">
      {[1, 2, 3, 4, 5, 6, 7].map((d) => (
        <Key
          size="low"
          key={d}
          aria-pressed={days.includes(d)}
          onClick={() => onDays(days.includes(d) ? days.filter((x) => x !== d) : [...days, d].sort())}
        >
          {weekdayName(d)}
        </Key>
      ))}
      {days.length === 0 ? <span className="dim">no day: once, on the first day</span> : null}
    </div>
  )
}
