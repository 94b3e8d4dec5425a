import { type KindKey } from '@core/path/columns.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type AreaId, makeId, NO_ID, type PartId, type WireId } from '@core/ids/id.ts'
import { purchase, tinWeighing } from '@server/db/schema.ts'
import { insertMany, type Tx } from '@server/db/db.ts'
import { type Deps } from '@server/call/context.ts'
import { type Draft } from '@server/ledger/lines.ts'
import { addDays, dayOf, wallToMsOrNext, weekdayOf } from '@server/time/wall.ts'
import { YARD } from './yard.ts'

/** Of what is taken from the shelf so much is dropped, lost or pocketed. */
const ASTRAY = 0.05
const TINNED = ['Pontoon hall', 'Ramp hall']
const WEEKS = 12
const TIP_G = 13.4
const BOX: Record<string, number> = {
  tip: 100,
  nozzle: 10,
  diffuser: 10,
  insulator: 10,
  liner: 2,
  orings: 20,
  rolls: 2,
}

/** What really happened in the made-up yard, logged or not. */
export interface TrueChange {
  atMs: number
  areaName: string
  kindKey: KindKey
  partId: PartId
  code: string
}
export interface TrueWire {
  atMs: number
  wireId: WireId
  wireName: string
  kg: number
}
interface At {
  deps: Deps
  areaIds: ReadonlyMap<string, AreaId>
  changes: readonly TrueChange[]
  wires: readonly TrueWire[]
  spoolKgOf: (wireName: string) => number
}

/** A year of purchases, as the yard's accounts would list them; a month's need rounded up to whole boxes and spools. */
export async function insertPurchases(tx: Tx, at: At): Promise<void> {
  const nowMs = at.deps.now()
  const since = nowMs - 400 * DAY_MS
  const monthOf = (ms: number) => dayOf(YARD.zone, ms).slice(0, 7)
  const needs = new Map<
    string,
    {
      month: string
      item: string
      kindKey: KindKey | null
      partId: PartId | null
      wireId: WireId | null
      need: number
      box: number
    }
  >()
  const add = (key: string, line: Omit<NonNullable<ReturnType<typeof needs.get>>, 'need'>, need: number) => {
    const before = needs.get(key) ?? { ...line, need: 0 }
    needs.set(key, { ...before, need: before.need + need })
  }
  for (const c of at.changes.filter((x) => x.atMs > since))
    add(
      `${c.partId} ${monthOf(c.atMs)}`,
      {
        month: monthOf(c.atMs),
        item: c.code,
        kindKey: c.kindKey,
        partId: c.partId,
        wireId: null,
        box: BOX[c.kindKey] ?? 1,
      },
      1 + ASTRAY,
    )
  for (const w of at.wires.filter((x) => x.atMs > since))
    add(
      `${w.wireId} ${monthOf(w.atMs)}`,
      {
        month: monthOf(w.atMs),
        item: w.wireName,
        kindKey: null,
        partId: null,
        wireId: w.wireId,
        box: at.spoolKgOf(w.wireName),
      },
      w.kg,
    )
  const carried = new Map<string, number>()
  const rows = [...needs.values()]
    .sort((a, b) => (a.month < b.month ? -1 : 1))
    .flatMap(({ need, box, ...line }) => {
      const left = (carried.get(line.item) ?? 0) - need
      const quantity = left < 0 ? Math.ceil(-left / box) * box : 0
      carried.set(line.item, left + quantity)
      if (quantity === 0) return []
      const id = makeId('purchase', nowMs, at.deps.random)
      return [{ id, ...line, areaId: null, quantity, loggedMs: nowMs - 3 * DAY_MS, idempotencyKey: `demo/${id}` }]
    })
  await insertMany(tx, purchase, { rows })
}

/** Two halls weigh their tin of old tips on Fridays. */
export async function insertTins(tx: Tx, at: At): Promise<void> {
  const { random } = at.deps
  const nowMs = at.deps.now()
  const today = dayOf(YARD.zone, nowMs)
  const lastFriday = addDays(today, -((weekdayOf(today) + 2) % 7 || 7))
  const rows = TINNED.flatMap((areaName) =>
    Array.from({ length: WEEKS + 1 }, (_, week) => {
      const day = addDays(lastFriday, -7 * (WEEKS - week))
      const atMs = wallToMsOrNext(YARD.zone, day, '13:40')
      const old =
        (1 - ASTRAY) *
        at.changes.filter(
          (c) => c.areaName === areaName && c.kindKey === 'tip' && c.atMs > atMs - 7 * DAY_MS && c.atMs <= atMs,
        ).length
      const id = makeId('tin', atMs, random)
      return {
        id,
        areaId: at.areaIds.get(areaName) ?? NO_ID,
        kindKey: 'tip' as const,
        day,
        atMs,
        grams: Math.round(old * TIP_G * (0.98 + 0.04 * random())),
        gramsEach: TIP_G,
        pieces: 50,
        isEmptied: true,
        loggedMs: atMs,
        idempotencyKey: `demo/${id}`,
      }
    }),
  )
  await insertMany(tx, tinWeighing, { rows })
}

const FIRST_COUNT_DAYS = 98
const LAST_COUNT_DAYS = 14

/** The shelf counted twice, with deliveries in between, so that what left it is what was really used and lost. */
export function shelfFacts(
  at: Pick<At, 'deps' | 'changes'>,
  parts: readonly { partId: PartId; kindKey: KindKey | null; usual: number }[],
): { happenedMs: number; fact: Extract<Draft['body'], { type: 'fact' }>['fact'] }[] {
  const nowMs = at.deps.now()
  const firstMs = nowMs - FIRST_COUNT_DAYS * DAY_MS
  const lastMs = nowMs - LAST_COUNT_DAYS * DAY_MS
  return parts.flatMap(({ partId, kindKey, usual }) => {
    const used = at.changes.filter((c) => c.partId === partId && c.atMs > firstMs && c.atMs <= lastMs).length
    const taken = Math.round(used * (1 + ASTRAY))
    const box = (kindKey && BOX[kindKey]) ?? 1
    const received = Math.ceil(taken / box) * box
    const now = Math.round(usual * (0.6 + at.deps.random()))
    const id = partId
    return [
      { happenedMs: firstMs, fact: { kind: 'counted' as const, partId: id, quantity: now + taken - received + box } },
      ...(received > 0
        ? [{ happenedMs: firstMs + 20 * DAY_MS, fact: { kind: 'received' as const, partId: id, quantity: received } }]
        : []),
      { happenedMs: lastMs, fact: { kind: 'counted' as const, partId: id, quantity: now + box } },
    ].map((line) =>
      line.fact.kind === 'counted'
        ? { ...line, fact: { ...line.fact, quantity: Math.max(0, line.fact.quantity) } }
        : line,
    )
  })
}
