import { Button, Form } from 'react-bootstrap'
import { READING } from '@core/reading/specs.ts'
import { type CellLine } from '@contract/cell.ts'
import { newKey } from '@web/api/client.ts'
import { force, type Units } from '@web/format/numbers.ts'
import { measures } from '@web/format/measures.ts'
import { CautionLines } from '@web/guide/CautionLines.tsx'
import { AtCell } from '@web/kit/atcell.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { needed, useReadForm } from '@web/kit/readform.ts'
import { QuantityField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useRead } from '@web/reading/queries.ts'
import { isHeavier, pullWords, type Length } from './cellwords.ts'

/** The pull through one length of the way: the first is what the next ones are compared with. */
export function PullForm(props: { cell: CellLine; length: Length; units: Units; onDone: () => void }) {
  const { cell, length, units } = props
  const read = useRead()
  const form = useReadForm({ pull: needed({ of: 'force', units, above: 0, to: 200 }) }, { pull: '' })
  const [method] = READING.segmentPull.methods
  const before = pullWords(length.piece, cell.pulls, units)
  const first = cell.pulls.find((p) => p.piece === length.piece)
  const now = form.now()?.pull ?? null
  const send = ({ pull }: { pull: number }) =>
    read.mutate(
      {
        ...{ key: newKey(), stationId: cell.stationId, what: 'segmentPull', method: 'scale', how: 'measured' },
        ...{
          value: pull,
          left: null,
          grade: null,
          from: { piece: length.piece ?? 0 },
          isMeant: false,
          keepGoing: null,
        },
      },
      { onSuccess: props.onDone },
    )
  return (
    <Form noValidate className="cell-pull" onSubmit={form.submit(send)}>
      <h2>
        Pull through {length.name}{' '}
        <span className="dim">{before || 'not pulled yet: this one is what the next are compared with'}</span>
      </h2>
      <p>{method?.do}</p>
      <AtCell value={true}>
        <CautionLines className="step-hazard" hazards={method?.hazards ?? []} />
      </AtCell>
      <div className="cell-fields">
        <QuantityField form={form} name="pull" id="segment-pull" label={`pull, ${measures(units).force.word}`} />
        <Button type="submit" variant="chalk" disabled={read.isPending}>
          Keep it
        </Button>
        <Bare onClick={props.onDone}>leave it</Bare>
      </div>
      {now !== null && first ? (
        <p role="status">
          {isHeavier(now, first.firstN)
            ? `Half again over the first (${force(first.firstN, units)}): this length, its bends and joints want a look.`
            : `First time here it was ${force(first.firstN, units)}: nothing out of the way.`}
        </p>
      ) : null}
      <Trouble problem={read.error} />
    </Form>
  )
}
