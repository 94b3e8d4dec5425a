import { Button, Form } from 'react-bootstrap'
import { shownQuantity } from '@core/units/quantity.ts'
import { type CellLine } from '@contract/cell.ts'
import { type Units } from '@web/format/numbers.ts'
import { measures } from '@web/format/measures.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { quantity, useReadForm } from '@web/kit/readform.ts'
import { QuantityField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSet } from '@web/rightparts/queries.ts'

/** Blade and clamp of the reamer as they are: what they have to go with is known, and said at once. */
export function ReamerForm({ cell, units, onDone }: { cell: CellLine; units: Units; onDone: () => void }) {
  const set = useSet()
  const rule = { of: 'rule', units, above: 0, to: 60 } as const
  const form = useReadForm(
    { blade: quantity({ ...rule, kept: cell.bladeMm }), clamp: quantity({ ...rule, kept: cell.clampMm }) },
    { blade: shownQuantity(cell.bladeMm, rule), clamp: shownQuantity(cell.clampMm, rule) },
  )
  const word = measures(units).rule.word
  return (
    <Form
      noValidate
      onSubmit={form.submit(({ blade, clamp }) => {
        const settings = [
          ...(blade === null ? [] : [{ name: 'reamerBlade' as const, value: String(blade) }]),
          ...(clamp === null ? [] : [{ name: 'reamerClamp' as const, value: String(clamp) }]),
        ]
        if (settings.length === 0) return form.refuse('blade', 'Write what the blade or the clamp measures.')
        set.mutate({ stationId: cell.stationId, how: 'read', settings }, { onSuccess: onDone })
      })}
    >
      <p>
        Blade: measured across, a little under the nozzle’s bore. Clamp: the bore of the nozzle it is made for, as it is
        stamped.
      </p>
      <div className="cell-fields">
        <QuantityField form={form} name="blade" id="reamer-blade" label={`blade, ${word}`} />
        <QuantityField form={form} name="clamp" id="reamer-clamp" label={`clamp, ${word}`} />
        <Button type="submit" variant="chalk" disabled={set.isPending}>
          Keep it
        </Button>
        <Bare onClick={onDone}>leave it</Bare>
      </div>
      <Trouble problem={set.error} />
    </Form>
  )
}
