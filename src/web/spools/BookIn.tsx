import { Button, Form } from 'react-bootstrap'
import { ownUnit } from '@core/units/quantity.ts'
import { type SpoolsAnswer } from '@contract/spools.ts'
import { type Units } from '@web/format/numbers.ts'
import { needed, neededWords, quantity, useReadForm, words } from '@web/kit/readform.ts'
import { PickTyped, QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSpoolAct } from './queries.ts'
import { weight } from './spoolwords.ts'

/** Numbers given out at once. */
const MOST = 50
/** Spools that came in: each gets a number, to be written on its flange. */
export function BookIn({ spools, units }: { spools: SpoolsAnswer; units: Units }) {
  const act = useSpoolAct()
  const mass = { of: 'mass', units } as const
  const form = useReadForm(
    {
      wireId: neededWords('Which wire?'),
      count: needed({ of: 'count', from: 1, to: MOST }),
      kg: quantity({ ...mass, above: 0 }),
      lot: words,
    },
    { wireId: '', count: '1', kg: '', lot: '' },
  )
  const wire = spools.wires.find((w) => w.id === form.typed('wireId'))
  const send = form.submit(({ wireId, count, kg, lot }) =>
    act.mutate({
      act: 'in',
      ...{ wireId, count },
      ...(kg === null ? {} : { labelKg: kg }),
      ...(lot === null ? {} : { lot }),
    }),
  )
  return (
    <section aria-label="Came in">
      <h2>Came in</h2>
      <Form noValidate className="built-form" onSubmit={send}>
        <PickTyped
          form={form}
          name="wireId"
          id="bi-wire"
          label="wire"
          none="which wire?"
          options={spools.wires.map((w) => [w.id, w.name])}
        />
        <QuantityField form={form} name="count" id="bi-count" label="how many" />
        <QuantityField
          form={form}
          name="kg"
          id="bi-kg"
          label={`on the label (${ownUnit(mass)})`}
          placeholder={wire ? weight(wire.spoolKg, units) : ''}
        />
        <TypedField form={form} name="lot" id="bi-lot" label="lot, if you care" />
        <Button type="submit" variant="chalk" disabled={act.isPending}>
          Book in
        </Button>
      </Form>
      <Trouble problem={act.error} />
      {act.data ? (
        <p className="said" role="status">
          Write {act.data.numbers.join(', ')} on {act.data.numbers.length === 1 ? 'its flange' : 'their flanges'}.
        </p>
      ) : null}
    </section>
  )
}
