import { asc, isNull } from 'drizzle-orm'
import { z } from 'zod'
import { codePath } from '@core/logbook/actcode.ts'
import { spool, spoolNow } from '@server/db/schema.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { loadShop, type ShopFit } from '@server/shopmodel/model.ts'
import { boothCards, labelSheet, type Label } from './cards.ts'
import { type Sheet } from './pdf.ts'
import { pdfOf } from './printer.ts'

export const printQuery = z.object({
  what: z.enum(['cards', 'guns', 'spools']),
  areaId: z.string().optional(),
  stationId: z.string().optional(),
})
type PrintQuery = z.output<typeof printQuery>

/** Booth cards, gun labels or spool labels as a PDF. `origin` stands before every code: the address this page was asked under. */
export async function print(deps: Deps, who: Who, at: { query: PrintQuery; origin: string }): Promise<Buffer> {
  mustLead(who)
  return (await pdfOf({ definition: await sheetOf(deps, at) })).pdf
}

async function sheetOf(deps: Deps, at: { query: PrintQuery; origin: string }): Promise<Sheet['definition']> {
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const { what } = at.query
  if (what === 'spools')
    return labelSheet(mustHaveSome(await spoolLabels(deps, shop, at.origin), 'spool'), 'spool labels')
  const stations = shop.stations.filter(
    (s) => (!at.query.areaId || s.areaId === at.query.areaId) && (!at.query.stationId || s.id === at.query.stationId),
  )
  const some = mustHaveSome(stations, 'gun')
  if (what === 'cards') return boothCards(some, shop, at.origin)
  const labels = some.map((s) => ({
    title: s.name,
    sub: `${s.placeWord}, ${shop.areas.find((a) => a.id === s.areaId)?.name ?? ''}`,
    code: `${at.origin}${codePath(s.name)}`,
  }))
  return labelSheet(labels, 'gun labels')
}

function mustHaveSome<T>(list: readonly T[], word: string): readonly T[] {
  if (list.length === 0) throw new DomainError('not-found', `There is no ${word} to print for.`, ['Set one up first.'])
  return list
}

async function spoolLabels(deps: Deps, shop: ShopFit, origin: string): Promise<Label[]> {
  const [numbers, nows] = await Promise.all([
    deps.db.select().from(spool).orderBy(asc(spool.number)),
    deps.db.select().from(spoolNow).where(isNull(spoolNow.goneMs)),
  ])
  const nowOf = new Map(nows.map((s) => [s.spoolId, s]))
  return numbers.flatMap((s) => {
    const now = nowOf.get(s.id)
    if (!now) return []
    const wire = shop.wires.get(now.wireId ?? '')?.name ?? ''
    const lot = now.lot ? `, lot ${now.lot}` : ''
    return [{ title: String(s.number), sub: `${wire}${lot}`, code: `${origin}/go/spool/${s.number}` }]
  })
}
