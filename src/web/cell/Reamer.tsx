import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { methodOf } from '@core/reading/specs.ts'
import { type CellLine, type CellsAnswer } from '@contract/cell.ts'
import { newKey } from '@web/api/client.ts'
import { measures } from '@web/format/measures.ts'
import { type Units } from '@web/format/numbers.ts'
import { capital } from '@web/format/words.ts'
import { CautionLines } from '@web/guide/CautionLines.tsx'
import { AtCell } from '@web/kit/atcell.ts'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { needed, quantity, useReadForm } from '@web/kit/readform.ts'
import { QuantityField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useRead } from '@web/reading/queries.ts'
import { ReamerForm } from './ReamerForm.tsx'
import { bladesSentence, reamSentence, tankSentence } from './reamerwords.ts'

interface Props {
  cell: CellLine
  at: CellsAnswer
  units: Units
  onDone: () => void
}

/** How the cell is made safe stands above; what else can hurt at the nozzle. */
const HAZARDS = (methodOf('beforeReam', 'look')?.hazards ?? []).filter((h) => h !== 'robot')

/** Reamer, cutter and sprayer beside one torch: what they did, what is seen in the nozzle before and after a ream, what is in the tank. */
export function Reamer(props: Props) {
  const { cell, at, units, onDone } = props
  const [isFitting, setFitting] = useState(false)
  if (isFitting) return <ReamerForm cell={cell} units={units} onDone={() => setFitting(false)} />
  const blades = bladesSentence(cell, units)
  const tank = tankSentence(cell, at, units)
  return (
    <div className="cell-reamer">
      <h2>Reamer and sprayer</h2>
      <p>{reamSentence(cell)}</p>
      {blades ? <p>{blades}</p> : null}
      <AtCell value={true}>
        <CautionLines className="step-hazard" hazards={HAZARDS} />
      </AtCell>
      <Look cell={cell} what="beforeReam" asks="As its turn comes, before it goes in: how shut is the nozzle?" />
      <Look cell={cell} what="afterReam" asks="Straight after it: what did it leave?" />
      {tank ? <p>{tank}</p> : null}
      <Tank cell={cell} units={units} />
      <p className="cell-more">
        <Bare onClick={() => setFitting(true)}>blade and clamp, as they measure</Bare>
        <Bare onClick={onDone}>leave it</Bare>
      </p>
    </div>
  )
}

/** One tap says what was seen. */
function Look({ cell, what, asks }: { cell: CellLine; what: 'beforeReam' | 'afterReam'; asks: string }) {
  const read = useRead()
  const method = methodOf(what, 'look')
  const [kept, setKept] = useState('')
  return (
    <fieldset className="cell-look">
      <legend>{asks}</legend>
      <div className="cell-keys">
        {method?.grades.map((g) => (
          <Key
            key={g.key}
            size="low"
            disabled={read.isPending}
            onClick={() =>
              read.mutate(
                {
                  ...{ key: newKey(), stationId: cell.stationId, what, method: 'look', how: 'looked', grade: g.key },
                  ...{ value: null, left: null, from: {}, isMeant: false, keepGoing: null },
                },
                { onSuccess: () => setKept(g.says) },
              )
            }
          >
            {capital(g.says)}
          </Key>
        ))}
      </div>
      {kept ? <p role="status">Kept: {kept}.</p> : null}
      <Trouble problem={read.error} />
    </fieldset>
  )
}

/** Litres as found, and as left where it was filled up. */
function Tank({ cell, units }: { cell: CellLine; units: Units }) {
  const read = useRead()
  const rule = { of: 'volume', units, from: 0, to: cell.cell.tankL ?? 100 } as const
  const form = useReadForm({ found: needed(rule), left: quantity(rule) }, { found: '', left: '' })
  const word = measures(units).volume.word
  return (
    <Form
      noValidate
      onSubmit={form.submit(({ found, left }) => {
        if (left !== null && left < found) return form.refuse('left', 'Filled up there is more in it than was found.')
        read.mutate(
          {
            ...{ key: newKey(), stationId: cell.stationId, what: 'agentTank', method: 'level', how: 'measured' },
            ...{ value: found, left, grade: null, from: {}, isMeant: false, keepGoing: null },
          },
          { onSuccess: () => form.begin({ found: '', left: '' }) },
        )
      })}
    >
      <div className="cell-fields">
        <QuantityField form={form} name="found" id="tank-found" label={`in the tank, ${word}`} />
        <QuantityField form={form} name="left" id="tank-left" label={`filled up to, ${word}`} />
        <Button type="submit" variant="chalk" disabled={read.isPending}>
          Keep it
        </Button>
      </div>
      {read.isSuccess ? <p role="status">Kept.</p> : null}
      <Trouble problem={read.error} />
    </Form>
  )
}
