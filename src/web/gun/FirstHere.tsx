import { useState } from 'react'
import { useLocation } from 'react-router'
import { type GunAnswer } from '@contract/gun.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { BY_CARD } from '@web/gunnow/bycard.ts'
import { LogKeys } from '@web/log/LogKeys.tsx'
import { type LogKeysDriver } from '@web/log/useLogKeys.ts'
import { reasonsOn } from './choices.ts'
import { useFourKeys } from './useFourKeys.ts'

const KEY = 'idle-knows-gun'
/** Somebody came by a card's code, nobody is signed in, and this device was never shown a whole gun. */
export function useFirstHere(isNobody: boolean) {
  const state: unknown = useLocation().state
  const isByCard = typeof state === 'object' && state !== null && Object.keys(BY_CARD).every((k) => k in state)
  const [isKnown, setKnown] = useState(() => localStorage.getItem(KEY) !== null)
  const knows = () => {
    localStorage.setItem(KEY, 'yes')
    setKnown(true)
  }
  return { isFirst: isNobody && isByCard && !isKnown, knows }
}

/** A hand's first page of a gun: what it is for, the two taps, and how to take it back; nothing else. */
export function FirstHere({ gun, driver, onAll }: { gun: GunAnswer; driver: LogKeysDriver; onAll: () => void }) {
  const keys = useFourKeys(gun, driver)
  return (
    <main className="gun-phone gun-first">
      <h1>{gun.name}</h1>
      <p className="said">
        Did you change or clean something on {gun.name}? Tap what, then why it came out. Tapped wrong: Undo, at the foot
        of the page.
      </p>
      <LogKeys driver={driver} choices={keys} reasonsOf={reasonsOn(gun)} />
      <Bare onClick={onAll}>show me all of {gun.name}</Bare>
    </main>
  )
}
