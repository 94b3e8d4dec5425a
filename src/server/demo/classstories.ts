import sharp from 'sharp'
import { eq } from 'drizzle-orm'
import { BEFORE_CLASS_MS, handOverAt, type Occurrence } from '@core/classes/calendar.ts'
import { HAND_ITEM_KEYS, handItem, RIGHT, wrongOf, type FoundAtBooth, type HandItemKey } from '@core/classes/items.ts'
import { type GroupId, type StationId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { pairPhotoKey } from '@core/photo/photo.ts'
import { makeRandom, pick } from '@core/random/random.ts'
import { DAY_MS, MIN_MS } from '@core/units/time.ts'
import { calendarEntry, device, learnerGroup } from '@server/db/schema.ts'
import { transact } from '@server/db/db.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { activeBooths, readSchool, timesOf, type School } from '@server/shopmodel/school.ts'
import { moveOnce, saveEntry } from '@server/calendar/write.ts'
import { logFound } from '@server/classes/found.ts'
import { type TurnedOut } from '@core/classes/technique.ts'
import { act } from '@contract/logbook.ts'
import { logActs } from '@server/logbook/log.ts'
import { keepTold } from '@server/classes/technique.ts'
import { logTaught, saveGroup } from '@server/classes/groups.ts'
import { savePair } from '@server/classes/pairs.ts'
import { keepPhoto } from '@server/photo/photos.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { writeUnprojected } from '@server/write/act.ts'
import { CLASSES, YARD } from './yard.ts'

const WEEKS = 9
/** Where the apprentices say it. */
const TABLET = 'Apprentice bay tablet'
/** Of ten booths so many are looked at before class. */
const LOOKED = 0.75

/** The apprentices’ weeks: who learns when, how each class finds its booths, one lesson given and one that is due. */
export async function plantClasses(deps: Deps, who: Who, idOf: (name: string) => StationId): Promise<void> {
  const past: Deps = { ...deps, now: () => deps.now() - WEEKS * 7 * DAY_MS }
  await plantCalendar(past, who, idOf)
  await moveNext(deps, who)
  const school = await readSchool(deps.db)
  const { site } = await loadShop(deps.db, deps.shops, deps.now())
  const nowMs = deps.now()
  const times = timesOf(school, site.zone, { fromMs: nowMs - WEEKS * 7 * DAY_MS, toMs: nowMs + DAY_MS })
  const looks = drawLooks(school, times, nowMs)
  await writeLooks(deps, looks)
  const reed = school.groups.find((g) => g.name === CLASSES.helped.group)?.id
  if (reed) {
    const ago: Deps = { ...deps, now: () => nowMs - CLASSES.helped.daysAgo * DAY_MS }
    await logTaught(ago, who, { key: 'story-taught', groupId: reed, item: CLASSES.helped.item })
  }
  await plantCards(deps, who)
  const week = times.filter((o) => o.kind === 'class' && o.fromMs >= nowMs - 6 * DAY_MS && o.toMs < nowMs)
  await plantCalls(deps, who, { week, idOf })
}

/** Who called in the classes of the last days: some booths stood for a while, at more the bead was bad. */
async function plantCalls(
  deps: Deps,
  who: Who,
  { week, idOf }: { week: readonly Occurrence[]; idOf: (name: string) => StationId },
): Promise<void> {
  for (const [i, { place, at, was }] of CALLS.entries()) {
    const of = week[i % Math.max(1, week.length)]
    if (!of) return
    const atMs = of.fromMs + (25 + 4 * i) * MIN_MS
    const stationId = idOf(place)
    const key = `story-call-${i}`
    if (was) await keepTold({ ...deps, now: () => atMs }, who, { key, stationId, was })
    else if (at) {
      const acts = [act.parse({ stationId, act: 'down', position: at, happenedMs: atMs })]
      await logActs(deps, who, { key, acts })
      const again = [act.parse({ stationId, act: 'running', happenedMs: atMs + 7 * MIN_MS })]
      await logActs(deps, who, { key: `${key}-again`, acts: again })
    }
  }
}
const CALLS: readonly { place: string; at?: 'tip' | 'nozzle'; was?: TurnedOut }[] = [
  { place: 'T1', was: 'distance' },
  { place: 'T4', at: 'tip' },
  { place: 'T2', was: 'angle' },
  { place: 'T8', at: 'tip' },
  { place: 'T6', was: 'equipment' },
  { place: 'T1', was: 'distance' },
  { place: 'T3', was: 'speed' },
  { place: 'T2', at: 'nozzle' },
  { place: 'T4', was: 'draught' },
]

async function plantCalendar(past: Deps, who: Who, idOf: (name: string) => StationId): Promise<void> {
  const firstDay = dayOf(YARD.zone, past.now())
  for (const g of CLASSES.groups) {
    const booths = g.booths.map((name, i) => ({
      stationId: idOf(name),
      wireId: null,
      learner: `${g.name.charAt(0)}${i + 1}`,
    }))
    const { name, level, size } = g
    await saveGroup(past, who, { key: `story-group-${name}`, id: null, name, level, size, isActive: true, booths })
    const [made] = await past.db.select().from(learnerGroup).where(eq(learnerGroup.name, name))
    await saveEntry(past, who, {
      ...{ key: `story-class-${name}`, id: null, kind: 'class', name, areaId: null, groupId: made?.id ?? null },
      ...{ firstDay, start: g.start, end: g.end, weekly: { weekdays: [...g.weekdays], untilDay: null, everyWeeks: 1 } },
    })
  }
  await saveEntry(past, who, {
    ...{
      key: 'story-cell-stop',
      id: null,
      kind: 'cellStop',
      name: 'Cells stand: tool centres',
      areaId: null,
      groupId: null,
    },
    ...{ firstDay, start: '13:00', end: '13:20', weekly: { weekdays: [5], untilDay: null, everyWeeks: 2 } },
  })
}

/** One class of the coming days was moved to the afternoon. */
async function moveNext(deps: Deps, who: Who): Promise<void> {
  const [entry] = await deps.db.select().from(calendarEntry).where(eq(calendarEntry.name, CLASSES.moved.group))
  if (!entry) return
  const school = await readSchool(deps.db)
  const today = deps.now() + 2 * DAY_MS
  const next = timesOf(school, YARD.zone, { fromMs: today, toMs: today + 8 * DAY_MS }).find(
    (o) => o.entryId === entry.id,
  )
  if (!next) return
  await moveOnce(deps, who, {
    ...{ key: 'story-class-moved', entryId: entry.id, day: next.day, isBack: false },
    to: { day: next.day, start: CLASSES.moved.start, end: CLASSES.moved.end },
  })
}

interface Drawn {
  stationId: StationId
  atMs: number
  of: Occurrence
  leftBy: GroupId | null
  found: FoundAtBooth
  still: HandItemKey[]
}
/** How each class found its booths: by what booths and hands are like, by what one group tends to, and by a lesson that worked. */
function drawLooks(school: School, times: readonly Occurrence[], nowMs: number): Drawn[] {
  const random = makeRandom(4711)
  const boothsOf = new Map(school.groups.map((g) => [g.id, activeBooths(school, g.id)]))
  const nameOf = new Map(school.groups.map((g) => [g.id, g.name]))
  const share = (item: HandItemKey, leftBy: GroupId | null, atMs: number): number => {
    const name = leftBy ? nameOf.get(leftBy) : null
    const { does, helped } = CLASSES
    if (item === does.item && name === does.group) return does.share
    const daysAgo = (nowMs - atMs) / DAY_MS
    if (item === helped.item && name === helped.group) return daysAgo > helped.daysAgo ? helped.before : helped.since
    return CLASSES.share
  }
  return times
    .filter((o) => o.kind === 'class' && o.groupId !== null && o.fromMs - BEFORE_CLASS_MS < nowMs)
    .flatMap((of) =>
      (boothsOf.get(of.groupId as GroupId) ?? []).flatMap((stationId, i): Drawn[] => {
        const atMs = of.fromMs - (10 - i) * MIN_MS
        const isLooked = random() < LOOKED
        const { leftBy } = handOverAt(times, (id) => (boothsOf.get(id) ?? []).includes(stationId), atMs)
        const found: FoundAtBooth = {}
        for (const item of HAND_ITEM_KEYS)
          found[item] =
            random() < share(item, leftBy?.groupId ?? null, atMs) ? pick(random, handItem(item).wrong).key : RIGHT
        const still = wrongOf(found).filter(() => random() < 0.06)
        if (!isLooked || atMs > nowMs) return []
        return [{ stationId, atMs, of, leftBy: leftBy?.groupId ?? null, found, still }]
      }),
    )
}

/** Those of before are lines alone; the newest of each booth goes through the door, with its readings. */
async function writeLooks(deps: Deps, looks: readonly Drawn[]): Promise<void> {
  const newest = new Map(looks.map((l) => [l.stationId, l]))
  const old = looks.filter((l) => newest.get(l.stationId) !== l)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  await transact(deps.db, (tx) =>
    writeUnprojected(tx, deps, async (w) => {
      for (const [i, l] of old.entries()) {
        const carrierId = shop.carrierOfStation.get(l.stationId)
        if (!carrierId) continue
        const fact: Fact = {
          ...{ kind: 'handedOver', carrierId, classId: l.of.entryId, day: dayOf(YARD.zone, l.atMs) },
          ...{ groupId: l.of.groupId, leftBy: l.leftBy, found: l.found, still: [] },
        }
        const { stationId, atMs } = l
        w.say({
          kind: 'handedOver',
          key: `story-look-${i}`,
          lines: [{ fact, stationId, happenedMs: atMs, loggedMs: atMs }],
        })
      }
      return Promise.resolve()
    }),
  )
  const [tablet] = await deps.db.select().from(device).where(eq(device.name, TABLET))
  if (!tablet) throw new Error(`writeLooks: there is no ${TABLET}`)
  const { id, name, areaId, stationId } = tablet
  const atTablet: Who = { person: null, device: { id, name, areaId, stationId } }
  for (const [i, l] of [...newest.values()].entries()) {
    const then: Deps = { ...deps, now: () => l.atMs }
    const { [CLASSES.overlooked.item]: _, ...others } = l.found
    const isOverlooked = shop.stationById.get(l.stationId)?.name === CLASSES.overlooked.place
    const found: FoundAtBooth = isOverlooked ? others : l.found
    await logFound(then, atTablet, {
      key: `story-look-new-${i}`,
      stationId: l.stationId,
      found,
      still: l.still.filter((k) => found[k] !== undefined),
    })
  }
}

/** A card in the instructor’s own words, with the yard’s own pictures, and one that is wrong here. */
async function plantCards(deps: Deps, who: Who): Promise<void> {
  const nothing = { right: null, wrong: null, why: null, exercise: null, image: null, source: null, isWrongHere: false }
  await savePair(deps, who, {
    ...{ ...nothing, key: 'story-pair-tip', pair: 'tipTight', source: 'counted on forty diffusers of this yard' },
    image: 'Like the lid of a jam jar you open every morning, not like a wheel nut.',
  })
  await savePair(deps, who, {
    ...{
      ...nothing,
      key: 'story-pair-brush',
      pair: 'brush',
      isWrongHere: true,
      source: 'no aluminium in the apprentice bay',
    },
  })
  for (const [side, at] of [
    ['right', 0],
    ['wrong', 1],
  ] as const)
    await keepPhoto(deps, who, {
      of: { type: 'pair', key: pairPhotoKey('nozzle', side), once: `story-photo-nozzle-${side}` },
      bytes: await nozzleSeen(at),
    })
}

const SEEN = { width: 640, height: 480 }
/** A nozzle from the front as a camera sees it: brass, its mouth, and what grew in it. Made up, like the yard. */
async function nozzleSeen(grown: number): Promise<Uint8Array> {
  const random = makeRandom(99 + grown)
  const blobs = Array.from({ length: 46 * grown }, () => {
    const [turn, far] = [random() * 2 * Math.PI, 118 - 40 * random()]
    return { x: 320 + far * Math.cos(turn), y: 240 + far * Math.sin(turn), r: 8 + 16 * random() }
  })
  const pixels = Buffer.alloc(SEEN.width * SEEN.height * 3)
  for (let y = 0; y < SEEN.height; y++)
    for (let x = 0; x < SEEN.width; x++) {
      const far = Math.hypot(x - 320, y - 240)
      const grit = 14 * (random() - 0.5)
      const isGrown = far < 150 && blobs.some((b) => Math.hypot(x - b.x, y - b.y) < b.r)
      const colour = isGrown ? [108, 102, 96] : nozzleColour(far, Math.hypot(x - 260, y - 170))
      pixels.set(
        colour.map((c) => Math.max(0, Math.min(255, c + grit))),
        (y * SEEN.width + x) * 3,
      )
    }
  return new Uint8Array(
    await sharp(pixels, { raw: { ...SEEN, channels: 3 } })
      .blur(1.6)
      .jpeg({ quality: 86 })
      .toBuffer(),
  )
}
/** Wire, tip, mouth, brass, bench; by how far from the middle, and from where the light falls. */
function nozzleColour(far: number, lit: number): number[] {
  if (far < 7) return [16, 16, 16]
  if (far < 44) return [176, 106, 60]
  if (far < 128) return [23, 20, 15]
  if (far < 170) return [224, 176, 112].map((c) => c - lit * 0.32)
  return [75, 74, 71]
}
