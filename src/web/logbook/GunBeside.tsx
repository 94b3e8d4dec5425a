import { Link } from 'react-router'
import { type GunAnswer } from '@contract/gun.ts'
import { type Units } from '@web/format/numbers.ts'
import { WirePath } from '@web/path/WirePath.tsx'
import { Tape } from './Tape.tsx'

const SIZE = { columnWidth: 38, thickness: 4, tall: 8, height: 36 }
const LAST = 8

/** Beside what is worked out about a gun, at a desk: its path as it stands, and what was done on it last. */
export function GunBeside({ gun, units }: { gun: GunAnswer; units: Units }) {
  return (
    <aside className="gun-beside" aria-label={`${gun.name} as it stands`}>
      <WirePath cells={gun.cells} size={SIZE} label={gun.name} isUnplaced={gun.downPosition === null} />
      <p className="dim">
        {[gun.wireName, gun.mode, gun.familyName].filter(Boolean).join(' · ')}{' '}
        <Link to={`/gun/${gun.stationId}`}>all of {gun.name}</Link>
      </p>
      <Tape lines={gun.tape.slice(0, LAST)} nowMs={gun.nowMs} zone={gun.zone} units={units} isOneGun />
    </aside>
  )
}
