import { Bare } from '@web/kit/Keys.tsx'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { WIRE_LOST_WHYS } from '@core/ledger/event.ts'
import { type SpoolAct, type SpoolOnGun, type SpoolOnShelf, type SpoolsAnswer } from '@contract/spools.ts'
import { type Units } from '@web/format/numbers.ts'
import { measures } from '@web/format/measures.ts'
import { asItIs, quantity, useReadForm } from '@web/kit/readform.ts'
import { PickTyped, QuantityField } from '@web/kit/TypedField.tsx'
import { Photos } from '@web/photo/Photos.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { type useSpoolAct } from './queries.ts'
import { leftSentence, LOST_KEY, weight } from './spoolwords.ts'

export type Open = { stationId: string } | { spoolId: string }
interface Props {
  open: Open
  spools: SpoolsAnswer
  units: Units
  act: ReturnType<typeof useSpoolAct>
  onDone: () => void
}
type Send = (what: SpoolAct) => void

/** What can be said of one spool: read it, put on, take off, lost, thrown away. */
export function Opened(props: Props) {
  const { open, spools, units, act } = props
  const gun = 'stationId' in open ? spools.guns.find((g) => g.stationId === open.stationId) : undefined
  const shelf = 'spoolId' in open ? spools.shelf.find((s) => s.spoolId === open.spoolId) : undefined
  const send: Send = (what) => act.mutate(what)
  const it = gun ?? shelf
  if (!it) return null
  const wire = spools.wires.find((w) => w.id === it.wireId)
  return (
    <section className="spool-open" aria-label="This spool">
      <div className="d-flex gap-3 align-items-baseline flex-wrap">
        <h2>{gun ? gun.name : `Spool ${shelf?.number ?? ''}`}</h2>
        <span>
          {it.wireName ?? 'wire not said'}, {leftSentence(it, units)}
        </span>
        {gun ? <Link to={`/gun/${gun.stationId}`}>the gun</Link> : null}
        <Bare onClick={props.onDone}>close</Bare>
      </div>
      <Reading
        of={gun ? { stationId: gun.stationId } : { spoolId: shelf?.spoolId ?? '' }}
        canMeasure={wire?.canMeasure ?? false}
        {...{ units, send }}
      />
      {gun ? <OnGun gun={gun} {...{ spools, units, send }} /> : null}
      {shelf ? <OnShelf shelf={shelf} send={send} onDone={props.onDone} /> : null}
      {it.spoolId ? <Photos of={{ type: 'spool', key: it.spoolId }} word="photo of the label" /> : null}
      <Trouble problem={act.error} />
      {act.data ? (
        <p className="said" role="status">
          {act.data.leftKg !== null
            ? `Kept: ${leftSentence(act.data, units)}.`
            : act.data.numbers.length > 0
              ? `Kept. Write ${act.data.numbers.join(', ')} on its flange.`
              : 'Kept.'}
        </p>
      ) : null}
    </section>
  )
}

function Reading(props: {
  of: { stationId: string } | { spoolId: string }
  canMeasure: boolean
  units: Units
  send: Send
}) {
  const { units } = props
  const { mass, rule } = measures(units)
  const form = useReadForm(
    { gross: quantity({ of: 'mass', units, from: 0 }), across: quantity({ of: 'rule', units, above: 0 }) },
    { gross: '', across: '' },
  )
  const say = form.submit(({ gross, across }) => {
    if (gross !== null) props.send({ act: 'read', ...props.of, grossKg: gross })
    else if (across !== null) props.send({ act: 'read', ...props.of, diameterMm: across })
  })
  const isEmpty = form.typed('gross').trim() === '' && form.typed('across').trim() === ''
  return (
    <Form noValidate className="built-form" onSubmit={say}>
      <QuantityField form={form} name="gross" id="sp-gross" label={`on the scale, with the spool (${mass.word})`} />
      {props.canMeasure ? (
        <QuantityField form={form} name="across" id="sp-across" label={`or across the wire (${rule.word})`} />
      ) : null}
      <Button type="submit" variant="chalk" disabled={isEmpty}>
        Read
      </Button>
    </Form>
  )
}

function OnGun({ gun, spools, units, send }: { gun: SpoolOnGun; spools: SpoolsAnswer; units: Units; send: Send }) {
  const { stationId } = gun
  const { mass } = measures(units)
  const form = useReadForm(
    { left: quantity({ of: 'mass', units, from: 0 }), next: asItIs<string>() },
    { left: '', next: '' },
  )
  const shelf = [...spools.shelf].sort((a, b) => a.number - b.number)
  const fits = shelf.filter((s) => gun.wireId === null || s.wireId === gun.wireId)
  const other = shelf.filter((s) => !fits.includes(s))
  const on = form.submit(({ left, next }) => send({ act: 'load', stationId, spoolId: next, oldLeftKg: left ?? 0 }))
  const off = form.submit(({ left }) => send({ act: 'off', stationId, leftKg: left ?? 0 }))
  return (
    <>
      <Form noValidate className="built-form" onSubmit={on}>
        <QuantityField
          form={form}
          name="left"
          id="sp-left"
          label={`left on the old one (${mass.word}), empty if nothing`}
        />
        <PickTyped
          form={form}
          name="next"
          id="sp-next"
          label="another one on"
          none="which number?"
          options={[...fits, ...other].map((s) => [
            s.spoolId,
            `${s.number} ${s.wireName ?? ''}${s.leftKg === null ? '' : `, ${weight(s.leftKg, units)}`}${fits.includes(s) ? '' : ' (another wire)'}`,
          ])}
        />
        <Button type="submit" variant="chalk" disabled={!form.typed('next')}>
          Put on
        </Button>
        <Button disabled={form.typed('left').trim() === ''} onClick={off}>
          Take off, to the shelf
        </Button>
      </Form>
      <p className="small-print">
        Trap the wire’s end before it is free: a spool unwinds like a spring.
        {gun.threadUpS
          ? ` New wire should come through in ${Math.round(gun.threadUpS)} s; slower is slip or something in the way.`
          : ''}
      </p>
      <WireLost stationId={stationId} units={units} send={send} />
    </>
  )
}

/** Wire that was lost: so much, or the cable’s length. */
function WireLost({ stationId, units, send }: { stationId: string; units: Units; send: Send }) {
  const { cable } = measures(units)
  const form = useReadForm({ metres: quantity({ of: 'cable', units, above: 0 }) }, { metres: '' })
  const lost = (why: (typeof WIRE_LOST_WHYS)[number]) =>
    form.submit(({ metres }) => send({ act: 'lost', stationId, why, ...(metres === null ? {} : { metres }) }))
  return (
    <div className="d-flex gap-2 align-items-end flex-wrap">
      <QuantityField
        form={form}
        name="metres"
        id="sp-metres"
        label={`wire lost (${cable.word}), the cable’s length if empty`}
      />
      {WIRE_LOST_WHYS.map((why) => (
        <Button key={why} onClick={lost(why)}>
          {LOST_KEY[why]}
        </Button>
      ))}
    </div>
  )
}

function OnShelf({ shelf, send, onDone }: { shelf: SpoolOnShelf; send: Send; onDone: () => void }) {
  return (
    <div>
      <Button
        onClick={() => {
          send({ act: 'gone', spoolId: shelf.spoolId })
          onDone()
        }}
      >
        Thrown away
      </Button>
    </div>
  )
}
