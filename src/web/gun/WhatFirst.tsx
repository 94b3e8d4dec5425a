import { Link } from 'react-router'
import { type GunAnswer } from '@contract/gun.ts'

/** Down, or it feeds badly: the search for why. */
export function WhatFirst({ gun }: { gun: GunAnswer }) {
  return (
    <Link className="btn what-first" to={`/down?gun=${gun.stationId}`}>
      {gun.downSinceMs === null ? 'it feeds badly' : 'what first?'}
    </Link>
  )
}
