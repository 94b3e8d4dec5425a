import { anId } from '@core/testing/ids.ts'
import { type Position } from '@core/path/columns.ts'
import { describe, expect, it } from 'vitest'
import { asc, eq, inArray } from 'drizzle-orm'
import { ACT_KINDS, ACTS } from '@core/ledger/acts.ts'
import { FACT_KINDS } from '@core/ledger/facts.ts'
import { type CarrierId, type EventId, NO_ID, type PartId, type StationId } from '@core/ids/id.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type Problem } from '@contract/common.ts'
import { type LogAnswer, type LogbookAnswer } from '@contract/logbook.ts'
import { takingOver } from '@server/db/carry.ts'
import { type Tx } from '@server/db/db.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { type Who } from '@server/call/context.ts'
import { actByKey, actsByKeys, knownKeys } from '@server/ledger/lines.ts'
import { isReadLine, isToRead } from '@server/logbook/toread.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { driftOf, makePlaces, nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { keyOf, writeAct, type SaidLine } from './act.ts'
import { placeOf } from './place.ts'

/** The one way to the ledger. */
let server: TestServer
let lead: Client
let ids: Map<string, StationId>
serverForAll({ nowMs: Date.UTC(2026, 10, 25, 8) }, async (here) => {
  ;({ server, lead } = here)
  ids = await makePlaces(lead, 'A1–A4')
})
const id = (name: string) => ids.get(name) ?? NO_ID
const deps = () => server.parts.deps
const WHO: Who = { person: { id: anId('person', 'per_x'), name: 'x', role: 'lead' }, device: null }
const NOT = { outReason: 'worn', count: 1, entryAge: 'new', partId: null } as const

/** A part put on the gun of a place, as a line. */
async function fitted(name: string, position: Position = 'tip'): Promise<SaidLine> {
  const gunId = (await writeAct(deps(), WHO, async (w) => placeOf(w.tx, id(name), await w.shop()))).now.gunId
  const carrierId = gunId as CarrierId
  return { fact: { kind: 'fitted', carrierId, position, ...NOT }, stationId: id(name) }
}
const linesOf = (actId: EventId | undefined) =>
  deps()
    .db.select()
    .from(ledgerEvent)
    .where(eq(ledgerEvent.actId, actId ?? NO_ID))
    .orderBy(asc(ledgerEvent.lineNo))
