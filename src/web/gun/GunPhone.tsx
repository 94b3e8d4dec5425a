import { Key, Plain } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { COLUMNS, type Column } from '@core/path/columns.ts'
import { STATES } from '@core/floor/state.ts'
import { LogKeys } from '@web/log/LogKeys.tsx'
import { Tape } from '@web/logbook/Tape.tsx'
import { Cell, PHONE_SIZE, WirePath } from '@web/path/WirePath.tsx'
import { reasonsOn } from './choices.ts'
import { useFourKeys } from './useFourKeys.ts'
import { builtLine, StandKeys, type GunViewProps } from './GunDesk.tsx'
import { inColumn } from './GunDrawing.tsx'
import { TriedHere } from '@web/life/TriedHere.tsx'
import { FollowUps } from '@web/followup/FollowUps.tsx'
import { Fit } from '@web/rightparts/Fit.tsx'
import { MoreActs } from '@web/rightparts/More.tsx'
import { PartPanel } from './PartPanel.tsx'
import { gunVerdict, partNumber, stateWord } from './verdict.ts'
import { WhatFirst } from './WhatFirst.tsx'
import { LearnHere } from './LearnHere.tsx'

const REACHES: { name: string; columns: readonly Column[] }[] = [
  { name: 'feeder', columns: ['spool', 'inlet', 'rolls', 'outlet'] },
  { name: 'cable', columns: ['pin', 'liner', 'neck'] },
  { name: 'front', columns: ['diffuser', 'tip', 'nozzle', 'gas'] },
]
const BIG = { columnWidth: 88, thickness: 7, tall: 12, height: 56 }

/** At the booth: name, verdict, the path as a picture, one reach enlarged, four big keys. */
export function GunPhone(props: GunViewProps) {
  const { gun, units, chosen, driver } = props
  const [reach, setReach] = useState(2)
  const go = useNavigate()
  const verdict = gunVerdict(gun, units)
  const keys = useFourKeys(gun, driver)
  return (
    <main className="gun-phone">
      <header>
        <h1>{gun.name}</h1>
        <p className="dim">{builtLine(gun, units)}</p>
        <Key size="low" onClick={() => go('/')}>
          not {gun.name}
        </Key>
      </header>
      <div className={gun.downSinceMs !== null ? 'phone-verdict is-down' : 'phone-verdict'}>
        <p className="verdict">{verdict.line}</p>
        <p className="dim">{verdict.because}</p>
        <WhatFirst gun={gun} />
      </div>
      <WirePath cells={gun.cells} size={PHONE_SIZE} label={gun.name} isFluid isUnplaced={gun.downPosition === null} />
      <Fit gun={gun} units={units} />
      <TriedHere gun={gun} />
      <FollowUps gun={gun} />
      <LearnHere gun={gun} />
      <div className="reaches" role="group" aria-label="Which part of the path">
        {REACHES.map((r, i) => (
          <Key
            key={r.name}
            size="low"
            className={i === reach ? 'is-on' : undefined}
            aria-pressed={i === reach}
            onClick={() => {
              setReach(i)
              props.onChoose(null)
            }}
          >
            {r.name}
          </Key>
        ))}
      </div>
      <ReachCells {...props} columns={REACHES[reach]?.columns ?? []} />
      {chosen ? <PartPanel gun={gun} positions={inColumn(gun, chosen)} units={units} driver={driver} /> : null}
      <LogKeys driver={driver} choices={keys} reasonsOf={reasonsOn(gun)} />
      <MoreActs gun={gun} />
      <Tape lines={gun.tape.slice(0, 5)} nowMs={gun.nowMs} zone={gun.zone} units={units} isOneGun />
      <footer className="phone-foot">
        {driver.state.step === 'choosing' ? <StandKeys gun={gun} driver={driver} keys={keys} /> : null}
      </footer>
    </main>
  )
}

function ReachCells({ gun, units, chosen, onChoose, columns }: GunViewProps & { columns: readonly Column[] }) {
  return (
    <div className="reach-cells" style={{ gridTemplateColumns: `repeat(${columns.length}, 1fr)` }}>
      {columns.map((column) => {
        const [first] = inColumn(gun, column)
        const cell = gun.cells[COLUMNS.indexOf(column)] ?? [STATES.indexOf('absent'), 0, 0, 0]
        return (
          <Plain key={column} disabled={!first} aria-pressed={chosen === column} onClick={() => onChoose(column)}>
            <svg
              className="wire"
              viewBox={`0 0 ${BIG.columnWidth} ${BIG.height}`}
              preserveAspectRatio="none"
              width="100%"
              height={BIG.height}
              aria-hidden="true"
            >
              <Cell cell={cell} size={BIG} x={0} />
            </svg>
            <strong>{column}</strong>
            <span>{first ? partNumber(first, units) : ''}</span>
            <em>{first ? stateWord(gun, first) : 'not on it'}</em>
          </Plain>
        )
      })}
    </div>
  )
}
