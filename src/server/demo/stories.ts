import { NO_ID, type StationId } from '@core/ids/id.ts'
import { type QuestionCode } from '@core/houserule/schools.ts'
import { DAY_MS } from '@core/units/time.ts'
import { and, desc, eq } from 'drizzle-orm'
import { ledgerEvent, person, station } from '@server/db/schema.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { correct } from '@server/logbook/correct.ts'
import { logActs } from '@server/logbook/log.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { backWorked } from '@core/clock/schedule.ts'
import { moveGun } from '@server/shop/move.ts'
import { act } from '@contract/logbook.ts'
import { choose } from '@server/houserule/choices.ts'
import { plantBuying } from './buyingstories.ts'
import { plantClasses } from './classstories.ts'
import { plantPractice } from './practicestories.ts'
import { plantCells } from './cellstories.ts'
import { plantFit } from './fitstories.ts'
import { plantGuides } from './guidestories.ts'
import { plantReadings } from './readingstories.ts'
import { plantSpools } from './spoolstories.ts'
import { DEMO_LEAD } from './yard.ts'

/** Stories that are told through the program's own doors, as a person would. */
export async function plantStories(deps: Deps): Promise<void> {
  const [lead] = await deps.db.select().from(person).where(eq(person.name, DEMO_LEAD.name))
  if (!lead) throw new Error('plantStories: the demo has no lead')
  const who: Who = { person: { id: lead.id, name: lead.name, role: lead.role }, device: null }
  const ids = new Map((await deps.db.select().from(station)).map((s) => [s.name, s.id]))
  const idOf = (name: string) => ids.get(name) ?? NO_ID
  const log = (key: string, entry: Parameters<typeof act.parse>[0]) =>
    logActs(deps, who, { key: `story-${key}`, acts: [act.parse(entry)] })
  const past: Deps = { ...deps, now: () => deps.now() - 45 * DAY_MS }
  await moveGun(past, who, { key: 'story-gun-moved', stationId: idOf('A10'), gunOfStationId: idOf('A9') })
  await log('parked', { stationId: idOf('T5'), act: 'parked', happenedMs: deps.now() - 12 * DAY_MS })
  await log('down', {
    stationId: idOf('B3'),
    act: 'down',
    position: 'liner',
    happenedMs: await workedAgo(deps, idOf('B3'), 25 * 60_000),
  })
  await plantSpools(deps, who, idOf)
  await plantFit(deps, who, idOf)
  await plantGuides(deps, who, idOf)
  await plantReadings({ deps, who, idOf })
  await plantBuying(deps, who)
  await plantCells(deps, who, idOf)
  await plantClasses(deps, who, idOf)
  await plantPractice(deps, who)
  const chose = (code: QuestionCode, option: string, note: string) =>
    choose(past, who, { key: `story-rule-${code}`, code, scopeType: 'site', scopeKey: '*', option, note })
  await chose('D25', 'forATime', 'three days, then the liner')
  await chose('D14', 'first', 'a drum of aluminium fell in March')
  await log('wrong-gun-tip', {
    stationId: idOf('A5'),
    act: 'changed',
    position: 'tip',
    outReason: 'worn',
    happenedMs: await workedAgo(deps, idOf('A5'), 40 * 60_000),
  })
  await movedLine(deps, who, { from: idOf('A5'), to: idOf('A6') })
}

/** The moment from which so much working time has passed until now; the demo may be built at night or on a Sunday. */
async function workedAgo(deps: Deps, stationId: StationId, workedMs: number): Promise<number> {
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  return backWorked(shop.scheduleOfArea(shop.stationById.get(stationId)?.areaId ?? NO_ID), deps.now(), workedMs)
}

/** The newest tip change on one gun was really on the other. */
async function movedLine(deps: Deps, who: Who, at: { from: StationId; to: StationId }): Promise<void> {
  const rows = await deps.db
    .select()
    .from(ledgerEvent)
    .where(and(eq(ledgerEvent.stationId, at.from), eq(ledgerEvent.kind, 'fitted')))
    .orderBy(desc(ledgerEvent.happenedMs))
    .limit(20)
  const tip = rows.find(
    (row) => row.body.type === 'fact' && 'position' in row.body.fact && row.body.fact.position === 'tip',
  )
  if (tip)
    await correct(deps, who, {
      key: 'story-wrong-gun',
      eventId: tip.id,
      stationId: at.to,
      note: 'booked on the wrong gun',
    })
}
