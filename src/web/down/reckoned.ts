import { columnOf } from '@core/path/kinds.ts'
import { type PathPlace } from '@core/path/columns.ts'
import { chancesOf, indexOf, type Index } from '@core/diagnose/belief.ts'
import { areOthersTold, hintsOf, type GunState } from '@core/diagnose/hints.ts'
import { ownShares, turnedOf } from '@core/diagnose/learn.ts'
import { type Knowledge, type Symptom } from '@core/diagnose/knowledge.ts'
import { quickOrder, type Planned } from '@core/diagnose/plan.ts'
import { ownCheck } from '@core/diagnose/race.ts'
import { type LinerFirst } from '@core/diagnose/linerschool.ts'
import { ordered } from '@core/diagnose/ordered.ts'
import { type ReliedCheck } from '@core/diagnose/relied.ts'
import { reckon, type Hint, type Reckoned } from '@core/diagnose/session.ts'
import { touchedOf, type Touched } from '@core/diagnose/touched.ts'
import { judgeLiner, stopSigns, withStop, type LinerSign } from '@core/liner/signs.ts'
import { type DownAnswer } from '@contract/down.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type DownState } from './downstate.ts'

const indexes = new WeakMap<object, Index>()
/** The knowledge made ready, once for each that comes. */
export function indexed(knowledge: Knowledge): Index {
  const known = indexes.get(knowledge) ?? indexOf(knowledge)
  indexes.set(knowledge, known)
  return known
}

/** What the log knows was touched last, before it stopped or, where nobody declared a stop, before the search began. */
export const touchedByLog = (gun: GunAnswer, startedMs: number): Touched | null =>
  touchedOf(
    gun.tape
      .filter((l) => l.standing !== 'withdrawn')
      .map(({ fact, position, happenedMs }) => ({
        ...{ kind: fact.kind, position, happenedMs },
        isTry: 'outReason' in fact && fact.outReason === 'toTry',
      })),
    { nowMs: gun.nowMs, stopMs: gun.downSinceMs ?? startedMs, fromMs: gun.changedFromMs },
  )

/** What was touched last: as the symptom itself says, as a hand says, else as the log has it; null: nobody said, and it is asked. */
export function touchedBefore(
  symptom: Pick<Symptom, 'touched'>,
  gun: GunAnswer,
  state: Pick<DownState, 'touched' | 'startedMs'>,
): Touched | null {
  const isTold = symptom.touched !== undefined && symptom.touched !== 'unknown'
  const told = isTold ? symptom.touched : (state.touched ?? touchedByLog(gun, state.startedMs))
  return told ?? symptom.touched ?? null
}

/** What of the gun's page speaks for or against causes. */
export function gunState(gun: GunAnswer, down: DownAnswer, touched: Touched | null): GunState {
  return {
    isCell: down.isCell,
    kinds: gun.positions.filter((p) => p.state !== 'absent').map((p) => p.kindKey),
    wear: gun.positions.map((p) => ({
      kindKey: p.kindKey,
      // A trade's guess is off by a factor of two and more: it speaks for nothing.
      share:
        p.used === null || !p.usual || p.usual.source === 'trade' || !(p.usual.amount > 0)
          ? null
          : p.used / p.usual.amount,
      shape: p.usual?.shape ?? null,
    })),
    found: gun.findings.filter((f) => f.kept === null),
    undone: gun.followUps.map((f) => f.task),
    isCored: down.isCored,
    alarms: [...gun.alarms.map((a) => a.what), ...(gun.cleaningRises ? (['cleaning'] as const) : [])],
    tags: gun.tags.map((t) => t.tag),
    touched,
    others: down.others,
  }
}

export interface Search {
  index: Index
  reckoned: Reckoned
  hints: Hint[]
  plan: Planned[]
  /** Minutes that the shop's own first look costs over the order by sign. */
  schoolCost: number
  /** What the shop's rule for liners did to the order. */
  liner: { did: LinerFirst['did']; signs: LinerSign[] }
  /** Stops of this shop behind the order. */
  own: number
}
/** All of it from what was said and what is known. */
export function search(
  down: DownAnswer,
  gun: GunAnswer,
  state: Pick<DownState, 'symptom' | 'touched' | 'said' | 'startedMs'>,
): Search | null {
  const { symptom, said } = state
  const index = indexed(down.knowledge)
  const listed = index.symptoms.find((s) => s.key === symptom)
  if (symptom === null || !listed) return null
  const hints = hintsOf(gunState(gun, down, touchedBefore(listed, gun, state)), index)
  const turned = turnedOf(down.turned, symptom, index.causeAt)
  const { shares, own } = ownShares(listed, turned)
  const reckoned = reckon(
    index,
    { symptom, said },
    { hints, shares, without: cannotBeHad(index, listed, { gun, down }) },
  )
  const ruling = linerRuling(down, gun, said)
  const { plan, schoolCost, did } = ordered(reckoned, {
    first: down.schools.first,
    blame: down.schools.blame,
    liner: ruling,
  })
  return { index, reckoned, hints, plan, schoolCost, liner: { did, signs: ruling.signs }, own }
}

/** Looks that can't be had: no part on the shelf to swap in; or that are told already: others stand too. */
function cannotBeHad(
  { checks }: Index,
  { causes }: Pick<Symptom, 'causes'>,
  { gun, down }: { gun: GunAnswer; down: DownAnswer },
): string[] {
  const isOut = (kind: string) => gun.positions.find((p) => p.kindKey === kind)?.onHand === 0
  const swaps = checks.filter((c) => c.mends && c.sign === 'swap' && isOut(c.mends)).map((c) => c.key)
  const asked: ReliedCheck = 'booths'
  return areOthersTold(down.others, causes) ? [...swaps, asked] : swaps
}

/** What speaks of the liner, with the stop that is being looked into. */
function linerRuling(down: DownAnswer, gun: GunAnswer, said: DownState['said']) {
  const { terms, evidence } = down.liner
  const stop = { atMs: gun.nowMs, said, cause: null, isCertain: false, closing: 'notTested' as const }
  const { say, signs } = judgeLiner(withStop(evidence, stop), { terms, alarms: gun.alarms, usedFraction: null })
  const tipsTried = stopSigns(stop)?.tips ?? 0
  return { school: down.schools.liner, isSigned: say === 'change', signs, tipsTried, tipsFirst: terms.tips }
}

export const usualOrder = ({ index, reckoned }: Search) => quickOrder(reckoned, (cause) => ownCheck(index, cause))

/** Chance by column of the path, for the beads; off the wire stands by itself. */
export function beadsOf({ reckoned }: Search): Map<PathPlace, number> {
  const beads = new Map<PathPlace, number>()
  for (const { cause, chance } of chancesOf(reckoned.belief)) {
    const column = columnOf(cause.at)
    beads.set(column, (beads.get(column) ?? 0) + chance)
  }
  return beads
}
