import { asc } from 'drizzle-orm'
import { type ShopAnswer } from '@contract/shop.ts'
import { NOTHING_BUILT } from '@core/shop/built.ts'
import { carriersAt } from '@server/gunnow/setup.ts'
import { carrier, holiday, houseRule, part, person, stationNow } from '@server/db/schema.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { suggestedLimits } from '@core/catalogue/limits.ts'
import { type LifeUnit } from '@core/path/columns.ts'
import { allTogether, type LiesAt } from '@core/stock/onhand.ts'
import { keptKey, readKept, type KeptFits } from '@server/lifekept/kept.ts'
import { readLies } from '@server/projection/stock.ts'
import { peopleLines } from '@server/people/people.ts'
import { type ShiftOfWeek } from '@server/time/calendar.ts'
import {
  loadShop,
  type KindRow,
  type RuleRow,
  type ShopModel,
  type StationRow,
  type ShopFit,
  type ShopPlaces,
} from '@server/shopmodel/model.ts'

/** How the shop is set up. Prices and rates are told to leads only. */
export async function readShop(deps: Deps, who: Who): Promise<ShopAnswer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const [nows, carriers, rules, parts, lies, holidays, people, lines, fits] = await Promise.all([
    deps.db.select().from(stationNow),
    deps.db.select().from(carrier),
    deps.db.select().from(houseRule),
    deps.db.select().from(part).orderBy(asc(part.code)),
    readLies(deps.db),
    deps.db.select().from(holiday),
    deps.db.select().from(person),
    peopleLines(deps, who),
    readKept(deps.db),
  ])
  const byId = new Map(carriers.map((c) => [c.id, c]))
  const nowOf = new Map(nows.map((n) => [n.stationId, n]))
  const nameOf = new Map(people.map((p) => [p.id, p.name]))
  const money = isLead(who)
  return {
    site: siteLine(shop, money),
    areas: shop.areas.map((a) => ({ id: a.id, name: a.name, built: { ...NOTHING_BUILT, ...a.built } })),
    stations: shop.stations.map((s) => stationLine(s, { shop, now: nowOf.get(s.id), byId })),
    classes: [...shop.classes.values()].map((c) => ({
      ...c,
      labourMinorPerHour: money ? c.labourMinorPerHour : 0,
      stopMinorPerHour: money ? c.stopMinorPerHour : 0,
      scrapMinorPerPiece: money ? c.scrapMinorPerPiece : 0,
    })),
    kinds: shop.kinds.map(kindLine),
    rules: rules.map((r) =>
      ruleLine(r, { shop, fits, chosenBy: (money && r.chosenById && nameOf.get(r.chosenById)) || null }),
    ),
    parts: parts.map((p) => ({ ...p, priceMinor: money ? p.priceMinor : null, ...shelvesOf(lies.get(p.id) ?? []) })),
    stores: shop.stores.filter((s) => s.isActive).map(({ id, name }) => ({ id, name })),
    ...fitLines(shop, money),
    shifts: shop.shifts.map(shiftLine),
    holidays,
    ...lines,
  }
}

/** What there is of a part, in all and place by place. */
const shelvesOf = (lies: readonly LiesAt[]): Pick<ShopAnswer['parts'][number], 'onHand' | 'lies'> => ({
  onHand: allTogether(lies)?.onHand ?? null,
  lies: lies.map(({ storeId, onHand }) => ({ storeId, onHand })),
})

const siteLine = ({ site }: ShopModel, isMoney: boolean): ShopAnswer['site'] => ({
  name: site.name,
  zone: site.zone,
  units: site.units,
  currency: site.currency,
  gasMinorPerM3: isMoney ? site.gasMinorPerM3 : null,
})

/** What fits what, by name. */
function fitLines(
  shop: ShopFit,
  isMoney: boolean,
): Pick<ShopAnswer, 'wires' | 'families' | 'feederTypes' | 'procedures'> {
  const byName = <T extends { name: string }>(rows: Iterable<T>) =>
    [...rows].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))
  return {
    wires: [...shop.wires.values()].map((w) =>
      isMoney || !w.fit ? w : { ...w, fit: { ...w.fit, pricePerKgMinor: null } },
    ),
    families: byName(shop.familyById.values()),
    feederTypes: byName(shop.feederTypes.values()),
    procedures: byName(shop.procedures.values()),
  }
}

const kindLine = (k: KindRow): ShopAnswer['kinds'][number] => ({
  key: k.key,
  name: k.name,
  column: k.column,
  partClass: k.partClass,
  lifeUnit: k.lifeUnit,
  canClean: k.canClean,
  changeMin: k.changeMin,
  cleanMin: k.cleanMin,
  confirmDays: k.confirmDays,
  synonyms: k.synonyms,
  reasons: k.reasons,
})

function stationLine(
  s: StationRow,
  at: {
    shop: ShopPlaces
    now: typeof stationNow.$inferSelect | undefined
    byId: Map<string, typeof carrier.$inferSelect>
  },
): ShopAnswer['stations'][number] {
  const { shop, now, byId } = at
  const ids = carriersAt(s.id, now, shop)
  return {
    id: s.id,
    name: s.name,
    areaId: s.areaId,
    placeWord: s.placeWord,
    classKey: s.classKey,
    walkOrder: s.walkOrder,
    walkMinutes: s.walkMinutes,
    stopGroup: s.stopGroup,
    except: s.except,
    gunName: now?.gunId ? (byId.get(now.gunId)?.name ?? null) : null,
    headName: now?.headId ? (byId.get(now.headId)?.name ?? null) : null,
    positions: ids.flatMap((id) => byId.get(id)?.positions ?? []),
    isParked: now?.isParked ?? false,
  }
}

/** The trade's own number, taken by hand, as long as the shop's own lives tell less than it. */
function isTrade(r: RuleRow, lifeUnit: LifeUnit | undefined, fits: KeptFits): boolean {
  if (r.basis !== null || r.changeLimit === null || !lifeUnit) return false
  const [trade] = suggestedLimits([{ key: r.kindKey, lifeUnit }])
  if (trade?.changeAt !== r.changeLimit) return false
  const own = [...fits].some(
    ([key, fit]) =>
      fit.source === 'yours' &&
      (r.classKey === '*' ? key.startsWith(`${r.kindKey} `) : key === keptKey(r.kindKey, r.classKey)),
  )
  return !own
}

const ruleLine = (
  r: RuleRow,
  { shop, fits, chosenBy }: { shop: ShopModel; fits: KeptFits; chosenBy: string | null },
): ShopAnswer['rules'][number] => ({
  kindKey: r.kindKey,
  classKey: r.classKey,
  changeLimit: r.changeLimit,
  cleanLimit: r.cleanLimit,
  lookDays: r.lookDays,
  chosenBy,
  chosenMs: r.chosenMs,
  isTrade: isTrade(r, shop.kindByKey.get(r.kindKey)?.lifeUnit, fits),
})

const shiftLine = ({ areaId, name, weekdays, start, end, breaks }: ShiftOfWeek) => ({
  areaId,
  name,
  weekdays,
  start,
  end,
  breaks,
})
