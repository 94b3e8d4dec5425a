import { type z } from 'zod'
import { type CarrierId, makeId, type PartId, type StationId, type WireId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { kindOfPosition, type KindKey } from '@core/path/columns.ts'
import { findingsWith } from '@core/rightparts/check.ts'
import { ANTI_SPATTERS, ROLL_SETTINGS, type Joint, type SettingName } from '@core/rightparts/facts.ts'
import { MADE_WITH } from '@core/rightparts/joints.ts'
import { RULES, type Datum, type Finding } from '@core/rightparts/finding.ts'
import { TAG_TEXT } from '@core/changeover/tags.ts'
import { parseWireSize } from '@core/units/wiresize.ts'
import {
  type issueRequest,
  type jointRequest,
  type keepRequest,
  type lookRequest,
  type setRequest,
  type tagRequest,
} from '@contract/rightparts.ts'
import { and, eq } from 'drizzle-orm'
import { keptFinding } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { carrierAt } from '@server/write/place.ts'
import { AUDIT, THERE_OR_NOT } from '@core/walk/audit.ts'
import { logFacts } from '@server/write/facts.ts'
import { changing, OK } from '@server/write/changing.ts'
import { readOnHand } from '@server/projection/stock.ts'
import { loadShop, type ShopModel, type ShopFit } from '@server/shopmodel/model.ts'
import { checkPlace, ofWhat } from '@server/gunnow/findings.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { findingLines, stockedParts } from '@server/gunnow/line.ts'
import { partFacts, setupOf } from '@server/gunnow/setup.ts'

const ON: Record<SettingName, 'station' | 'head' | 'gun'> = {
  roll1: 'head',
  roll2: 'head',
  roll3: 'head',
  roll4: 'head',
  polarity: 'head',
  unwind: 'head',
  gas: 'station',
  machineWire: 'head',
  machineMode: 'head',
  machineMaterial: 'head',
  tipOut: 'gun',
  reamerBlade: 'station',
  reamerClamp: 'station',
  antiSpatter: 'station',
  gripTip: 'station',
  scrapeNozzle: 'station',
  snipWire: 'station',
  ownBrush: 'station',
  hangGun: 'station',
  chainCylinder: 'station',
}

/** The carrier a setting is said of, by a position that rides on it. */
export function settingCarrier(place: Parameters<typeof carrierAt>[0], name: SettingName): CarrierId {
  const by = { station: place.stationCarrierId, head: place.now.headId, gun: place.now.gunId }[ON[name]]
  if (!by)
    throw new DomainError('not-found', 'There is no feeder or gun here now.', ['Say in Our shop what hangs there.'])
  return by
}

const SIZES = new Set<SettingName>([...ROLL_SETTINGS, 'machineWire'])
const LENGTHS = new Set<SettingName>(['tipOut', 'reamerBlade', 'reamerClamp'])

/** A setting as it is kept: sizes in mm as the shop's wires have them; what is no size or length is refused in words. */
export function settingValue(name: SettingName, value: string): string {
  if (SIZES.has(name)) {
    const size = parseWireSize(value)
    if (!size.ok)
      throw new DomainError('bad-request', `${name.startsWith('roll') ? 'Roll' : 'Machine'}: ${size.reason}.`)
    return String(size.diameterMm)
  }
  if (LENGTHS.has(name)) {
    const mm = Number(value.replace(',', '.').replace(/mm$/i, ''))
    if (!Number.isFinite(mm) || Math.abs(mm) > 60)
      throw new DomainError('bad-request', `"${value}" is no length in mm.`, [
        'Write −3 for three back, 2 for two out.',
      ])
    return String(mm)
  }
  if (name in AUDIT && !THERE_OR_NOT.some((v) => v === value))
    throw new DomainError('bad-request', `"${value}" is neither there nor missing.`, ['Say one of the two.'])
  if (name === 'antiSpatter' && !ANTI_SPATTERS.some((a) => a === value))
    throw new DomainError('bad-request', `"${value}" is no anti-spatter known here.`, [
      `One of: ${ANTI_SPATTERS.join(', ')}.`,
    ])
  return value
}

export const settingFact = (
  carrierId: CarrierId,
  said: { name: SettingName; value: string },
  how: 'read' | 'set',
): Fact => ({ kind: 'setting', carrierId, name: said.name, value: settingValue(said.name, said.value), how })

/** What is on a gun, as somebody saw it: named parts, read settings. Ends with what does not fit. */
export async function look(deps: Deps, who: Who, r: z.output<typeof lookRequest>) {
  await logFacts(deps, who, {
    kind: 'look',
    key: r.key,
    stationId: r.stationId,
    factsOf: (place, shop) => [
      ...r.parts.map((p): Fact => {
        const part = p.partId ? shop.partById.get(p.partId) : undefined
        if (p.partId && part?.kindKey !== kindOfPosition(p.position))
          throw new DomainError('bad-request', `That part is no ${kindOfPosition(p.position)}.`, [
            'Choose one of the list.',
          ])
        return {
          kind: 'found',
          carrierId: carrierAt(place, p.position, shop),
          position: p.position,
          partId: p.partId,
        }
      }),
      ...r.settings.map((s) => settingFact(settingCarrier(place, s.name), s, 'read')),
      ...(r.wireId ? [wireFound(r.wireId, carrierAt(place, 'hub', shop), shop)] : []),
    ],
  })
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const [hung, parts] = [await hungOne(deps.db, shop, r.stationId), await stockedParts(deps.db)]
  return { findings: findingLines(checkPlace(hung, shop), { shop, parts }) }
}

function wireFound(wireId: WireId, carrierId: CarrierId, shop: ShopFit): Fact {
  if (!shop.wires.has(wireId)) throw new DomainError('not-found', 'There is no such wire.')
  return { kind: 'wireFound', carrierId, wireId: wireId }
}

export async function setSettings(deps: Deps, who: Who, r: z.output<typeof setRequest>) {
  await logFacts(deps, who, {
    key: r.key,
    stationId: r.stationId,
    factsOf: (place) => r.settings.map((s) => settingFact(settingCarrier(place, s.name), s, r.how)),
  })
  return OK
}

export async function tag(deps: Deps, who: Who, r: z.output<typeof tagRequest>) {
  await logFacts(deps, who, {
    key: r.key,
    stationId: r.stationId,
    factsOf: (place, shop) => {
      const carrierId = carrierAt(place, TAG_TEXT[r.tag].at, shop)
      return [{ kind: r.isBack ? 'untied' : 'tied', carrierId, tag: r.tag }]
    },
  })
  return OK
}

/** A joint that gave trouble. Scrapped threads take the tip and what it screws into. */
export async function jointTrouble(deps: Deps, who: Who, r: z.output<typeof jointRequest>) {
  await logFacts(deps, who, {
    key: r.key,
    stationId: r.stationId,
    factsOf: (place, shop) => {
      const at = MADE_WITH[r.joint]
      const carrierId = carrierAt(place, at, shop)
      const fault: Fact = { kind: 'jointFault', carrierId, joint: r.joint, fault: r.fault, thread: r.thread }
      if (r.thread !== 'scrapped') return [fault]
      const into = SCREWED_INTO[r.joint]
      const both = into ? [at, into] : [at]
      return [
        fault,
        ...both.map((position): Fact => ({
          kind: 'removed',
          carrierId: carrierAt(place, position, shop),
          position,
          outReason: 'stripped',
        })),
      ]
    },
  })
  return OK
}
const SCREWED_INTO: Partial<Record<Joint, KindKey>> = { tip: 'diffuser' }

/** Handed over the counter for a gun. A part that does not fit it is refused with the reason. */
export async function issue(deps: Deps, who: Who, r: z.output<typeof issueRequest>) {
  await logFacts(deps, who, {
    key: r.key,
    stationId: r.stationId,
    check: async (tx, shop) => mustFit(tx, shop, r),
    factsOf: () => [{ kind: 'issued', partId: r.partId, quantity: r.quantity }],
  })
  return { partId: r.partId, onHand: (await readOnHand(deps.db)).get(r.partId) ?? null }
}

async function mustFit(tx: Reader, shop: ShopModel, r: { stationId: StationId; partId: PartId }): Promise<void> {
  const row = shop.partById.get(r.partId)
  if (!row) throw new DomainError('not-found', 'There is no such part.')
  const setup = setupOf(await hungOne(tx, shop, r.stationId), shop)
  if (setup.parts[row.kindKey] === undefined)
    throw new DomainError(
      'wrong-part',
      `There is no ${shop.kindByKey.get(row.kindKey)?.name ?? row.kindKey} on this gun.`,
    )
  const against = findingsWith(setup, partFacts(row)).filter((f) => f.severity !== 'note')
  if (against.length > 0) throw new WrongPart(row.code, against)
}

/** What speaks against a part, rule by rule, in mm. */
class WrongPart extends DomainError {
  constructor(code: string, against: Finding[]) {
    super(
      'wrong-part',
      `${code} does not fit this gun.`,
      against.map((f) => `${inWords(f.rule, f)} ${RULES[f.rule].why}`),
    )
  }
}
function inWords(rule: keyof typeof RULES, f: Finding): string {
  return RULES[rule].what.replace('{found}', plain(f.found)).replace('{wanted}', plain(f.wanted))
}
function plain(d: Datum): string {
  switch (d.is) {
    case 'size':
      return `${d.mm} mm`
    case 'sizes':
      return `${d.fromMm} to ${d.toMm} mm`
    case 'length':
      return `${Math.round(d.m * 100) / 100} m`
    case 'groove':
      return `${d.shape} ${d.sizeMm} mm`
    case 'depth':
      return `${d.mm} mm`
    case 'depths':
      return `${d.fromMm} to ${d.toMm} mm`
    case 'text':
      return d.text.startsWith('family:') ? 'another family' : d.text
    case 'amps':
      return `${d.amps} A`
    case 'share':
      return `${Math.round(d.fraction * 100)}%`
    case 'speed':
      return `${d.mPerMin} m/min`
  }
}

/** The lead lives with a finding, or takes that back. It holds as long as the same thing is found. */
export const keepFinding = (deps: Deps, who: Who, r: z.output<typeof keepRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'finding', rule: r.rule, at: r.at, isKept: r.isKept },
    work: async (tx, w) => {
      const where = and(eq(keptFinding.stationId, r.stationId), eq(keptFinding.rule, r.rule), eq(keptFinding.at, r.at))
      if (!r.isKept) return void (await tx.delete(keptFinding).where(where))
      const shop = await w.shop()
      const { findings } = checkPlace(await hungOne(tx, shop, r.stationId), shop)
      const found = findings.find((f) => f.rule === r.rule && f.at === r.at)
      if (!found) throw new DomainError('not-found', 'That is not found there any more.')
      const values = {
        of: ofWhat(found),
        note: r.note?.trim() || null,
        chosenById: who.person?.id ?? null,
        chosenMs: deps.now(),
      }
      const { stationId, rule, at } = r
      await tx
        .insert(keptFinding)
        .values({ id: makeId('kept', deps.now(), deps.random), stationId, rule, at, ...values })
        .onDuplicateKeyUpdate({ set: values })
    },
  })
