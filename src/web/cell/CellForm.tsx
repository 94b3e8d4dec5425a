import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import {
  BOOSTERS,
  CONDUIT_LININGS,
  CUTTERS,
  PAYOFFS,
  REACHES,
  type CellFit,
  type ConduitLining,
  type ConduitPiece,
} from '@core/rightparts/facts.ts'
import { shownQuantity } from '@core/units/quantity.ts'
import { type CellLine } from '@contract/cell.ts'
import { type Units } from '@web/format/numbers.ts'
import { measures } from '@web/format/measures.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { PickOne, type Option } from '@web/kit/Field.tsx'
import { needed, neededWords, quantity, useReadForm, words } from '@web/kit/readform.ts'
import { QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

const same = <V extends string>(list: readonly V[]): Option<V>[] => list.map((v) => [v, v])

/** How one cell is built: the way of its wire in lengths between joints, what stands beside its torch, its limits, how it is made safe. */
export function CellForm(props: { cell: CellLine; others: readonly CellLine[]; units: Units; onDone: () => void }) {
  const { cell, units } = props
  const save = useSave('/shop/station')
  const [built, setBuilt] = useState<CellFit>(cell.cell)
  const numbers = numbersOf(cell.cell, units)
  const form = useReadForm(numbers.readers, numbers.begin)
  const pick = (part: Partial<CellFit>) => setBuilt({ ...built, ...part })
  const others = props.others.filter((c) => c.stationId !== cell.stationId && c.cell.payoff !== null)
  return (
    <Form
      noValidate
      className="cell-form"
      onSubmit={form.submit((read) =>
        save.mutate(
          { stationId: cell.stationId, except: { cell: { ...built, ...read } } },
          { onSuccess: props.onDone },
        ),
      )}
    >
      {others.length > 0 ? (
        <p>
          Built as{' '}
          {others.map((o) => (
            <Bare
              key={o.stationId}
              onClick={() => {
                // What is planned there, and since when it runs, is that one’s own.
                setBuilt({ ...o.cell, plan: built.plan, drumSinceMs: built.drumSinceMs })
                form.begin(numbersOf(o.cell, units).begin)
              }}
            >
              {o.name}
            </Bare>
          ))}{' '}
          then change what differs.
        </p>
      ) : null}
      <Picks built={built} pick={pick} />
      {built.booster === 'air' ? (
        <p className="dim">
          An air booster can mark wire and put oil on it: judge it by the wire that comes, marks and a wipe with a clean
          rag.
        </p>
      ) : null}
      <Pieces pieces={built.conduit ?? []} units={units} onChange={(conduit) => pick({ conduit })} />
      <div className="cell-fields">
        <QuantityField
          form={form}
          name="centreMm"
          id="cf-centre"
          label={`tool centre off at most, ${measures(units).rule.word}`}
        />
        <QuantityField form={form} name="cycleArcS" id="cf-cycle" label="arc in one cycle, seconds" />
        <QuantityField form={form} name="reamEvery" id="cf-ream" label="cycles from ream to ream" />
        <QuantityField form={form} name="shotsPerReam" id="cf-shots" label="shots of anti-spatter a ream" />
        <QuantityField form={form} name="sprayMl" id="cf-shot" label="a shot, ml" />
        <QuantityField form={form} name="tankL" id="cf-tank" label={`its tank, ${measures(units).volume.word}`} />
      </div>
      <TypedField
        form={form}
        name="lockOut"
        id="cf-lock"
        label="how this cell is made safe before anybody goes in (it is said first, at every job here)"
        maxLength={400}
      />
      <div className="cell-fields">
        <Button type="submit" variant="chalk" disabled={save.isPending}>
          Save
        </Button>
        <Bare onClick={props.onDone}>leave it</Bare>
      </div>
      <Trouble problem={save.error} />
    </Form>
  )
}

function Picks({ built, pick }: { built: CellFit; pick: (part: Partial<CellFit>) => void }) {
  return (
    <div className="cell-fields">
      <PickOne
        id="cf-payoff"
        label="wire comes from a"
        none="not said"
        value={built.payoff ?? ''}
        options={same(PAYOFFS)}
        onPick={(v) => pick({ payoff: PAYOFFS.find((p) => p === v) ?? null })}
      />
      <PickOne
        id="cf-booster"
        label="booster at the drum"
        none="not said"
        value={built.booster ?? ''}
        options={same(BOOSTERS)}
        onPick={(v) => pick({ booster: BOOSTERS.find((b) => b === v) ?? null })}
      />
      <PickOne
        id="cf-cutter"
        label="wire cutter"
        none="not said"
        value={built.cutter ?? ''}
        options={same(CUTTERS)}
        onPick={(v) => pick({ cutter: CUTTERS.find((c) => c === v) ?? null })}
      />
      <PickOne
        id="cf-reach"
        label="spool and feeder are reached"
        none="not said"
        value={built.reach ?? ''}
        options={same(REACHES)}
        onPick={(v) => pick({ reach: REACHES.find((r) => r === v) ?? null })}
      />
    </div>
  )
}

function numbersOf(cell: CellFit, units: Units) {
  const rule = { of: 'rule', units, above: 0, to: 10, kept: cell.centreMm } as const
  const whole = { of: 'plain', isWhole: true, from: 0, to: 1000 } as const
  const arc = { of: 'seconds', above: 0, to: 7200 } as const
  const tank = { of: 'volume', units, above: 0, to: 100, kept: cell.tankL } as const
  const plain = (to: number) => ({ of: 'plain', above: 0, to }) as const
  return {
    readers: {
      centreMm: quantity(rule),
      cycleArcS: quantity(arc),
      reamEvery: quantity({ ...whole, from: 1 }),
      shotsPerReam: quantity({ ...whole, to: 10 }),
      sprayMl: quantity(plain(50)),
      tankL: quantity(tank),
      lockOut: words,
    },
    begin: {
      centreMm: shownQuantity(cell.centreMm, rule),
      cycleArcS: shownQuantity(cell.cycleArcS, arc),
      reamEvery: shownQuantity(cell.reamEvery, whole),
      shotsPerReam: shownQuantity(cell.shotsPerReam, whole),
      sprayMl: shownQuantity(cell.sprayMl, plain(50)),
      tankL: shownQuantity(cell.tankL, tank),
      lockOut: cell.lockOut ?? '',
    },
  }
}

/** Lengths of conduit in the order of the wire, by the names painted on the cell. */
export function Pieces(props: {
  pieces: readonly ConduitPiece[]
  units: Units
  onChange: (pieces: ConduitPiece[]) => void
}) {
  const { pieces, units } = props
  const [lining, setLining] = useState<ConduitLining>('polymer')
  const length = { of: 'cable', units, above: 0, to: 60 } as const
  const form = useReadForm(
    {
      name: neededWords('Name it as it is called at the cell: “drum to post”.'),
      length: needed(length),
      bends: needed({ of: 'plain', isWhole: true, from: 0, to: 20 }),
    },
    { name: '', length: '', bends: '0' },
  )
  const add = () =>
    form.submit((read) => {
      props.onChange([...pieces, { name: read.name, lengthM: read.length, bends: read.bends, lining }])
      form.begin({ name: '', length: '', bends: '0' })
    })()
  return (
    <fieldset className="cell-pieces">
      <legend>Conduit, from the drum to the feeder</legend>
      {pieces.length === 0 ? (
        <p className="dim">No length is told: the wire is taken to come straight to the feeder.</p>
      ) : null}
      <ol>
        {pieces.map((p, i) => (
          <li key={`${p.name} ${i}`}>
            {p.name}: {shownQuantity(p.lengthM, length)} {measures(units).cable.word}, {p.bends} quarter{' '}
            {p.bends === 1 ? 'turn' : 'turns'}, {p.lining}{' '}
            <Bare onClick={() => props.onChange(pieces.filter((_, j) => j !== i))}>not there</Bare>
          </li>
        ))}
      </ol>
      <div className="cell-fields">
        <TypedField form={form} name="name" id="cp-name" label="next length is called" maxLength={40} />
        <QuantityField form={form} name="length" id="cp-length" label={`long, ${measures(units).cable.word}`} />
        <QuantityField form={form} name="bends" id="cp-bends" label="quarter turns in it" />
        <PickOne id="cp-lining" label="lined with" value={lining} options={same(CONDUIT_LININGS)} onPick={setLining} />
        <Button onClick={add}>Add it</Button>
      </div>
    </fieldset>
  )
}
