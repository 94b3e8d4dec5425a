import { type z } from 'zod'
import { USUAL_CABLE_M } from '@core/guide/feed.ts'
import { fitOf } from '@core/guide/guideat.ts'
import { guideSteps } from '@core/guide/guides.ts'
import { cutterOf, isTube, linerOf, quarterBendMm, trimBy, trimFit } from '@core/guide/linerguide.ts'
import { frontTarget, orderLengthMm, ruleByBuild } from '@core/liner/rule.ts'
import { SAME_PLACE_MM } from '@core/liner/resistance.ts'
import { type LinerAnswer, type linerQuery } from '@contract/liner.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { carrierNames } from '@server/floor/survey.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { brief } from '@server/gunnow/line.ts'
import { feederTypeOf, guideFor, guideMinutes, type GuideFor } from '@server/guide/read.ts'
import { ownCautions, ownNotes } from '@server/guide/notes.ts'
import { stepLine } from '@server/guide/steps.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { linerHistory, spoiledShare, type LinerHistory } from './history.ts'

/** What runs inside a feeder, from the socket to the rolls: a guess, longer where the liner goes on to them. */
const FEEDER_SIDE_MM = 40
const TO_ROLLS_MM = 120
/** Room to stand at both ends of a gun laid straight. */
const ROOM_MM = 500
/** A cable longer than this is lifted by a second pair of hands: a guess. */
const LONG_CABLE_MM = 3600

/** Everything a liner job wants at hand before a tool is picked up, and its steps. */
export async function readLiner(deps: Deps, who: Who, q: z.output<typeof linerQuery>): Promise<LinerAnswer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const hung = await hungOne(deps.db, shop, q.stationId)
  const of = await guideFor(deps, shop, q)
  if (of.at.setup.parts['liner'] === undefined)
    throw new DomainError('not-found', `${of.name} has no liner as far as anybody said.`, [
      'Say under Our shop what hangs there.',
    ])
  const [history, spoiled, own, notes, names] = await Promise.all([
    linerHistory(deps.db, hung.now.gunId),
    spoiledShare(deps.db, deps.now()),
    ownCautions(deps.db),
    ownNotes(deps.db, who, { guide: 'liner', familyId: of.familyId, feederTypeId: feederTypeOf(of)?.id ?? null }),
    carrierNames(deps.db, [hung.now.gunId]),
  ])
  return {
    nowMs: deps.now(),
    zone: shop.site.zone,
    stationId: q.stationId,
    name: of.name,
    gunName: hung.now.gunId ? (names.get(hung.now.gunId) ?? null) : null,
    familyName: of.at.setup.family?.name ?? null,
    wireName: of.at.setup.wire?.name ?? null,
    ...partOf(of),
    ...lengthsOf(of, history),
    ...trimOf(of, history),
    minutes: guideMinutes(shop, of, 'liner'),
    last: history.last,
    stuckBefore: history.stuck,
    spoiled,
    autopsies: history.autopsies,
    reasons: [...(shop.kindByKey.get('liner')?.reasons ?? [])],
    steps: guideSteps(of.at, 'liner').map((s) =>
      stepLine(s, { own, by: of.by, choices: shop.choices, note: notes.get(s.key) ?? null }),
    ),
  }
}

function partOf({ at, parts }: GuideFor): Pick<LinerAnswer, 'put' | 'putLengthMm' | 'isTube' | 'cutter'> {
  const liner = linerOf(at)
  const put = parts.find((p) => p.id === liner?.id)
  return {
    put: put ? brief(put) : null,
    putLengthMm: liner?.fit?.lengthM ? liner.fit.lengthM * 1000 : null,
    isTube: isTube(at),
    cutter: cutterOf(at),
  }
}

function lengthsOf(
  of: GuideFor,
  history: LinerHistory,
): Pick<LinerAnswer, 'cableMm' | 'neckMm' | 'orderMm' | 'clearFloorMm' | 'secondPerson'> {
  const { at } = of
  const cableMm = at.setup.cableM === null ? null : at.setup.cableM * 1000
  const neckMm = fitOf(at)?.neckMm ?? null
  const feederSideMm = trimBy(at) === 'feeder' ? TO_ROLLS_MM : FEEDER_SIDE_MM
  const whole = (cableMm ?? USUAL_CABLE_M * 1000) + (neckMm ?? 0)
  const why: LinerAnswer['secondPerson'] = []
  if ((cableMm ?? 0) > LONG_CABLE_MM) why.push('longCable')
  if (linerOf(at)?.fit?.linerKind === 'coated steel coil') why.push('coated')
  if (cableMm !== null && history.stuck.some((s) => s.atMm > cableMm - SAME_PLACE_MM)) why.push('stuckBefore')
  return {
    cableMm,
    neckMm,
    orderMm: cableMm === null ? null : orderLengthMm({ cableMm, neckMm: neckMm ?? 0, feederSideMm }),
    clearFloorMm: whole + ROOM_MM,
    secondPerson: why,
  }
}

function trimOf(
  of: GuideFor,
  history: LinerHistory,
): Pick<LinerAnswer, 'by' | 'neededMm' | 'shouldBe' | 'bareFrontMm' | 'quarterBend' | 'seatToNipMm'> {
  const { at } = of
  const by = trimBy(at)
  const fit = trimFit(at)
  const told = by === 'A' || by === 'B' ? frontTarget(fit, { lengthMm: null, wasShort: false }) : null
  return {
    // A rule whose figure nobody told is no rule yet.
    by: told && !told.ok ? 'notTold' : by,
    neededMm: told?.ok ? told.target.neededMm : null,
    shouldBe: by === 'C' && fit ? ruleByBuild(fit) : null,
    bareFrontMm: linerOf(at)?.fit?.isJacketed ? (linerOf(at)?.fit?.bareFrontMm ?? null) : null,
    quarterBend: quarterBendMm(),
    seatToNipMm: history.seatToNipMm,
  }
}
