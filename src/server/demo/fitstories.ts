import { type StationId } from '@core/ids/id.ts'
import { type Position } from '@core/path/columns.ts'
import { DAY_MS, MIN_MS } from '@core/units/time.ts'
import { eq } from 'drizzle-orm'
import { type SettingName } from '@core/rightparts/facts.ts'
import { act } from '@contract/logbook.ts'
import { gunRequest } from '@contract/spareguns.ts'
import { carrier, part } from '@server/db/schema.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { makeGun, setGunStatus } from '@server/gun/swap.ts'
import { logActs } from '@server/logbook/log.ts'
import { jointTrouble, setSettings, tag } from '@server/rightparts/act.ts'
import { loadShop } from '@server/shopmodel/model.ts'

/** Guns built wrong, a brake left tight, tips that seize, and spare guns: each said as a hand would say it. */
export async function plantFit(deps: Deps, who: Who, idOf: (name: string) => StationId): Promise<void> {
  const parts = new Map((await deps.db.select({ id: part.id, code: part.code }).from(part)).map((p) => [p.code, p.id]))
  const ago = (ms: number): Deps => ({ ...deps, now: () => deps.now() - ms })
  const put = (place: string, position: Position, code: string) =>
    logActs(ago(4 * MIN_MS), who, {
      key: `story-fit-${place.replaceAll(' ', '')}`,
      acts: [act.parse({ stationId: idOf(place), act: 'changed', position, partId: parts.get(code) })],
    })
  const set = (place: string, settings: { name: SettingName; value: string }[]) =>
    setSettings(ago(5 * MIN_MS), who, {
      key: `story-set-${place.replaceAll(' ', '')}`,
      stationId: idOf(place),
      how: 'read',
      settings,
    })
  await set('A4', [{ name: 'roll2', value: '0.9' }])
  await put('T3', 'tip', 'KE-T12')
  await put('B5', 'diffuser', 'KE-D')
  await put('B8', 'liner', 'SH-L12')
  await set('R3', [{ name: 'polarity', value: 'gun negative' }])
  await set('Cell 2', [{ name: 'machineWire', value: '1.0' }])
  await set('T7', [{ name: 'unwind', value: 'over the top' }])
  await tag(ago(6 * MIN_MS), who, { key: 'story-tag-T2', stationId: idOf('T2'), tag: 'brakeTight', isBack: false })
  await seizingTips(deps, who, idOf)
  await spareGuns(deps, who)
}

/** A hall that tightens tips hard: they seize, and now and then one comes loose. */
async function seizingTips(deps: Deps, who: Who, idOf: (name: string) => StationId): Promise<void> {
  const faults = [...Array<'seized'>(13).fill('seized'), 'stripped', 'cameLoose', 'crossThreaded'] as const
  for (const [i, fault] of faults.entries())
    await jointTrouble({ ...deps, now: () => deps.now() - (5 + 9 * i) * DAY_MS }, who, {
      key: `story-joint-${i}`,
      stationId: idOf(`A${(i % 8) + 1}`),
      joint: 'tip',
      fault,
      thread: null,
    })
}

async function spareGuns(deps: Deps, who: Who): Promise<void> {
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const familyOf = (name: string) => [...shop.families].find(([, n]) => n === name)?.[0] ?? null
  const make = (key: string, name: string, family: string) =>
    makeGun(
      { ...deps, now: () => deps.now() - DAY_MS },
      who,
      gunRequest.parse({ key: `story-gun-${key}`, name, familyId: familyOf(family), cableM: 4 }),
    )
  await make('k1', 'spare K1', 'Kelp')
  await make('k2', 'spare K2', 'Kelp')
  await make('s1', 'spare S1', 'Shale')
  const [worn] = await deps.db.select().from(carrier).where(eq(carrier.name, 'spare K2'))
  if (worn) await setGunStatus(deps, who, { key: 'story-gun-worn', gunId: worn.id, status: 'toRefurbish' })
}
