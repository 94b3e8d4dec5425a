import { DAY_MS } from '@core/units/time.ts'
import { type z } from 'zod'
import { trialFault, TUNED_SPAN, type TrialFault } from '@core/diagnose/tune.ts'
import { type EventId, type StationId, type WireId } from '@core/ids/id.ts'
import { type Standing } from '@core/ledger/resolve.ts'
import { type tuneAnswer, type tunedRequest, type tuneKeptRequest } from '@contract/tune.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { standingOfKindAt } from '@server/ledger/standings.ts'
import { logFacts } from '@server/write/facts.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { builtHere, setupOf } from '@server/gunnow/setup.ts'
import { loadShop } from '@server/shopmodel/model.ts'

/** So long settings that worked are worth a look, and trials that nobody closed are one row of beads. */
const KEPT_MS = 400 * DAY_MS
const TRIAL_MS = DAY_MS
const MOST_KEPT = 5

export async function readTune(deps: Deps, who: Who, stationId: StationId): Promise<z.input<typeof tuneAnswer>> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const hung = await hungOne(deps.db, shop, stationId)
  const [kept, tuned] = await Promise.all([
    standingOfKindAt(deps.db, { kind: 'tuneKept', stationId, sinceMs: nowMs - KEPT_MS }),
    standingOfKindAt(deps.db, { kind: 'tuned', stationId, sinceMs: nowMs - TRIAL_MS }),
  ])
  const built = builtHere(hung, shop)
  const wireId = hung.spoolWireId ?? built.wireId
  const { procedure } = setupOf(hung, shop)
  const lines = kept.flatMap((s) => keptLine(s, { wireId, mode: built.mode, nameOf: (id) => shop.wires.get(id)?.name }))
  lines.sort((a, b) => Number(b.isSame) - Number(a.isSame) || b.atMs - a.atMs)
  const lastKeptMs = Math.max(0, ...kept.map((s) => s.happenedMs))
  return {
    nowMs,
    zone: shop.site.zone,
    stationId,
    procedure: procedure && {
      name: procedure.name,
      wireSpeed: procedure.wireMPerMin,
      stickOut: procedure.stickOutMm,
      volts: procedure.volts ?? null,
      flow: procedure.flowLPerMin ?? null,
    },
    kept: lines.slice(0, MOST_KEPT),
    trials: tuned
      .filter((s) => s.happenedMs > lastKeptMs)
      .sort((a, b) => a.happenedMs - b.happenedMs)
      .flatMap(({ fact, eventId, happenedMs: atMs }) =>
        fact.kind === 'tuned' ? [{ eventId, atMs, name: fact.name, from: fact.from, to: fact.to, saw: fact.saw }] : [],
      ),
  }
}

interface OnNow {
  wireId: WireId | null
  mode: string | null
  nameOf: (wireId: WireId) => string | undefined
}
function keptLine({ fact, eventId, happenedMs }: Standing, on: OnNow): z.input<typeof tuneAnswer>['kept'] {
  if (fact.kind !== 'tuneKept') return []
  const { wireId, mode, values } = fact
  return [
    {
      ...{ eventId, atMs: happenedMs, mode, values },
      wireName: wireId ? (on.nameOf(wireId) ?? null) : null,
      isSame: wireId === on.wireId && mode === on.mode,
    },
  ]
}

const SAYS: Record<TrialFault, (r: z.output<typeof tunedRequest>) => [string, string]> = {
  same: () => ['That is where it stands: nothing was changed.', 'Change one value, then weld a row of beads.'],
  span: ({ name }) => [
    `No machine is set to that: ${name} goes from ${TUNED_SPAN[name][0]} to ${TUNED_SPAN[name][1]}.`,
    'Was it typed in another unit?',
  ],
}

/** One value changed by itself, and what was seen. */
export async function logTrial(deps: Deps, who: Who, r: z.output<typeof tunedRequest>): Promise<{ eventId: EventId }> {
  const fault = trialFault(r)
  if (fault) {
    const [message, what] = SAYS[fault](r)
    throw new DomainError('bad-request', message, [what])
  }
  const { key, stationId, ...said } = r
  const eventId = await logFacts(deps, who, {
    kind: 'tuned',
    key,
    stationId,
    factsOf: (place) => [{ kind: 'tuned', carrierId: place.stationCarrierId, ...said }],
  })
  return { eventId }
}

/** Settings that worked, with the wire and mode that were on. */
export async function keepTune(
  deps: Deps,
  who: Who,
  r: z.output<typeof tuneKeptRequest>,
): Promise<{ eventId: EventId }> {
  if (Object.keys(r.values).length === 0)
    throw new DomainError('bad-request', 'No value stands there to keep.', ['Say at least what the wire speed is.'])
  const { key, stationId, ...said } = r
  const eventId = await logFacts(deps, who, {
    kind: 'tuned',
    key,
    stationId,
    factsOf: async (place, shop, tx) => {
      const hung = await hungOne(tx, shop, stationId)
      const built = builtHere(hung, shop)
      const wireId = hung.spoolWireId ?? built.wireId
      return [{ kind: 'tuneKept', carrierId: place.stationCarrierId, wireId, mode: built.mode, ...said }]
    },
  })
  return { eventId }
}
