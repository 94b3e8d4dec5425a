import { Table } from 'react-bootstrap'
import { Key } from '@web/kit/Keys.tsx'
import { type Column } from '@core/path/columns.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { aboutMoney, amount, cable, type Units } from '@web/format/numbers.ts'
import { ago, when } from '@web/format/times.ts'
import { Link } from 'react-router'
import { useIsLead } from '@web/people/queries.ts'
import { capital, disagreementSentence, inN, liesWord, partName } from '@web/format/words.ts'
import { LogKeys } from '@web/log/LogKeys.tsx'
import { type LogKeysDriver } from '@web/log/useLogKeys.ts'
import { Tape } from '@web/logbook/Tape.tsx'
import { type Choice } from '@web/log/logkeys.ts'
import { reasonsOn } from './choices.ts'
import { useFourKeys } from './useFourKeys.ts'
import { GunDrawing, inColumn } from './GunDrawing.tsx'
import { PartPanel } from './PartPanel.tsx'
import { TriedHere } from '@web/life/TriedHere.tsx'
import { FollowUps } from '@web/followup/FollowUps.tsx'
import { Fit } from '@web/rightparts/Fit.tsx'
import { MoreActs } from '@web/rightparts/More.tsx'
import { ShiftTotal } from './ShiftTotal.tsx'
import { gunVerdict } from './verdict.ts'
import { WhatFirst } from './WhatFirst.tsx'
import { LearnHere } from './LearnHere.tsx'

export interface GunViewProps {
  gun: GunAnswer
  units: Units
  chosen: Column | null
  onChoose: (column: Column | null) => void
  driver: LogKeysDriver
}

/** "1.0 solid · short circuit · Kelp · 4 m cable". */
export function builtLine(gun: GunAnswer, units: Units): string {
  return [gun.wireName, gun.mode, gun.familyName, gun.cableM ? `${cable(gun.cableM, units)} cable` : null]
    .filter(Boolean)
    .join(' · ')
}

export function GunDesk(props: GunViewProps) {
  const { gun, units, chosen, driver } = props
  const verdict = gunVerdict(gun, units)
  const keys = useFourKeys(gun, driver)
  return (
    <main className="gun">
      <header className={gun.downSinceMs !== null ? 'gun-head is-down' : 'gun-head'}>
        <h1>{gun.name}</h1>
        <div>
          <p className="verdict">{verdict.line}</p>
          <p className="dim">
            {verdict.because}
            {costLine(gun)} <WhatFirst gun={gun} />
          </p>
        </div>
        <p className="gun-built dim">
          {gun.areaName}
          <br />
          {builtLine(gun, units)}
        </p>
      </header>
      <GunDrawing gun={gun} units={units} chosen={chosen} onChoose={props.onChoose} />
      <Fit gun={gun} units={units} />
      <TriedHere gun={gun} />
      <FollowUps gun={gun} />
      <LearnHere gun={gun} />
      <div className="gun-columns">
        {chosen ? (
          <PartPanel gun={gun} positions={inColumn(gun, chosen)} units={units} driver={driver} />
        ) : (
          <>
            <OnIt gun={gun} units={units} />
            <HowLong gun={gun} units={units} />
          </>
        )}
        <section className="gun-acts" aria-label="Acts">
          <LogKeys driver={driver} choices={keys} reasonsOf={reasonsOn(gun)} />
          {driver.state.step === 'choosing' ? <StandKeys gun={gun} driver={driver} keys={keys} /> : null}
          <MoreActs gun={gun} />
        </section>
      </div>
      <Tape lines={gun.tape} nowMs={gun.nowMs} zone={gun.zone} units={units} isOneGun />
    </main>
  )
}

/** Less than a coin or two is nothing to tell about a stop. */
const WORTH_SAYING_MINOR = 100
function costLine(gun: GunAnswer): string {
  const minor = ((gun.downMinutes ?? 0) / 60) * (gun.stopMinorPerHour ?? 0)
  return minor < WORTH_SAYING_MINOR ? '' : ` About ${aboutMoney(minor, gun.currency)} so far.`
}

