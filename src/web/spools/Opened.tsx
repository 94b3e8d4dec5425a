import { Bare } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { Link } from 'react-router'
import { WIRE_LOST_WHYS } from '@core/ledger/event.ts'
import { parseNumber } from '@core/units/number.ts'
import { inchToMm, lbToKg, MM_PER_FOOT } from '@core/units/convert.ts'
import { type SpoolAct, type SpoolOnGun, type SpoolOnShelf, type SpoolsAnswer } from '@contract/spools.ts'
import { type Units } from '@web/format/numbers.ts'
import { field, PickOne, TextField } from '@web/kit/Field.tsx'
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

const kilos = (text: string, units: Units) => {
  const value = parseNumber(text)
  return value === null ? null : units === 'us' ? lbToKg(value) : value
}

function Reading(props: {
  of: { stationId: string } | { spoolId: string }
  canMeasure: boolean
  units: Units
  send: Send
}) {
  const { units } = props
  const [gross, setGross] = useState('')
  const [across, setAcross] = useState('')
  const unit = units === 'us' ? 'lb' : 'kg'
  const grossKg = kilos(gross, units)
  const value = parseNumber(across)
  const diameterMm = value === null ? null : units === 'us' ? inchToMm(value) : value
  const isReady = (grossKg !== null && grossKg >= 0) || (diameterMm !== null && diameterMm > 0)
  const say = () => {
    if (grossKg !== null) props.send({ act: 'read', ...props.of, grossKg })
    else if (diameterMm !== null) props.send({ act: 'read', ...props.of, diameterMm })
  }
  return (
    <form
      className="built-form"
      onSubmit={(e) => {
        e.preventDefault()
        if (isReady) say()
      }}
    >
      <TextField
        id="sp-gross"
        label={`on the scale, with the spool (${unit})`}
        inputMode="decimal"
        {...field(gross, setGross)}
      />
      {props.canMeasure ? (
        <TextField
          id="sp-across"
          label={`or across the wire (${units === 'us' ? 'in' : 'mm'})`}
          inputMode="decimal"
          {...field(across, setAcross)}
        />
      ) : null}
      <Button type="submit" variant="chalk" disabled={!isReady}>
        Read
      </Button>
    </form>
  )
}

function OnGun({ gun, spools, units, send }: { gun: SpoolOnGun; spools: SpoolsAnswer; units: Units; send: Send }) {
  const [left, setLeft] = useState('')
  const [next, setNext] = useState('')
  const [metres, setMetres] = useState('')
  const leftKg = kilos(left, units)
  const long = parseNumber(metres)
  const shelf = [...spools.shelf].sort((a, b) => a.number - b.number)
  const fits = shelf.filter((s) => gun.wireId === null || s.wireId === gun.wireId)
  const other = shelf.filter((s) => !fits.includes(s))
  const unit = units === 'us' ? 'lb' : 'kg'
  const { stationId } = gun
  const lost = (why: (typeof WIRE_LOST_WHYS)[number]) => {
    const m = long === null ? undefined : units === 'us' ? (long * MM_PER_FOOT) / 1000 : long
    send({ act: 'lost', stationId, why, ...(m ? { metres: m } : {}) })
  }
  return (
    <>
      <div className="built-form">
        <TextField
          id="sp-left"
          label={`left on the old one (${unit}), empty if nothing`}
          inputMode="decimal"
          {...field(left, setLeft)}
        />
        <PickOne
          id="sp-next"
          label="another one on"
          none="which number?"
          value={next}
          options={[...fits, ...other].map((s) => [
            s.spoolId,
            `${s.number} ${s.wireName ?? ''}${s.leftKg === null ? '' : `, ${weight(s.leftKg, units)}`}${fits.includes(s) ? '' : ' (another wire)'}`,
          ])}
          onPick={setNext}
        />
        <Button
          variant="chalk"
          disabled={!next}
          onClick={() => send({ act: 'load', stationId, spoolId: next, oldLeftKg: leftKg ?? 0 })}
        >
          Put on
        </Button>
        <Button
          disabled={leftKg === null || leftKg < 0}
          onClick={() => send({ act: 'off', stationId, leftKg: leftKg ?? 0 })}
        >
          Take off, to the shelf
        </Button>
      </div>
      <p className="small-print">
        Trap the wire’s end before it is free: a spool unwinds like a spring.
        {gun.threadUpS
          ? ` New wire should come through in ${Math.round(gun.threadUpS)} s; slower is slip or something in the way.`
          : ''}
      </p>
      <div className="d-flex gap-2 align-items-end flex-wrap">
        <TextField
          id="sp-metres"
          label={`wire lost (${units === 'us' ? 'ft' : 'm'}), the cable’s length if empty`}
          inputMode="decimal"
          {...field(metres, setMetres)}
        />
        {WIRE_LOST_WHYS.map((why) => (
          <Button key={why} onClick={() => lost(why)}>
            {LOST_KEY[why]}
          </Button>
        ))}
      </div>
    </>
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
