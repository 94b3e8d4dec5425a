import { Link } from 'react-router'
import { type GunAnswer } from '@contract/gun.ts'

/** Down, or it feeds badly: the search for why; or a setting to turn, one at a time. A nozzle that closes ever faster asks for that by itself. */
export function WhatFirst({ gun }: { gun: GunAnswer }) {
  return (
    <>
      {gun.cleaningRises ? 'The nozzle closes faster than it did: settings or gas, before more cleaning. ' : null}
      <Link className="btn what-first" to={`/down?gun=${gun.stationId}`}>
        {gun.downSinceMs === null ? 'it feeds badly' : 'what first?'}
      </Link>{' '}
      <Link className="btn what-first" to={`/tune?gun=${gun.stationId}`}>
        a setting to turn
      </Link>
    </>
  )
}
