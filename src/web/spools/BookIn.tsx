import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { parseNumber } from '@core/units/number.ts'
import { lbToKg } from '@core/units/convert.ts'
import { type SpoolsAnswer } from '@contract/spools.ts'
import { type Units } from '@web/format/numbers.ts'
import { field, PickOne, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSpoolAct } from './queries.ts'
import { weight } from './spoolwords.ts'

/** Spools that came in: each gets a number, to be written on its flange. */
export function BookIn({ spools, units }: { spools: SpoolsAnswer; units: Units }) {
  const act = useSpoolAct()
  const [wireId, setWire] = useState('')
  const [count, setCount] = useState('1')
  const [kg, setKg] = useState('')
  const [lot, setLot] = useState('')
  const wire = spools.wires.find((w) => w.id === wireId)
  const n = Math.round(parseNumber(count) ?? 0)
  const label = parseNumber(kg)
  const send = () =>
    act.mutate({
      act: 'in',
      wireId,
      count: n,
      ...(label ? { labelKg: units === 'us' ? lbToKg(label) : label } : {}),
      ...(lot.trim() ? { lot: lot.trim() } : {}),
    })
  return (
    <section aria-label="Came in">
      <h2>Came in</h2>
      <div className="built-form">
        <PickOne
          id="bi-wire"
          label="wire"
          none="which wire?"
          value={wireId}
          options={spools.wires.map((w) => [w.id, w.name])}
          onPick={setWire}
        />
        <TextField id="bi-count" label="how many" inputMode="numeric" {...field(count, setCount)} />
        <TextField
          id="bi-kg"
          label={`on the label (${units === 'us' ? 'lb' : 'kg'})`}
          inputMode="decimal"
          placeholder={wire ? weight(wire.spoolKg, units) : ''}
          {...field(kg, setKg)}
        />
        <TextField id="bi-lot" label="lot, if you care" {...field(lot, setLot)} />
        <Button variant="chalk" disabled={!wireId || !(n >= 1 && n <= 50) || act.isPending} onClick={send}>
          Book in
        </Button>
      </div>
      <Trouble problem={act.error} />
      {act.data ? (
        <p className="said" role="status">
          Write {act.data.numbers.join(', ')} on {act.data.numbers.length === 1 ? 'its flange' : 'their flanges'}.
        </p>
      ) : null}
    </section>
  )
}
