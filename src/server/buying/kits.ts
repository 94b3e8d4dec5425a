import { willTake } from '@core/classes/tips.ts'
import { type GroupId, type Id, makeId, type StationId, type StoreId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { rightPart } from '@core/rightparts/check.ts'
import { takeFrom } from '@core/stock/onhand.ts'
import { stillWanted } from '@core/stock/packed.ts'
import { eq } from 'drizzle-orm'
import { type z } from 'zod'
import {
  type KitAnswer,
  type kitClosedRequest,
  type KitLineAnswer,
  type kitQuery,
  type kitRequest,
} from '@contract/stock.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { kit, type KitLine } from '@server/db/schema.ts'
import { levelIn, tipsPutOn } from '@server/classuse/tipsput.ts'
import { type Reader } from '@server/db/db.ts'
import { activeBooths } from '@server/shopmodel/school.ts'
import { survey, type Surveyed } from '@server/floor/survey.ts'
import { wrongKinds } from '@server/gunnow/findings.ts'
import { stockedParts } from '@server/gunnow/line.ts'
import { readKept } from '@server/lifekept/kept.ts'
import { mustHaveParts } from '@server/parts/supply.ts'
import { listFoot, MM, type Sheet } from '@server/print/pdf.ts'
import { pdfOf } from '@server/print/printer.ts'
import { openKits, packedOf } from '@server/stock/packed.ts'
import { DomainError } from '@server/problem/problem.ts'
import { loadShop, mustHaveArea, storeName, type ShopModel } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { changing } from '@server/write/changing.ts'

type Stocked = Awaited<ReturnType<typeof stockedParts>>[number]
/** Likelier than not due before the guns stand anyway. */
const SOON = 0.5

/** What is due or wrong on the floor, as parts to take along in the order they lie in; and the kits that are packed. */
export async function readKits(deps: Deps, who: Who, q: z.output<typeof kitQuery>): Promise<KitAnswer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const stationIds = stationsFor(shop, q)
  const fits = await readKept(deps.db)
  const [surveyed, parts] = await Promise.all([
    survey(deps.db, shop, { nowMs, fits, ...(stationIds ? { stationIds } : {}) }),
    stockedParts(deps.db),
  ])
  const kits = await openKits(deps.db, surveyed)
  const wanted = wantedOf(surveyed, parts)
  const all = q.groupId
    ? await withClass(deps.db, wanted.lines, { shop, surveyed, groupId: q.groupId, nowMs })
    : wanted.lines
  // Guns that a kit is packed for are served, and what is in it is no longer there to take.
  const packed = packedOf(kits)
  const lines = all.flatMap(
    (l) =>
      stillWanted(
        l,
        kits.flatMap((k) => k.left),
      ) ?? [],
  )
  const free = parts.map((p) => (p.onHand === null ? p : { ...p, onHand: p.onHand - (packed.get(p.id) ?? 0) }))
  return {
    nowMs,
    zone: shop.site.zone,
    lines: linesTold(lines, { shop, parts: free }),
    unknown: [...wanted.unknown].map(([kindKey, guns]) => ({
      kindName: shop.kindByKey.get(kindKey)?.name ?? kindKey,
      guns,
    })),
    packed: kits.map((k) => ({
      id: k.id,
      name: k.name,
      madeMs: k.madeMs ?? 0,
      lines: linesTold(k.lines, { shop, parts }),
    })),
  }
}

/** Guns a kit is for; undefined is all of them. */
function stationsFor(shop: ShopModel, { areaId, groupId }: z.output<typeof kitQuery>): StationId[] | undefined {
  mustHaveArea(shop, areaId)
  if (groupId && !shop.school.groups.some((g) => g.id === groupId && g.isActive))
    throw new DomainError('not-found', 'There is no such group.', ['Choose one of those shown.'])
  if (groupId) return activeBooths(shop.school, groupId)
  return areaId ? shop.stations.filter((s) => s.areaId === areaId).map((s) => s.id) : undefined
}

