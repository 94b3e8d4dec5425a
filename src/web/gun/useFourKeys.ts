import { useEffect, useState } from 'react'
import { type GunAnswer } from '@contract/gun.ts'
import { type LogKeysDriver } from '@web/log/useLogKeys.ts'
import { fourKeys } from './choices.ts'

const QUIET_MS = 20_000

/**
 * A gun's four keys, kept where they are under a hand: what was just logged is not wanted any more, and at once in its place a second tap would hit another.
 * They change when nothing was tapped for a while, or with the gun.
 */
export function useFourKeys(gun: GunAnswer, driver: Pick<LogKeysDriver, 'state'>) {
  const fresh = fourKeys(gun)
  const [held, hold] = useState({ stationId: gun.stationId, keys: fresh })
  const { step } = driver.state
  const said = JSON.stringify(fresh)
  useEffect(() => {
    if (step !== 'choosing') return
    const timer = setTimeout(() => hold({ stationId: gun.stationId, keys: JSON.parse(said) as typeof fresh }), QUIET_MS)
    return () => clearTimeout(timer)
  }, [said, step, gun.stationId])
  return held.stationId === gun.stationId ? held.keys : fresh
}
