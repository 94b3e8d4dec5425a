import { Plain } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Link } from 'react-router'
import { COLUMNS, OUT_REASONS, type OutReason, kindOfPosition } from '@core/path/columns.ts'
import { type FloorAnswer, type FloorGun } from '@contract/floor.ts'
import { LogKeys } from '@web/log/LogKeys.tsx'
import { type Choice } from '@web/log/logkeys.ts'
import { useLogKeys } from '@web/log/useLogKeys.ts'
import { type Units } from '@web/format/numbers.ts'
import { WirePath, type WireSize } from '@web/path/WirePath.tsx'
import { useIsLead } from '@web/people/queries.ts'
import { leaving, leftWords, rowAct, rowWhy, soonerWords, worstLeft } from './sentence.ts'

export const SHORT_REASONS: readonly OutReason[] = OUT_REASONS.filter((r) =>
  ['worn', 'burnedBack', 'due', 'knocked', 'toTry'].includes(r),
)

/** What one would log on this gun now: a wrong part put right, what it wants, and whether it stands. */
export function choicesFor(gun: FloorGun): Choice[] {
  const put = gun.wrong.flatMap((f): Choice[] => (f.put && f.at !== 'off' ? [{ act: 'changed', position: f.at }] : []))
  const wanted = gun.wants
    .map((w): Choice => ({ act: w.act === 'clean' ? 'cleaned' : 'changed', position: w.position }))
    .filter((w) => !put.some((p) => p.act === w.act && p.position === w.position))
  // Put right is said of the place: looked at, or a new one on.
  const found = [...new Set(gun.found.map((f) => f.at))].flatMap((position): Choice[] => [
    { act: 'seen', position },
    { act: 'changed', position },
  ])
  return [
    ...put,
    ...found,
    ...wanted,
    gun.downSinceMs !== null ? { act: 'running', position: null } : { act: 'down', position: null },
  ]
}

/** What leaving it till tomorrow does; for a lead the way to its curve, with this part marked on it. */
function TillTomorrow({ gun }: { gun: FloorGun }) {
  const isLead = useIsLead()
  const worst = worstLeft(gun)
  if (!worst) return null
  const kind = kindOfPosition(worst.position)
  const curve = `/life?kind=${kind}&where=area:${gun.areaId}&at=${worst.used}`
  return <div className="row-till">{isLead ? <Link to={curve}>{leftWords(worst)}</Link> : leftWords(worst)}</div>
}

/** A gun that wants hands: name, wire with its break, the act and why, what leaving it does. A tap on the break logs. */
export function OpenedRow(props: {
  gun: FloorGun
  floor: FloorAnswer
  units: Units
  size: WireSize
  isPhone: boolean
}) {
  const { gun, floor, units } = props
  const [isOpen, setOpen] = useState(false)
  const driver = useLogKeys([gun.stationId], () => setOpen(false))
  const isDown = gun.downSinceMs !== null
  return (
    <article className={isDown ? 'row-gun is-down' : 'row-gun'} aria-label={gun.name}>
      <Link className="row-name" to={`/gun/${gun.stationId}`}>
        {gun.name}
      </Link>
      <Plain
        className="row-wire"
        onClick={() => setOpen(!isOpen)}
        aria-expanded={isOpen}
        aria-label={`Log on ${gun.name}`}
      >
        <WirePath
          cells={gun.cells}
          size={props.size}
          label={gun.name}
          isFluid={props.isPhone}
          isUnplaced={gun.downPosition === null}
        />
        {props.isPhone ? (
          <span className="row-ends dim">
            <span>{COLUMNS[0]}</span>
            <span>liner</span>
            <span>{COLUMNS.at(-1)}</span>
          </span>
        ) : null}
      </Plain>
      <div className="row-act">
        <strong>{rowAct(gun, { nowMs: floor.nowMs, zone: floor.zone, units })}</strong>
        <span>
          {soonerWords(gun, floor)}
          {rowWhy(gun, units)}
        </span>
      </div>
      <div className="row-leave">
        {leaving(gun, floor.nowMs, floor.zone)}
        <TillTomorrow gun={gun} />
      </div>
      {isOpen ? (
        <div className="row-log">
          <LogKeys driver={driver} choices={choicesFor(gun)} reasonsOf={() => SHORT_REASONS} />
        </div>
      ) : null}
    </article>
  )
}
