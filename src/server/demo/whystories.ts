import { type Position } from '@core/path/columns.ts'
import { type CarrierId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { makeRandom } from '@core/random/random.ts'

/** What stops in the yard turned out to be: by the part they were of, a sign and its causes with their weights. */
const WHY: Record<
  string,
  readonly { symptom: string; weight: number; causes: readonly (readonly [cause: string, weight: number])[] }[]
> = {
  tip: [
    {
      symptom: 'burnback',
      weight: 6,
      causes: [
        ['tipWorn', 14],
        ['hubTight', 3],
        ['tensionLow', 2],
        ['settings', 1],
      ],
    },
    {
      symptom: 'stumbles',
      weight: 3,
      causes: [
        ['tipWorn', 10],
        ['workClamp', 5],
        ['wireEnd', 2],
      ],
    },
    {
      symptom: 'nest',
      weight: 1,
      causes: [
        ['tipPlugged', 6],
        ['tipOn', 3],
      ],
    },
  ],
  liner: [
    {
      symptom: 'jerk',
      weight: 7,
      causes: [
        ['linerWorn', 9],
        ['linerDirty', 5],
        ['linerKinked', 1],
      ],
    },
    {
      symptom: 'slips',
      weight: 3,
      causes: [
        ['linerWorn', 5],
        ['linerDirty', 3],
      ],
    },
  ],
}
const SAID_SHARE = 0.55
const SURE_SHARE = 0.8

function weighted<T>(list: readonly (readonly [T, number])[], u: number): T | undefined {
  let at = u * list.reduce((sum, [, w]) => sum + w, 0)
  return list.find(([, w]) => (at -= w) <= 0)?.[0]
}

/** Somebody said what it was, of a little more than half of the stops; drawn by its own time, so that nothing else of the yard moves. */
export function whyOf(stop: { atMs: number; position: Position }, carrierId: CarrierId): Fact | null {
  const random = makeRandom((stop.atMs / 1000) % 2_147_483_647)
  const kinds = WHY[stop.position]
  if (!kinds || random() > SAID_SHARE) return null
  const kind = weighted(
    kinds.map((k) => [k, k.weight] as const),
    random(),
  )
  const cause = kind && weighted(kind.causes, random())
  if (!kind || !cause) return null
  return {
    kind: 'explained',
    carrierId,
    stopFromMs: stop.atMs,
    symptom: kind.symptom,
    touched: null,
    said: random() < 0.3 ? [{ type: 'fix', key: 'cableCoiled' }] : [],
    cause,
    isCertain: random() < SURE_SHARE,
    by: 'known',
    closing: random() < 0.7 ? 'good' : 'notTested',
    scrapped: random() < 0.6 ? (random() < 0.2 ? 1 : 0) : null,
  }
}
