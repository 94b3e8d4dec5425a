import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type CellsAnswer } from '@contract/cell.ts'
import { idIn } from '@web/kit/idin.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { neededWords, useReadForm } from '@web/kit/readform.ts'
import { TypedField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useGoRound, useMakeNeck } from './queries.ts'

/** Cells whose necks stay on: from a tap on they go round. */
export function GoRound({ at }: { at: CellsAnswer }) {
  const round = useGoRound()
  const fixed = at.cells.filter((c) => !c.goesRound && c.gunName !== null)
  if (fixed.length === 0) return null
  return (
    <section aria-label="Necks go round">
      <h2>Necks go round</h2>
      <p>
        A worn neck comes off whole, a ready one goes on, and the worn one is mended on the bench. Tip, nozzle, diffuser
        and jump liner then ride on the neck and keep their life with it; what is on now counts from today.
      </p>
      <div className="cell-fields">
        {fixed.map((c) => (
          <Button
            key={c.stationId}
            disabled={round.isPending}
            onClick={() => round.mutate({ stationIds: [c.stationId] })}
          >
            at {c.name}
          </Button>
        ))}
        {fixed.length > 1 ? (
          <Button
            variant="chalk"
            disabled={round.isPending}
            onClick={() => round.mutate({ stationIds: fixed.map((c) => c.stationId) })}
          >
            at all {fixed.length}
          </Button>
        ) : null}
      </div>
      <Trouble problem={round.error} />
    </section>
  )
}

/** A spare neck by its number; the bench says when it is ready. */
export function NewNeck({ at }: { at: CellsAnswer }) {
  const make = useMakeNeck()
  const quick = at.families.filter((f) => at.rounds.some((r) => r.familyId === f.id))
  const [familyId, setFamily] = useState<string>(quick[0]?.id ?? at.families[0]?.id ?? '')
  const form = useReadForm({ name: neededWords('Write the number that is engraved or painted on it.') }, { name: '' })
  return (
    <section aria-label="A spare neck">
      <h2>A spare neck</h2>
      <Form
        noValidate
        className="cell-fields"
        onSubmit={form.submit(({ name }) => {
          const id = idIn(at.families, familyId)
          if (!id) return form.refuse('name', 'Which family is it of?')
          make.mutate({ name, familyId: id }, { onSuccess: () => form.begin({ name: '' }) })
        })}
      >
        <TypedField form={form} name="name" id="neck-name" label="number on it" maxLength={40} autoComplete="off" />
        <PickOne
          id="neck-family"
          label="fit family"
          value={familyId}
          options={at.families.map((f) => [f.id, f.name] as const)}
          onPick={setFamily}
        />
        <Button type="submit" variant="chalk" disabled={make.isPending}>
          It lies on the bench
        </Button>
      </Form>
      <Trouble problem={make.error} />
    </section>
  )
}
