import { type StationId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type Overrun } from '@core/ledger/event.ts'
import { guideDoneRequest, guideNoteRequest, nearMissRequest } from '@contract/guide.ts'
import { linerDoneRequest, stuckRequest } from '@contract/liner.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { logGuide, nearMiss } from '@server/guide/done.ts'
import { setNote } from '@server/guide/notes.ts'
import { logLiner, logStuck } from '@server/liner/act.ts'
import { loadShop } from '@server/shopmodel/model.ts'

/** Liner jobs with their cuts, work done by the list, near misses, an instructor's own words: said as hands would say it. */
export async function plantGuides(deps: Deps, who: Who, idOf: (name: string) => StationId): Promise<void> {
  const ago = (days: number): Deps => ({ ...deps, now: () => deps.now() - Math.round(days * DAY_MS) })
  await linerJobs(ago, who, idOf)
  await workByTheList(ago, who, idOf)
  for (const [days, place, hazard] of [
    [48, 'T2', 'spring'],
    [23, 'A3', 'stab'],
    [9, 'T4', 'spring'],
    [3, 'R1', 'air'],
  ] as const)
    await nearMiss(ago(days), who, nearMissRequest.parse({ key: `story-near-${days}`, stationId: idOf(place), hazard }))
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const kelp = [...shop.families].find(([, name]) => name === 'Kelp')?.[0] ?? '*'
  await setNote(
    ago(60),
    who,
    guideNoteRequest.parse({
      key: 'story-own-words',
      guide: 'tip',
      step: 'tipOn',
      familyId: kelp,
      words: 'As you close a jam jar, not as you open one.',
      isInstead: false,
    }),
  )
}

type Ago = (days: number) => Deps
const JOBS = [
  { days: 61, place: 'A6', minutes: 27, overrun: null, found: 'worn', atMm: 250, standsOutMm: 171 },
  { days: 54, place: 'A2', minutes: 41, overrun: 'nutWinds', found: 'bunched', atMm: 3860, standsOutMm: 166 },
  { days: 40, place: 'A8', minutes: 24, overrun: null, found: 'clogged', atMm: null, standsOutMm: 158 },
  { days: 26, place: 'T6', minutes: 33, overrun: 'orings', found: 'worn', atMm: 310, standsOutMm: 173 },
] as const

/** The liners of four guns, each cut twice; one cable in which two stuck at the same place, one kinked on the way in. */
async function linerJobs(ago: Ago, who: Who, idOf: (name: string) => StationId): Promise<void> {
  for (const { days, place, minutes, overrun, found, atMm, standsOutMm } of JOBS) {
    const firstCutMm = standsOutMm - 18 - 3
    await logLiner(
      ago(days),
      who,
      linerDoneRequest.parse({
        key: `story-liner-${place}`,
        stationId: idOf(place),
        outReason: found === 'clogged' ? 'blocked' : 'worn',
        old: { found: [found], isCertain: found !== 'bunched', atMm, lengthMm: 4330 },
        isBlown: true,
        cut: {
          by: 'A',
          neededMm: 18,
          standsOutMm,
          firstCutMm,
          nowMm: 21.2,
          secondCutMm: 3.2,
          leftMm: 18,
          lengthMm: 4500 - firstCutMm - 3.2,
        },
        minutes,
        overrun: overrun as Overrun | null,
        settled: ['tension', 'freeFeed', 'orings', 'seat'],
      }),
    )
  }
  const stuck = (days: number, place: string, atMm: number, isKinked: boolean) =>
    logStuck(ago(days), who, stuckRequest.parse({ key: `story-stuck-${days}`, stationId: idOf(place), atMm, isKinked }))
  await stuck(33, 'B6', 1420, false)
  await stuck(32, 'B6', 1460, true)
}

/** Tips and rolls done by the list, with minutes: a little over the guess, as it is where one looks properly. */
async function workByTheList(ago: Ago, who: Who, idOf: (name: string) => StationId): Promise<void> {
  const minutes = [3.1, 2.6, 4, 2.9, 3.4, 2.2]
  for (const [i, min] of minutes.entries())
    await logGuide(
      ago(70 - 8 * i),
      who,
      guideDoneRequest.parse({
        key: `story-guide-${i}`,
        stationId: idOf(`T${i + 1 === 5 ? 7 : i + 1}`),
        guide: 'nozzle',
        did: 'cleaned',
        minutes: min,
        overrun: null,
      }),
    )
}
