import { type FamilyId, type Id, NO_ID, type StationId } from '@core/ids/id.ts'
import { isKindKey } from '@core/path/columns.ts'
import { type z } from 'zod'
import { FOLLOW_UP_TEXT, opensFollowUps, TRIGGERS, type Happening, isHeld } from '@core/followup/followup.ts'
import { type GuideAt } from '@core/guide/guideat.ts'
import { type Stocked } from '@core/rightparts/check.ts'
import { GUIDES, guideSteps, hasGuide } from '@core/guide/guides.ts'
import { GUIDE_KEYS, isLoading, type GuideKey } from '@core/guide/keys.ts'
import { rulingFor, type RuledBy } from '@core/houserule/schools.ts'
import { type GuideAnswer, type guideQuery, type MinutesLine } from '@contract/guide.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { brief, stockedParts } from '@server/gunnow/line.ts'
import { builtHere, ruledBy } from '@server/gunnow/setup.ts'
import { loadShop, type ShopModel, type ShopKinds, type ShopRules } from '@server/shopmodel/model.ts'
import { guideAtFamily, guideAtPlace } from './at.ts'
import { ownCautions, ownNotes } from './notes.ts'
import { stepLine } from './steps.ts'

/** What a guide is for: a place with its gun, or a family. */
export interface GuideFor {
  at: GuideAt
  parts: readonly Stocked[]
  by: RuledBy
  stationId: StationId | null
  name: string
  familyId: FamilyId | null
}

export async function guideFor(
  deps: Deps,
  shop: ShopModel,
  q: { stationId?: StationId | undefined; familyId?: FamilyId | undefined },
): Promise<GuideFor> {
  if (q.stationId) {
    const hung = await hungOne(deps.db, shop, q.stationId)
    const built = builtHere(hung, shop)
    const parts = await stockedParts(deps.db)
    return {
      at: guideAtPlace(hung, shop, parts),
      parts,
      by: ruledBy(hung.station, built),
      stationId: q.stationId,
      name: hung.station.name,
      familyId: built.familyId,
    }
  }
  const familyId: FamilyId = q.familyId ?? [...shop.familyById.values()][0]?.id ?? NO_ID
  const at = guideAtFamily(familyId, shop)
  if (!at)
    throw new DomainError('not-found', 'There is no such family.', ['Describe one under Our shop, or choose a gun.'])
  return { at, parts: [], by: { family: familyId }, stationId: null, name: at.setup.family?.name ?? '', familyId }
}

/** Minutes of a guide: its kind's as the shop says, else the sum of its steps; learnt from the jobs logged. */
export function guideMinutes(shop: ShopKinds, of: GuideFor, guide: GuideKey): MinutesLine {
  const { kindKey } = GUIDES[guide]
  const isTask = kindKey === guide
  const said = isTask ? (shop.kindByKey.get(guide)?.changeMin ?? 0) : 0
  const sum = guideSteps(of.at, guide).reduce((total, s) => total + s.minutes, 0)
  const { median, p80, n, others, held } = shop.learnt(guide, of.familyId, said > 0 ? said : sum)
  return { median, p80, n, others, held }
}

/** One guide for one gun or family, in this shop's words and units. */
export async function readGuide(deps: Deps, who: Who, q: z.output<typeof guideQuery>): Promise<GuideAnswer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const of = await guideFor(deps, shop, q)
  const there = GUIDE_KEYS.filter((k) => hasGuide(of.at, k))
  const guide = q.guide && there.includes(q.guide) ? q.guide : null
  if (q.guide && !guide)
    throw new DomainError(
      'not-found',
      `${of.name} has no ${GUIDES[q.guide].name.toLowerCase()} as far as anybody said.`,
      ['Say under Our shop how its gun is built.'],
    )
  return {
    stationId: of.stationId,
    name: of.name,
    familyId: of.familyId,
    familyName: of.at.setup.family?.name ?? null,
    feederType: feederTypeOf(of),
    wireName: of.at.setup.wire?.name ?? null,
    zone: shop.site.zone,
    guide,
    ...(await bodyOf(deps, who, { shop, of, guide })),
    guides: there.map((key) => ({ key, name: GUIDES[key].name, minutes: guideMinutes(shop, of, key).median })),
  }
}

/** Of a feeder of which only the rolls are told there is no type. */
export function feederTypeOf({ at: { setup } }: Pick<GuideFor, 'at'>): GuideAnswer['feederType'] {
  const { feeder } = setup
  return feeder && feeder.id !== '' ? { id: feeder.id as Id<'feederType'>, name: feeder.name } : null
}

interface BodyOf {
  shop: ShopKinds & ShopRules
  of: GuideFor
  guide: GuideKey | null
}
async function bodyOf(deps: Deps, who: Who, what: BodyOf) {
  const { shop, of, guide } = what
  if (!guide)
    return {
      title: '',
      kindKey: null,
      canClean: false,
      reasons: [],
      tools: [],
      put: null,
      minutes: null,
      steps: [],
      follows: [],
      own: null,
    }
  const [site, notes] = await Promise.all([
    ownCautions(deps.db),
    ownNotes(deps.db, who, { guide, familyId: of.familyId, feederTypeId: feederTypeOf(of)?.id ?? null }),
  ])
  // How this cell is made safe, where the site has written it down for the cell itself.
  const { lockOut } = of.at.setup.cell ?? { lockOut: null }
  const own = lockOut ? { ...site, robot: lockOut } : site
  const { name, kindKey, tools } = GUIDES[guide]
  const kind = kindKey ? shop.kindByKey.get(kindKey) : undefined
  const putId = kindKey ? of.at.putOf(kindKey)?.id : null
  const put = of.parts.find((p) => p.id === putId)
  return {
    title: name,
    kindKey: kind ? kindKey : null,
    canClean: kind?.canClean ?? false,
    reasons: kind ? [...kind.reasons] : [],
    tools: tools(of.at),
    put: put ? brief(put) : null,
    minutes: guideMinutes(shop, of, guide),
    steps: guideSteps(of.at, guide).map((s) =>
      stepLine(s, { own, by: of.by, choices: shop.choices, note: notes.get(s.key) ?? null }),
    ),
    follows: followsOf(guide, of, shop),
    own: notes.get('*') ?? null,
  }
}

/** What this work makes necessary afterwards, as the table of follow-ups has it. */
function followsOf(guide: GuideKey, of: GuideFor, shop: ShopRules): string[] {
  const happening: Happening = {
    kind: isLoading(guide) ? 'wireLoaded' : guide === 'gun' ? 'mounted' : 'fitted',
    position: isKindKey(guide) ? guide : null,
    isOtherPart: false,
    isKnocked: false,
    hasCrashed: false,
    isNeckOn: false,
    isSeatedAgain: guide === 'gun',
    followedUp: null,
    isRaised: false,
    nozzleCleanings: 0,
  }
  const triggers = opensFollowUps(happening).map((k) => TRIGGERS[k])
  const asked = triggers.filter(
    (t) => !t.onlyBy || isHeld(t.onlyBy, (code) => rulingFor(code, of.by, shop.choices).school.key),
  )
  return [...new Set(asked.map((t) => FOLLOW_UP_TEXT[t.follow].do))]
}
