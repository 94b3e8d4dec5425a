import { type Id, makeId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { rightPart } from '@core/rightparts/check.ts'
import { desc, eq, isNull } from 'drizzle-orm'
import { type z } from 'zod'
import { type KitAnswer, type kitClosedRequest, type KitLineAnswer, type kitRequest } from '@contract/stock.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { kit, type KitLine } from '@server/db/schema.ts'
import { survey, type Surveyed } from '@server/floor/survey.ts'
import { wrongKinds } from '@server/gunnow/findings.ts'
import { stockedParts } from '@server/gunnow/line.ts'
import { readKept } from '@server/lifekept/kept.ts'
import { mustHaveParts } from '@server/parts/supply.ts'
import { listFoot, MM, type Sheet } from '@server/print/pdf.ts'
import { pdfOf } from '@server/print/printer.ts'
import { DomainError } from '@server/problem/problem.ts'
import { loadShop, mustHaveArea, type ShopModel } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { changing } from '@server/write/changing.ts'

type Stocked = Awaited<ReturnType<typeof stockedParts>>[number]
/** Likelier than not due before the guns stand anyway. */
const SOON = 0.5

/** What is due or wrong on the floor, as parts to take along in the order they lie in; and the kits that are packed. */
export async function readKits(deps: Deps, who: Who, areaId: KitArea): Promise<KitAnswer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  mustHaveArea(shop, areaId)
  const stationIds = areaId ? shop.stations.filter((s) => s.areaId === areaId).map((s) => s.id) : undefined
  const fits = await readKept(deps.db)
  const [surveyed, parts, packed] = await Promise.all([
    survey(deps.db, shop, { nowMs, fits, ...(stationIds ? { stationIds } : {}) }),
    stockedParts(deps.db),
    deps.db.select().from(kit).where(isNull(kit.closedMs)).orderBy(desc(kit.madeMs)),
  ])
  const wanted = wantedOf(surveyed, parts)
  const told = (lines: readonly KitLine[]) => linesTold(lines, { shop, parts })
  return {
    nowMs,
    zone: shop.site.zone,
    lines: told(wanted.lines),
    unknown: [...wanted.unknown].map(([kindKey, guns]) => ({
      kindName: shop.kindByKey.get(kindKey)?.name ?? kindKey,
      guns,
    })),
    packed: packed.map((k) => ({ id: k.id, name: k.name, madeMs: k.madeMs ?? 0, lines: told(k.lines) })),
  }
}
type KitArea = Id<'area'> | undefined

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
  const onHand = new Map(at.parts.map((p) => [p.id, p.onHand]))
  return lines
    .flatMap((l) => {
      const row = at.shop.partById.get(l.partId)
      if (!row) return []
      const { code, name, shelf } = row
      return [{ ...l, code, name, shelf, onHand: onHand.get(l.partId) ?? null }]
    })
    .sort((a, b) => natural.compare(a.shelf ?? '~', b.shelf ?? '~') || natural.compare(a.code, b.code))
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
            ...lines.map((l) => [l.shelf ?? '', `${l.code} ${l.name}`, String(l.quantity), l.guns.join(', '), '[   ]']),
          ],
        },
        layout: 'lines',
      },
    ],
  }
  const day = dayOf(shop.site.zone, row.madeMs ?? 0)
  return (await pdfOf({ definition, foot: listFoot(`${shop.site.name}, ${day}`) })).pdf
}
