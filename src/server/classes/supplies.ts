import { type z } from 'zod'
import { type Level } from '@core/classes/groups.ts'
import { willTake } from '@core/classes/tips.ts'
import { type PartId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type classesAnswer } from '@contract/classes.ts'
import { type Reader } from '@server/db/db.ts'
import { levelIn, tipsPutOn, type PutOn } from '@server/classuse/tipsput.ts'
import { stockedParts } from '@server/gunnow/line.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { timesOf } from '@server/shopmodel/school.ts'

type Tips = z.input<typeof classesAnswer>['tips']
const AHEAD_DAYS = [7, 28] as const

/** Tips of the coming week and month by calendar and level: what classes took, times the classes that come; and what lies on the shelf. */
export async function tipsOfClasses(
  db: Reader,
  shop: Pick<ShopModel, 'school' | 'site'>,
  nowMs: number,
): Promise<Tips> {
  const told = await tipsPutOn(db, shop, nowMs)
  if (!told) return null
  const { put, past } = told
  const times = timesOf(shop.school, shop.site.zone, { fromMs: nowMs, toMs: nowMs + 28 * DAY_MS })
  const coming = AHEAD_DAYS.map((days) => {
    const n = new Map<Level, number>()
    for (const o of times) {
      const isIn = o.kind === 'class' && o.fromMs >= nowMs && o.fromMs < nowMs + days * DAY_MS
      const level = isIn ? levelIn(shop.school, o.groupId) : undefined
      if (level) n.set(level, (n.get(level) ?? 0) + 1)
    }
    const will = willTake(past, n)
    return will && { days, classes: [...n.values()].reduce((s, x) => s + x, 0), ...will }
  })
  const [week, month] = coming
  if (!week || !month) return null
  return { week, month, past: past.map((p) => ({ ...p })), part: await tipMostUsed(db, put) }
}

/** The tip that is put on most there, with what lies on the shelf. */
async function tipMostUsed(db: Reader, put: readonly PutOn[]): Promise<NonNullable<Tips>['part']> {
  const counts = new Map<PartId, number>()
  for (const p of put) if (p.partId) counts.set(p.partId, (counts.get(p.partId) ?? 0) + p.count)
  const [most] = [...counts].sort((a, b) => b[1] - a[1])
  if (!most) return null
  const part = (await stockedParts(db)).find((p) => p.id === most[0])
  return part ? { partId: part.id, code: part.code, name: part.name, onHand: part.onHand } : null
}
