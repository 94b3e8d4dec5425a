import { type z } from 'zod'
import { calibrateKnob, UNSTEADY } from '@core/drag/calibrate.ts'
import { calibrateAnswer, calibrateRequest, dragAnswer, dragQuery, type DragAnswer } from '@contract/drag.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { endpoint } from '@server/call/routes.ts'
import { logFacts } from '@server/write/facts.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { readingsHere } from '@server/gunnow/readingkept.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { dragHere } from './ofplace.ts'

/** The gun at one place as the feed path's model takes it: what is read, what is told, what is a guess. */
export async function readDrag(deps: Deps, who: Who, q: z.output<typeof dragQuery>): Promise<DragAnswer> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const hung = await hungOne(deps.db, shop, q.stationId)
  const { facts, made } = dragHere(hung, shop, await readingsHere(deps.db, hung, shop))
  const { setup } = facts
  return {
    nowMs: deps.now(),
    zone: shop.site.zone,
    stationId: q.stationId,
    name: hung.station.name,
    wireName: setup.wire?.name ?? null,
    linerCode: setup.parts['liner']?.code ?? null,
    feederName: setup.feeder?.name ?? null,
    isCell: Boolean(setup.cell),
    drag: made && { setup: made.drag, sources: made.sources, spans: made.spans },
    calibratedMs: facts.slip?.atMs ?? null,
    knob: facts.knob && { mark: facts.knob.value, atMs: facts.knob.atMs },
  }
}

const NOT_STEADY = `Pulls at one mark differ by over ${Math.round(UNSTEADY * 100)} in 100 of their mean.`
const REFUSED = {
  sameMark: ['Both marks are the same.', 'Set the knob to another mark and pull again.'],
  notRising: [
    'It did not slip harder at the higher mark.',
    'See that the marks are not mixed up, and that the knob moves the arm; then pull again.',
  ],
  unsteady: [NOT_STEADY, 'Pull slowly and steadily, in line with the guide; leave out the one that jerked.'],
} as const

/** The knob calibrated by slip pulls: its traction in N, for the wire and the rolls that are on. */
export async function calibrate(deps: Deps, who: Who, r: z.output<typeof calibrateRequest>) {
  const [one, two] = r.pulls
  if ([...one.forcesN, ...two.forcesN].some((f) => !(f > r.backTensionN)))
    throw new DomainError('bad-request', 'A pull is not above the back tension.', [
      'Lay the wire slack behind the rolls and pull again, with nothing to take off.',
    ])
  const made = calibrateKnob(one, two, r.backTensionN)
  if (!made.ok) {
    const [says, todo] = REFUSED[made.reason]
    throw new DomainError('bad-request', says, [todo])
  }
  const eventId = await logFacts(deps, who, {
    key: r.key,
    stationId: r.stationId,
    factsOf: async (place, shop, tx) => {
      const hung = await hungOne(tx, shop, r.stationId)
      if (!place.now.headId)
        throw new DomainError('not-found', `There is no feeder on ${hung.station.name} now.`, [
          'Say under Our shop what hangs there.',
        ])
      const carrierId = place.now.headId
      const wireId = hung.spoolWireId
      return [{ kind: 'calibrated', carrierId, wireId, pulls: [...r.pulls], ...made.line }]
    },
  })
  return { eventId, ...made.line }
}

export const dragEndpoints = [
  endpoint({
    method: 'get',
    path: '/drag',
    summary: 'One gun as the model of the feed path takes it: numbers with whose they are and how far they may be off',
    query: dragQuery,
    answer: dragAnswer,
    run: (deps, who, { query }) => readDrag(deps, who, query),
  }),
  endpoint({
    method: 'post',
    path: '/drag/calibrate',
    summary: 'A feeder’s knob calibrated by slip pulls at two marks, N',
    body: calibrateRequest,
    answer: calibrateAnswer,
    run: (deps, who, { body }) => calibrate(deps, who, body),
  }),
]
