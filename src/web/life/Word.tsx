import { Button, Form } from 'react-bootstrap'
import { type LifeAnswer } from '@contract/life.ts'
import { shownQuantity } from '@core/units/quantity.ts'
import { lifeQuantity } from '@web/format/measures.ts'
import { unitWord, type Units } from '@web/format/numbers.ts'
import { needed, useReadForm } from '@web/kit/readform.ts'
import { QuantityField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { partsName } from './lifewords.ts'
import { useWord } from './queries.ts'

/** The lead's word: two numbers that count until the shop's own lives speak. */
export function Word({ at, units }: { at: LifeAnswer; units: Units }) {
  const save = useWord()
  const use = lifeQuantity(at.unit, units)
  const form = useReadForm(
    {
      usual: needed({ ...use, above: 0, kept: at.word?.usual }),
      early: needed({ ...use, above: 0, kept: at.word?.early }),
    },
    { usual: shownQuantity(at.word?.usual, use), early: shownQuantity(at.word?.early, use) },
  )
  const unit = unitWord(at.unit, units)
  const whose = { kindKey: at.kind, classKey: at.classKey ?? '*' }
  const send = form.submit(({ usual, early }) => {
    if (early >= usual) return form.refuse('early', 'The early one must be less than the usual one.')
    save.mutate({ ...whose, usual, early })
  })
  return (
    <details className="life-word" open={at.told === null}>
      <summary>Your word on {partsName(at.kind)}</summary>
      <Form noValidate className="walk-which" onSubmit={send}>
        <QuantityField form={form} name="usual" id="word-usual" label={`Usually they do (${unit})`} />
        <QuantityField form={form} name="early" id="word-early" label={`One in ten is gone by (${unit})`} />
        <Button type="submit" disabled={save.isPending}>
          Say it
        </Button>
        {at.word ? (
          <Button variant="outline-secondary" onClick={() => save.mutate({ ...whose, usual: null, early: null })}>
            Take it back
          </Button>
        ) : null}
      </Form>
      <p className="dim">It counts as a few lives would: your own records soon outweigh it.</p>
      <Trouble problem={save.error} />
    </details>
  )
}