/** What one class of the group’s level may take in tips beyond those that are due: the most in nine classes of ten, shared by the tips its booths run. */
async function withClass(
  db: Reader,
  lines: readonly KitLine[],
  at: { shop: ShopModel; surveyed: readonly Surveyed[]; groupId: GroupId; nowMs: number },
): Promise<KitLine[]> {
  const level = levelIn(at.shop.school, at.groupId)
  const told = await tipsPutOn(db, at.shop, at.nowMs)
  const will = level && told ? willTake(told.past, new Map([[level, 1]])) : null
  const runs = at.surveyed.flatMap((s) =>
    s.now.isParked ? [] : (s.positions.find((p) => p.kind.key === 'tip')?.row.partId ?? []),
  )
  if (!will || runs.length === 0) return [...lines]
  const more = [...new Set(runs)].flatMap((partId): KitLine[] => {
    const due = lines.find((l) => l.partId === partId)
    const share = runs.filter((id) => id === partId).length / runs.length
    const forClass = Math.ceil(will.high * share) - (due?.quantity ?? 0)
    return forClass > 0 ? [{ partId, quantity: (due?.quantity ?? 0) + forClass, guns: due?.guns ?? [], forClass }] : []
  })
  return [...lines.filter((l) => !more.some((m) => m.partId === l.partId)), ...more]
}

function wantedOf(surveyed: readonly Surveyed[], parts: readonly Stocked[]) {
  const lines = new Map<string, KitLine>()
  const unknown = new Map<KindKey, string[]>()
  for (const s of surveyed) {
    if (s.now.isParked) continue
    for (const { kindKey, isWrong } of kindsWanted(s)) {
      // What wore out is followed by its like, what is wrong by what is right.
      const like = isWrong ? null : (s.positions.find((p) => p.kind.key === kindKey)?.row.partId ?? null)
      const id = like ?? rightPart(s.checked.setup, kindKey, parts)?.id
      if (!id) {
        unknown.set(kindKey, [...(unknown.get(kindKey) ?? []), s.station.name])
        continue
      }
      const line = lines.get(id) ?? { partId: id, quantity: 0, guns: [] }
      lines.set(id, { ...line, quantity: line.quantity + 1, guns: [...line.guns, s.station.name] })
    }
  }
  return { lines: [...lines.values()], unknown }
}

/** Kinds to be changed on a gun: wrong parts, and what is due or will be before its guns stand anyway. */
function kindsWanted(s: Surveyed): { kindKey: KindKey; isWrong: boolean }[] {
  const wrong = wrongKinds(s.checked)
  const due = s.positions
    .filter((p) => p.change?.act === 'change' && (p.verdict.state === 'due' || p.chanceBy > SOON))
    .map((p) => p.kind.key)
  return [...new Set([...wrong, ...due])].map((kindKey) => ({ kindKey, isWrong: wrong.has(kindKey) }))
}

const natural = new Intl.Collator('en', { numeric: true })
function linesTold(lines: readonly KitLine[], at: { shop: ShopModel; parts: readonly Stocked[] }): KitLineAnswer[] {
  const stocked = new Map(at.parts.map((p) => [p.id, p]))
  const storeOfGun = new Map(at.shop.stations.map((s) => [s.name, at.shop.storeOf(s.id)]))
  return lines
    .flatMap((l) => {
      const row = at.shop.partById.get(l.partId)
      if (!row) return []
      const { code, name, shelf } = row
      const of = stocked.get(l.partId)
      const stores = l.guns.map((g) => storeOfGun.get(g) ?? null)
      return [{ ...l, code, name, shelf, onHand: of?.onHand ?? null, from: fromOf(l, { stores, of, shop: at.shop }) }]
    })
    .sort((a, b) => natural.compare(a.shelf ?? '~', b.shelf ?? '~') || natural.compare(a.code, b.code))
}