const tip = async (name: string) =>
  (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body.positions.find((p) => p.position === 'tip')

describe('an act', () => {
  it('of many lines is numbered, named by its first, and bears its key there alone', async () => {
    const said = [await fitted('A1'), await fitted('A1', 'nozzle')]
    const key = keyOf(nextKey())
    const [first] = await writeAct(deps(), WHO, (w) => Promise.resolve(w.say({ kind: 'job', key, lines: said })))
    const rows = await linesOf(first?.id)
    expect(rows.map((r) => [r.actKind, r.lineNo, r.idempotencyKey])).toEqual([
      ['job', 0, key],
      ['job', 1, null],
    ])
    expect((await actByKey(deps().db, 'job', key))?.id).toBe(first?.id)
    expect(await actByKey(deps().db, 'read', key)).toBeNull()
  })
  it('is projected before its transaction ends', async () => {
    const line = await fitted('A2')
    await writeAct(deps(), WHO, (w) => Promise.resolve(w.say({ kind: 'log', lines: [line] })))
    expect((await tip('A2'))?.fittedMs).toBe(server.clock.nowMs)
    expect(await driftOf(server)).toBe(0)
  })
  it('sent twice under one key fails whole the second time: nothing of its other lines stays', async () => {
    const [one, two] = [await fitted('A3'), await fitted('A4')]
    const key = keyOf(nextKey())
    const send = (line: SaidLine) =>
      writeAct(deps(), WHO, (w) => {
        w.say({ kind: 'log', lines: [two] })
        return Promise.resolve(w.say({ kind: 'log', key, lines: [line] }))
      })
    await send(one)
    const before = await contentOf(server)
    await expect(send(one)).rejects.toThrow()
    expect(await contentOf(server)).toEqual(before)
  })
  it('of another kind may be sent under the same key', async () => {
    const key = keyOf(nextKey())
    const line = await fitted('A3')
    for (const kind of ['log', 'job'] as const)
      await writeAct(deps(), WHO, (w) => Promise.resolve(w.say({ kind, key, lines: [line] })))
    expect((await actsByKeys(deps().db, ['log', 'job'], [key])).size).toBe(1)
    expect([...(await knownKeys(deps().db, 'job', [key, keyOf(nextKey())]))]).toEqual([key])
  })
  it('within the same millisecond as another keeps their order', async () => {
    for (const outReason of ['worn', 'knocked', 'due', 'burnedBack'] as const) {
      const line = await fitted('A4')
      const said = line.fact.kind === 'fitted' ? { ...line, fact: { ...line.fact, outReason } } : line
      await writeAct(deps(), WHO, (w) => Promise.resolve(w.say({ kind: 'log', lines: [said] })))
    }
    const rows = await deps()
      .db.select()
      .from(ledgerEvent)
      .where(eq(ledgerEvent.stationId, id('A4')))
      .orderBy(asc(ledgerEvent.loggedMs))
    const reasons = rows.flatMap(({ body }) =>
      body.type === 'fact' && body.fact.kind === 'fitted' ? [body.fact.outReason] : [],
    )
    expect(reasons.slice(-4)).toEqual(['worn', 'knocked', 'due', 'burnedBack'])
    const acts = rows.filter((r) => r.actKind === 'log')
    expect(new Set(acts.map((r) => r.loggedMs)).size).toBe(acts.length)
  })
  it('that is nameless keeps neither person nor device', async () => {
    const line = await fitted('A1')
    const [first] = await writeAct(deps(), WHO, (w) =>
      Promise.resolve(w.say({ kind: 'log', isNameless: true, lines: [line] })),
    )
    const [row] = await linesOf(first?.id)
    expect([row?.personId, row?.deviceId]).toEqual([null, null])
  })
  it('that is cut off by a refusal half-way leaves nothing, also of what it said before', async () => {
    const before = await contentOf(server)
    const line = await fitted('A1')
    const refused = writeAct(deps(), WHO, (w) => {
      w.say({ kind: 'log', lines: [line] })
      return Promise.reject(new Error('refused'))
    })
    await expect(refused).rejects.toThrow('refused')
    expect(await contentOf(server)).toEqual(before)
  })
})

describe('taking back and putting right', () => {
  const logged = async (acts: object[]) =>
    (await lead.post<LogAnswer>('/logbook', { key: nextKey(), acts })).body.logged.map((l) => l.eventId)
  it('the first line of "all looked at" takes its act along, as one act of its own', async () => {
    const eventIds = await logged([{ stationId: id('A1'), act: 'seen' }])
    const key = nextKey()
    await lead.post('/logbook/undo', { key, eventIds })
    const first = await actByKey(deps().db, 'correct', keyOf(key))
    const rows = await linesOf(first?.id)
    expect(rows.map((r) => r.lineNo)).toEqual([0, 1, 2])
    expect(new Set(rows.map((r) => r.rootId)).size).toBe(3)
  })
  it('a line that says nothing to put right is refused, and can still be taken back', async () => {
    await lead.post('/rightparts/tag', { key: nextKey(), stationId: id('A2'), tag: 'brakeTight', isBack: false })
    const { lines } = (await lead.get<LogbookAnswer>(`/logbook?stationId=${id('A2')}`)).body
    const line = lines.find((l) => l.fact.kind === 'tied')
    expect(line).toMatchObject({ canCorrect: false, canUndo: true })
    const moved = { key: nextKey(), eventId: line?.eventId, stationId: id('A3') }
    const refused = await lead.post<Problem>('/logbook/correct', moved)
    expect(refused).toMatchObject({ status: 400, body: { message: expect.stringContaining('stands or falls') } })
    const gone = { key: nextKey(), eventId: line?.eventId, withdraw: true }
    expect((await lead.post('/logbook/correct', gone)).status).toBe(200)
  })
})

describe('what people read of an act', () => {
  it('is the same by the condition and by the line in hand, for every kind of act and fact', async () => {
    const nowMs = server.clock.nowMs
    const rows = ACT_KINDS.flatMap((actKind) =>
      FACT_KINDS.flatMap((kind) =>
        [0, 1].map((lineNo) => {
          const rowId = `ev_${actKind}-${kind}-${lineNo}`.slice(0, 40) as EventId
          return {
            ...{
              id: rowId,
              rootId: rowId,
              actId: anId('event', `act ${actKind} ${kind}`.slice(0, 40)),
              actKind,
              lineNo,
              kind,
            },
            ...{ carrierId: null, stationId: null, partId: 'part_x' as PartId, spoolId: null },
            ...{ happenedMs: nowMs, loggedMs: nowMs, precision: 'exact' as const, personId: null, deviceId: null },
            ...{ note: null, idempotencyKey: null },
            body: { type: 'fact', fact: { kind: 'parked', carrierId: 'car_x' as CarrierId } } as const,
          }
        }),
      ),
    )
    await deps().db.insert(ledgerEvent).values(rows)
    const shown = await deps().db.select().from(ledgerEvent).where(isToRead)
    const read = new Set(shown.map((r) => r.id))
    const wrong = rows.filter((r) => read.has(r.id) !== (ACTS[r.actKind].reads !== 'none' && isReadLine(r)))
    expect(wrong.map((r) => r.id)).toEqual([])
    expect(rows.filter((r) => read.has(r.id)).length).toBeGreaterThan(100)
    const every = rows.map((r) => r.id)
    const takeAway = (tx: Pick<Tx, 'delete'>) => tx.delete(ledgerEvent).where(inArray(ledgerEvent.id, every))
    // The database itself lets no line be taken away, nor changed.
    await expect(takeAway(deps().db)).rejects.toMatchObject({ cause: { sqlState: '45000' } })
    await expect(deps().db.update(ledgerEvent).set({ loggedMs: 1 })).rejects.toMatchObject({
      cause: { sqlState: '45000' },
    })
    await deps().db.transaction((tx) => takingOver(tx, async () => void (await takeAway(tx))))
  })
})
