import { causeOf, type Index } from '@core/diagnose/belief.ts'
import { type Cause, type CauseKind, type Check, type Sign } from '@core/diagnose/knowledge.ts'
import { fixGroups, type FixGroup } from '@core/diagnose/moves.ts'
import { isFor } from '@core/diagnose/ratio.ts'
import { type CausePlace } from '@core/path/columns.ts'
import { placeOfLook } from './debrief.ts'
import { faultsFor } from './drill.ts'
import { isFault } from './faults.ts'
import { type BoothSetup } from './rig.ts'

/** Where one stands and looks at a booth, in the order of the wire; what is beside the wire at its ends. */
export const BOOTH_PLACES = ['gas', 'machine', 'spool', 'rolls', 'pin', 'cable', 'front', 'work'] as const
export type BoothPlace = (typeof BOOTH_PLACES)[number]
export const PLACE_WORDS: Readonly<Record<BoothPlace, string>> = {
  gas: 'bottle and hose',
  machine: 'machine',
  spool: 'spool and hub',
  rolls: 'rolls and guides',
  pin: 'where the gun plugs in',
  cable: 'cable and liner',
  front: 'front of the gun',
  work: 'work and arc',
}
const OF_PLACE: Partial<Record<CausePlace, BoothPlace>> = {
  ...{ gas: 'gas', spool: 'spool', hub: 'spool', inlet: 'rolls', rolls: 'rolls', outlet: 'rolls', pin: 'pin' },
  ...{ orings: 'pin', liner: 'cable', jump: 'cable', neck: 'front', diffuser: 'front', insulator: 'front' },
  ...{ clampring: 'front', tip: 'front', nozzle: 'front' },
}
/** Seen at the arc, or asked of others: neither is at the machine. */
const ARC: ReadonlySet<Sign> = new Set(['arc', 'asked'])
const AT_MACHINE: ReadonlySet<CauseKind> = new Set(['machine'])
/** Beside the wire and at the machine all the same. */
const MACHINE_CAUSES: ReadonlySet<string> = new Set(['polarity', 'menu', 'powerOut', 'sizeMix', 'settings', 'ampsHigh'])
const boothPlaceOf = ({ at, kind, key }: Pick<Cause, 'at' | 'kind' | 'key'>): BoothPlace =>
  OF_PLACE[at] ?? (AT_MACHINE.has(kind) || MACHINE_CAUSES.has(key) ? 'machine' : 'work')

export function placeOfCheck(knowledge: Index, check: Check): BoothPlace {
  const at = placeOfLook(knowledge, check)
  const causes = check.outcomes.flatMap((o) => o.points).flatMap((p) => causeOf(knowledge, p) ?? [])
  const first = causes.find((c) => c.at === at)
  return OF_PLACE[at] ?? (first && !ARC.has(check.sign) ? boothPlaceOf(first) : 'work')
}
export function placeOfFix(knowledge: Index, group: FixGroup): BoothPlace {
  const cause = knowledge.causes[group.causes[0] ?? -1]
  return cause ? boothPlaceOf(cause) : 'work'
}

/** Looks that can be had at a place, with what is complained of; one that only narrows another waits for that one. */
export const looksAt = (
  knowledge: Index,
  at: { place: BoothPlace; complaint: string; done: ReadonlySet<string> },
): Check[] =>
  knowledge.checks.filter(
    (c) =>
      isFor(c, at.complaint) &&
      (c.after === undefined || at.done.has(c.after)) &&
      placeOfCheck(knowledge, c) === at.place,
  )

export interface Offer {
  group: FixGroup
  cause: Cause
  /** The complaint has it in its list. */
  isListed: boolean
}
/** What can be done at a place: what the complaint lists first; nothing of robots, nothing that only a licensed trade may do, or that this booth cannot have. */
export function fixesAt(
  knowledge: Index,
  { place, complaint, setup }: { place: BoothPlace; complaint: string; setup: BoothSetup },
): Offer[] {
  const can = new Set<string>(faultsFor(knowledge, setup))
  const listed = new Set(knowledge.symptoms.find((s) => s.key === complaint)?.causes)
  const here = new Set(knowledge.symptoms.filter((s) => s.only !== 'cell').flatMap((s) => s.causes))
  return fixGroups(knowledge)
    .filter((g) => placeOfFix(knowledge, g) === place)
    .flatMap((group): Offer[] => {
      const causes = group.causes
        .flatMap((i) => knowledge.causes[i] ?? [])
        .filter((c) => here.has(c.key) && !c.fix.isLicensed && (!isFault(c.key) || can.has(c.key)))
      const cause = causes.find((c) => listed.has(c.key)) ?? causes[0]
      return cause ? [{ group, cause, isListed: listed.has(cause.key) }] : []
    })
    .sort((a, b) => Number(b.isListed) - Number(a.isListed))
}