/** From which places, where there are several; what no gun is named for comes from where the first of them gets its own. */
function fromOf(
  { quantity, guns }: KitLine,
  { stores, of, shop }: { stores: readonly (StoreId | null)[]; of: Stocked | undefined; shop: ShopModel },
): KitLineAnswer['from'] {
  const lies = of?.lies ?? []
  if (!lies.some((l) => l.storeId !== null)) return []
  const all = [...stores, ...Array<StoreId | null>(Math.max(0, quantity - guns.length)).fill(stores[0] ?? null)]
  const wanted = new Map<StoreId | null, number>()
  all.slice(0, quantity).forEach((id) => wanted.set(id, (wanted.get(id) ?? 0) + 1))
  return takeFrom(lies, wanted).map((t) => ({ store: storeName(t.storeId, shop), quantity: t.quantity }))
}

/** Packed: they lie together, and are no longer anybody else's. */
export const packKit = (deps: Deps, who: Who, r: z.output<typeof kitRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'kit', name: r.name, isClosed: false },
    work: async (tx) => {
      await mustHaveParts(
        tx,
        r.lines.map((l) => l.partId),
      )
      await tx.insert(kit).values({
        id: makeId('kit', deps.now(), deps.random),
        ...{ name: r.name, lines: r.lines, madeMs: deps.now(), closedMs: null, idempotencyKey: r.key },
      })
    },
  })

/** Used up, or given back. */
export function closeKit(deps: Deps, who: Who, r: z.output<typeof kitClosedRequest>) {
  const said = { name: '' }
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'kit', ...said, isClosed: true }),
    work: async (tx) => {
      const [row] = await tx.select().from(kit).where(eq(kit.id, r.kitId)).for('update')
      if (!row || row.closedMs !== null) throw new DomainError('not-found', 'That kit is not packed any more.')
      said.name = row.name
      await tx.update(kit).set({ closedMs: deps.now() }).where(eq(kit.id, r.kitId))
    },
  })
}

/** "Cell cupboard: 2; B2: 1". */
const fromWords = ({ from, shelf }: KitLineAnswer): string =>
  from.length === 0
    ? (shelf ?? '')
    : from.map((f) => `${f.store ?? shelf ?? 'main shelf'}${from.length > 1 ? `: ${f.quantity}` : ''}`).join('; ')
const whoFor = ({ guns, forClass = 0 }: KitLineAnswer) =>
  [...guns, ...(forClass > 0 ? [`${forClass} for the class`] : [])].join(', ')

/** A kit on paper: what to take from where, for which guns. */
export async function kitPdf(deps: Deps, who: Who, id: Id<'kit'>): Promise<Buffer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const [row] = await deps.db.select().from(kit).where(eq(kit.id, id))
  if (!row) throw new DomainError('not-found', 'There is no such kit.')
  const lines = linesTold(row.lines, { shop, parts: await stockedParts(deps.db) })
  const definition: Sheet['definition'] = {
    pageSize: 'A4',
    pageMargins: [14 * MM, 14 * MM, 14 * MM, 14 * MM],
    defaultStyle: { fontSize: 11 },
    info: { title: `${shop.site.name}: kit ${row.name}` },
    content: [
      { text: `Kit: ${row.name}`, fontSize: 16, bold: true },
      {
        margin: [0, 8, 0, 0],
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: ['auto', 'auto', 'auto', '*', 'auto'],
          body: [
            ['from', 'part', 'how many', 'for', 'taken'].map((text) => ({ text, bold: true })),
            ...lines.map((l) => [fromWords(l), `${l.code} ${l.name}`, String(l.quantity), whoFor(l), '[   ]']),
          ],
        },
        layout: 'lines',
      },
    ],
  }
  const day = dayOf(shop.site.zone, row.madeMs ?? 0)
  return (await pdfOf({ definition, foot: listFoot(`${shop.site.name}, ${day}`) })).pdf
}