interface StandProps {
  gun: GunAnswer
  driver: LogKeysDriver
  keys: readonly Choice[]
}
export function StandKeys({ gun, driver, keys }: StandProps) {
  const isDown = gun.downSinceMs !== null
  return (
    <div className="stand-keys">
      <Key
        tone="chalk"
        onClick={() => driver.tell({ type: 'chose', choice: { act: isDown ? 'running' : 'down', position: null } })}
      >
        {isDown ? 'Running' : 'It’s down'}
      </Key>
      {keys.some((c) => c.act === 'seen') ? null : (
        <Key onClick={() => driver.tell({ type: 'chose', choice: { act: 'seen', position: null } })}>All looked at</Key>
      )}
      <Key
        onClick={() =>
          driver.tell({ type: 'chose', choice: { act: gun.isParked ? 'unparked' : 'parked', position: null } })
        }
      >
        {gun.isParked ? 'In use again' : 'Park it'}
      </Key>
    </div>
  )
}

function OnIt({ gun, units }: { gun: GunAnswer; units: Units }) {
  return (
    <section>
      <h2>What is on it</h2>
      <ul className="plain">
        {gun.positions
          .filter((p) => p.partCode)
          .map((p) => (
            <li key={p.position}>
              {capital(partName(p.position))}: {p.partName}
              {p.onHand === null ? '' : <span className="dim">, {liesWord(p.lies, p.onHand)}</span>}
            </li>
          ))}
      </ul>
      {gun.spool ? <p>{spoolSentence(gun, units)}</p> : null}
      {gun.notes.map((note) => (
        <p key={`${note.weaker} ${note.better}`} className="small-print">
          {disagreementSentence(note)}
        </p>
      ))}
      <p className="small-print">
        {gun.lastEntryMs === null
          ? 'No usage entered yet.'
          : `Usage entered up to ${when(gun.lastEntryMs, gun.nowMs, gun.zone)}.`}
      </p>
      <ShiftTotal gun={gun} />
    </section>
  )
}

/** The spool that is on, and what is left of it by the clock. */
export function spoolSentence(gun: GunAnswer, units: Units): string {
  if (!gun.spool) return ''
  const { kg, usedKg, sinceMs } = gun.spool
  const on = `Spool: ${gun.wireName}, ${ago(sinceMs, gun.nowMs)} on`
  if (usedKg === null) return `${on}.`
  if (usedKg >= kg) return `${on}; should be empty by now. Was a new one not logged?`
  return `${on}, about ${amount(kg - usedKg, 'kg', units)} of ${amount(kg, 'kg', units)} left.`
}

/** The chance, and for a lead the way to its curve. */
function LeaveCell({ p, gun }: { p: GunAnswer['positions'][number]; gun: GunAnswer }) {
  const isLead = useIsLead()
  const said = p.leave ? inN(p.leave.chance) : ''
  return isLead ? (
    <Link to={`/life?kind=${p.kindKey}&where=area:${gun.areaId}&at=${p.used ?? ''}`}>{said}</Link>
  ) : (
    <>{said}</>
  )
}

function HowLong({ gun, units }: { gun: GunAnswer; units: Units }) {
  const known = gun.positions.filter((p) => p.usual || p.change || p.clean)
  return (
    <section>
      <h2>How long</h2>
      <Table>
        <thead>
          <tr>
            <th>part</th>
            <th>on it</th>
            <th>rule</th>
            <th>half gone by, here</th>
            <th>goes by this time tomorrow</th>
          </tr>
        </thead>
        <tbody>
          {known.map((p) => (
            <tr key={p.position}>
              <td>{partName(p.position)}</td>
              <td>{p.used === null ? '' : amount(p.used, p.unit, units)}</td>
              <td>
                {p.change?.limit ? `${p.signs ? 'look ' : ''}${amount(p.change.limit, p.unit, units)}` : ''}
                {p.clean ? ` clean ${amount(p.clean.limit, p.unit, units)}` : ''}
              </td>
              <td>
                {p.usual ? (
                  <>
                    {amount(p.usual.amount, p.unit, units)}{' '}
                    <span className="dim">
                      {p.usual.source}
                      {p.usual.source === 'trade' ? '' : `, ${p.usual.n}`}
                    </span>
                  </>
                ) : (
                  ''
                )}
              </td>
              <td>{p.leave ? <LeaveCell p={p} gun={gun} /> : ''}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {known.length === 0 ? <p className="small-print">Nothing known yet about how long parts last here.</p> : null}
    </section>
  )
}
