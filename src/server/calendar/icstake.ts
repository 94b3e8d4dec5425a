import { eq } from 'drizzle-orm'
import { type z } from 'zod'
import { makeId } from '@core/ids/id.ts'
import { type icsTaken, type icsTakeRequest, type IcsLine, type IcsPreview } from '@contract/classes.ts'
import { calendarEntry, calendarMove, holiday } from '@server/db/schema.ts'
import { type Reader, type Tx } from '@server/db/db.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { readSchool } from '@server/shopmodel/school.ts'
import { DomainError } from '@server/problem/problem.ts'
import { recount, toBeRecounted } from '@server/projection/recount.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { addDays, dayOf } from '@server/time/wall.ts'
import { changing, OK } from '@server/write/changing.ts'
import { readIcs } from './icsin.ts'
import { daysOf } from '@server/time/dayrule.ts'
import { clashesNow } from './write.ts'

async function read(db: Reader, text: string, at: { shop: ShopModel; nowMs: number }): Promise<IcsPreview> {
  const school = await readSchool(db)
  const known = await db.select({ uid: calendarEntry.uid }).from(calendarEntry).where(eq(calendarEntry.isActive, true))
  const groups = school.groups.filter((g) => g.isActive)
  return readIcs(text, { zone: at.shop.site.zone, nowMs: at.nowMs, known: new Set(known.map((k) => k.uid)), groups })
}

/** What is in a calendar file, before any of it is taken. */
export async function previewIcs(deps: Deps, who: Who, text: string): Promise<IcsPreview> {
  mustLead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  return read(deps.db, text, { shop, nowMs: deps.now() })
}

/** Takes what was chosen of a calendar file; what is known by its own name is changed, and nothing is taken twice. */
export async function takeIcs(
  deps: Deps,
  who: Who,
  r: z.output<typeof icsTakeRequest>,
): Promise<z.input<typeof icsTaken>> {
  const hasHoliday = r.take.some((t) => t.as === 'holiday')
  await changing(deps, who, {
    key: r.key,
    change: { of: 'calendar', name: '', is: 'takenIn', count: r.take.length },
    work: async (tx, w) => {
      const shop = await w.shop()
      const { lines } = await read(tx, r.text, { shop, nowMs: deps.now() })
      const { groups } = await readSchool(tx)
      for (const take of r.take) {
        const line = lines.find((l) => l.uid === take.uid)
        if (!line) throw new DomainError('bad-request', `“${take.uid}” is not in that file.`, ['Read the file again.'])
        if (take.areaId && !shop.areas.some((a) => a.id === take.areaId))
          throw new DomainError('not-found', 'There is no such bay.', ['Load the page again.'])
        if (take.as === 'class' && !groups.some((g) => g.id === take.groupId && g.isActive))
          throw new DomainError('bad-request', `“${line.name}”: whose class is it?`, ['Choose a group for it.'])
        if (take.as === 'holiday') await addHolidays(tx, line, dayOf(shop.site.zone, deps.now()))
        else await takeOne(tx, deps, { line, take: { ...take, as: take.as } })
      }
      if (hasHoliday) await toBeRecounted(tx, r.key)
    },
    ...(hasHoliday ? { then: recount } : {}),
  })
  return { ...OK, taken: r.take.length, clashes: await clashesNow(deps) }
}

type Take = z.output<typeof icsTakeRequest>['take'][number]
async function takeOne(
  tx: Tx,
  deps: Deps,
  { line, take }: { line: IcsLine; take: Take & { as: 'class' | 'cellStop' | 'other' } },
): Promise<void> {
  if (line.isHoliday)
    throw new DomainError('bad-request', `“${line.name}” is whole days.`, ['Take it as a holiday, or leave it.'])
  const { name, firstDay, start, end, rule, uid } = line
  const values = {
    ...{ kind: take.as, name, firstDay, start, end, rule, areaId: take.areaId, isActive: true },
    groupId: take.as === 'class' ? take.groupId : null,
  }
  const [known] = await tx.select().from(calendarEntry).where(eq(calendarEntry.uid, uid)).for('update')
  const id = known?.id ?? makeId('entry', deps.now(), deps.random)
  if (known) await tx.update(calendarEntry).set(values).where(eq(calendarEntry.id, id))
  else await tx.insert(calendarEntry).values({ id, uid, madeMs: deps.now(), ...values })
  await tx.delete(calendarMove).where(eq(calendarMove.entryId, id))
  if (line.moves.length > 0) await tx.insert(calendarMove).values(line.moves.map((m) => ({ entryId: id, ...m })))
}

/** Each of its days in the next two years; one that is there already stays as it is called. */
async function addHolidays(tx: Tx, line: IcsLine, today: string): Promise<void> {
  const firsts = daysOf(line, line.rule ? addDays(today, -365) : line.firstDay, addDays(today, 2 * 365))
  const days = firsts.flatMap((d) => Array.from({ length: line.days }, (_, i) => addDays(d, i)))
  const known = new Set((await tx.select().from(holiday)).map((h) => h.day))
  const rows = [...new Set(days)].filter((d) => !known.has(d)).map((day) => ({ day, name: line.name.slice(0, 60) }))
  if (rows.length > 0) await tx.insert(holiday).values(rows)
}
