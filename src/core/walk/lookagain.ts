import { type CarrierId, type EventId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type ReadingVerdict } from '@core/reading/keys.ts'

/** One in so many looks is looked at again by the lead. */
export const ONE_IN = 20
/** Noted again within this it is the same look. */
const SAME_LOOK_MS = 60_000

/** A look as it is kept. */
export interface KeptLook {
  eventId: EventId
  carrierId: CarrierId
  what: string
  atMs: number
  is: ReadingVerdict
}

/** FNV-1a over the id: the choice is the same for everybody who asks, and nobody can tell beforehand which it will be. */
function hashOf(text: string): number {
  let hash = 0x811c9dc5
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193) >>> 0
  return hash
}
export const isChosen = (eventId: EventId) => hashOf(eventId) % ONE_IN === 0

export interface LookedAgain {
  /** To be looked at again, newest first. */
  again: KeptLook[]
  /** Of those chosen before and looked at again within a day: how many said the same. */
  agreed: { same: number; of: number }
}

/**
 * One in twenty of what was found good is looked at again, while it is less than a day old; and of the ones that were, how many agreed.
 * Looks in any order; the second look is the next of the same thing at the same gun, at least a minute later.
 */
export function lookAgain(looks: readonly KeptLook[], nowMs: number): LookedAgain {
  const newestFirst = [...looks].sort((a, b) => b.atMs - a.atMs)
  const nextOf = new Map<string, KeptLook>()
  const again: KeptLook[] = []
  const agreed = { same: 0, of: 0 }
  for (const look of newestFirst) {
    const key = `${look.carrierId} ${look.what}`
    const next = nextOf.get(key)
    const isNext = next && next.atMs - look.atMs > SAME_LOOK_MS
    if (!next || isNext) nextOf.set(key, look)
    if (look.is !== 'good' || !isChosen(look.eventId)) continue
    if (isNext && next.atMs - look.atMs < DAY_MS) {
      agreed.of += 1
      if (next.is === 'good') agreed.same += 1
    } else if (!next && nowMs - look.atMs < DAY_MS) again.push(look)
  }
  return { again, agreed }
}
