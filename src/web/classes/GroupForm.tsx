import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { LEVEL_NAME, LEVELS, isCode, type Level } from '@core/classes/groups.ts'
import { type Group, type GroupsAnswer } from '@contract/classes.ts'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { PickField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { PickTyped, TypedField } from '@web/kit/TypedField.tsx'
import { neededWords, useReadForm, type Reader } from '@web/kit/readform.ts'
import { useSaveGroup } from './queries.ts'

const sizeText: Reader<number | null> = (text) => {
  if (text.trim() === '') return { ok: true, value: null }
  const n = Number(text)
  return Number.isInteger(n) && n >= 1 && n <= 200
    ? { ok: true, value: n }
    : { ok: false, why: `“${text}” is no number of people from 1 to 200.` }
}
const level: Reader<Level> = (text) => ({ ok: true, value: text as Level })

/** A group: its name, how far it is, how many; its booths, each with a wire and a code where that is wanted. */
export function GroupForm({ at, group, onDone }: { at: GroupsAnswer; group: Group | null; onDone: () => void }) {
  const save = useSaveGroup()
  const [booths, setBooths] = useState(
    new Map(
      (group?.booths ?? []).map((b) => [
        b.stationId as string,
        { wireId: b.wireId as string | null, learner: b.learner ?? '' },
      ]),
    ),
  )
  const [why, setWhy] = useState<string | null>(null)
  const form = useReadForm(
    { name: neededWords('Give the group a name.'), level, size: sizeText },
    { name: group?.name ?? '', level: group?.level ?? 'new', size: group?.size ? String(group.size) : '' },
  )
  const send = (isActive: boolean) =>
    form.submit((read) => {
      const bad = [...booths].find(([, b]) => b.learner !== '' && !isCode(b.learner))
      if (bad) return setWhy(`“${bad[1].learner}” could be a name: give a code with a figure in it, like L7.`)
      setWhy(null)
      const list = [...booths].map(([stationId, b]) => ({ stationId, wireId: b.wireId, learner: b.learner || null }))
      save.mutate({ id: group?.id ?? null, ...read, isActive, booths: isActive ? list : [] }, { onSuccess: onDone })
    })
  return (
    <Form noValidate className="group-form" onSubmit={send(true)}>
      <div className="group-fields">
        <TypedField form={form} name="name" id="group-name" label="Name of the group" maxLength={40} />
        <PickTyped
          form={form}
          name="level"
          id="group-level"
          label="How far they are"
          options={LEVELS.map((l) => [l, LEVEL_NAME[l]] as const)}
        />
        <TypedField form={form} name="size" id="group-size" label="How many" inputMode="numeric" />
      </div>
      <Booths at={at} booths={booths} onBooths={setBooths} />
      <Trouble problem={save.error} />
      {why ? (
        <p className="trouble" role="alert">
          {why}
        </p>
      ) : null}
      <p>
        <Button type="submit" variant="chalk" disabled={save.isPending}>
          Keep it
        </Button>{' '}
        <Bare onClick={onDone}>leave it</Bare>{' '}
        {group ? <Bare onClick={() => void send(false)()}>the group has left</Bare> : null}
      </p>
    </Form>
  )
}

type Chosen = Map<string, { wireId: string | null; learner: string }>
/** Booths by bay: a tap takes one, another gives it back; those taken say their wire and who, as a code. */
function Booths({ at, booths, onBooths }: { at: GroupsAnswer; booths: Chosen; onBooths: (booths: Chosen) => void }) {
  const put = (id: string, own: { wireId: string | null; learner: string } | null) => {
    const next = new Map(booths)
    if (own) next.set(id, own)
    else next.delete(id)
    onBooths(next)
  }
  return (
    <fieldset className="group-booths">
      <legend>Booths: tap those that are theirs. A code where you want to know who; never a name.</legend>
      {at.areas.map((area) => {
        const here = at.booths.filter((b) => b.areaId === area.id)
        return here.length === 0 ? null : (
          <details key={area.id} open={here.some((b) => booths.has(b.stationId)) || at.areas.length === 1}>
            <summary>
              {area.name}{' '}
              <span className="dim">
                {here.filter((b) => booths.has(b.stationId)).length} of {here.length}
              </span>
            </summary>
            <div className="group-bay">
              {here.map((b) => {
                const own = booths.get(b.stationId)
                return (
                  <div key={b.stationId} className={own ? 'group-booth is-theirs' : 'group-booth'}>
                    <Key
                      size="low"
                      aria-pressed={own !== undefined}
                      onClick={() => put(b.stationId, own ? null : { wireId: null, learner: '' })}
                    >
                      {b.name}
                    </Key>
                    {own ? (
                      <>
                        <Form.Control
                          aria-label={`Code at ${b.name}`}
                          placeholder="code"
                          maxLength={12}
                          value={own.learner}
                          onChange={(e) => put(b.stationId, { ...own, learner: e.target.value })}
                        />
                        <PickField
                          id={`wire-${b.stationId}`}
                          label={`Wire at ${b.name}`}
                          value={own.wireId ?? ''}
                          onChange={(e) => put(b.stationId, { ...own, wireId: e.target.value || null })}
                        >
                          <option value="">as it is</option>
                          {at.wires.map((w) => (
                            <option key={w.id} value={w.id}>
                              {w.name}
                            </option>
                          ))}
                        </PickField>
                      </>
                    ) : null}
                  </div>
                )
              })}
            </div>
          </details>
        )
      })}
    </fieldset>
  )
}
