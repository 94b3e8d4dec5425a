import { type DeviceId, type EventId, makeId, type PersonId, type StationId } from '@core/ids/id.ts'
import { type ActKind } from '@core/ledger/acts.ts'
import { type Correction, type Fact } from '@core/ledger/event.ts'
import { transact, type Tx } from '@server/db/db.ts'
import { happenedAt, type Deps, type Who } from '@server/call/context.ts'
import { append } from '@server/ledger/append.ts'
import { nothingTouched, touchAll, touchesNothing, type Draft, type Touched } from '@server/ledger/lines.ts'
import { project, type ProjectBy } from '@server/projection/project.ts'
import { Recall, storiesOf } from '@server/projection/recall.ts'
import { loadReshaped, loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { countShopRevision } from '@server/shopmodel/store.ts'

/**
 * The one way to the ledger: one transaction, the shop read once, lines appended, present state projected from them before it ends.
 *
 * 1. What is said of one act stands under it: its kind, its number, and on its first line the key it was sent under, which is unique among acts of
 *    its kind. Sent twice, the second fails whole.
 * 2. Nothing is projected by a shop that the same transaction has changed: `reshaped` has it read anew.
 * 3. Nobody else appends or projects; a world that is built and then rebuilt whole (`writeUnprojected`) is the one exception.
 */
export interface SaidLine {
  fact: Fact
  /** Where it was said. */
  stationId: StationId | null
  /** Absent: when the request says it happened. */
  happenedMs?: number
  precision?: Draft['precision']
  note?: string | null
  /** Whoever did it, where that is not who writes; null: nobody is named. */
  personId?: PersonId | null
  deviceId?: DeviceId | null
  /** When it was written down; absent: now. */
  loggedMs?: number
}
export interface SaidAct {
  kind: ActKind
  /** Unique among acts of its kind; absent: nobody sends it again. */
  key?: string
  lines: readonly SaidLine[]
  /** Kept without who said it. */
  isNameless?: boolean
}

/** What a piece of work may do inside its transaction. */
export interface Writing {
  tx: Tx
  deps: Deps
  who: Who
  /** When it is written down: now, and after whatever this process wrote before. */
  nowMs: number
  /** The shop as it is set up, read once. */
  shop: () => Promise<ShopModel>
  /** The set-up was changed: what is projected goes by the new one. */
  reshaped: () => void
  /** Says an act; answers its lines as they will stand. */
  say: (act: SaidAct) => Draft[]
  /** Puts a line right, or takes it back. */
  put: (correction: PutRight) => Draft
  /** To be counted again besides what was said. */
  touch: (touched: Partial<Touched>) => void
  /** Guns are counted again a few at a time, and each step is told: somebody watches, and may stop it. */
  inSteps: (onStep: OnStep) => void
}
export interface PutRight {
  /** The line that is put right, as it was first said. */
  of: Pick<Draft, 'rootId' | 'happenedMs' | 'precision' | 'stationId'>
  correction: Correction
  loggedMs: number
  note: string | null
  act: { id: EventId | null; key: string; lineNo: number }
}

export type OnStep = (done: number, of: number) => Promise<void>
const STEP = 20

/** Runs the work, writes what it said, projects it; all of it or nothing. */
export async function writeAct<T>(deps: Deps, who: Who, work: (w: Writing) => Promise<T>): Promise<T> {
  const { answer, jobs, recall } = await transact(deps.db, async (tx) => {
    const begun = begin(tx, deps, who)
    const answer = await work(begun.writing)
    const { touched, drafts } = await begun.appendAll()
    const recall = new Recall(storiesOf(deps.db), drafts)
    return { answer, recall, jobs: await projectAll(tx, touched, { ...begun, recall }) }
  })
  recall.written()
  if (jobs > 0) deps.shops.countWork()
  return answer
}

/** As `writeAct`, without projecting: for whole worlds that are rebuilt afterwards. */
export async function writeUnprojected<T>(tx: Tx, deps: Deps, work: (w: Writing) => Promise<T>): Promise<T> {
  const begun = begin(tx, deps, { person: null, device: null })
  const answer = await work(begun.writing)
  await begun.appendAll()
  return answer
}

/** While work is done that speaks of every gun again and again, more of them are remembered. */
export async function rememberingMore<T>(deps: Deps, lines: number, work: () => Promise<T>): Promise<T> {
  storiesOf(deps.db).hold(lines)
  try {
    return await work()
  } finally {
    storiesOf(deps.db).hold()
  }
}

/** When a process last wrote something down: two acts within one millisecond keep their order. */
const lastWritten = new WeakMap<object, number>()
function writtenMs(deps: Deps): number {
  const nowMs = Math.max(deps.now(), 1 + (lastWritten.get(deps.db) ?? 0))
  lastWritten.set(deps.db, nowMs)
  return nowMs
}

function begin(tx: Tx, deps: Deps, who: Who) {
  const nowMs = writtenMs(deps)
  const [drafts, touched] = [[] as Draft[], nothingTouched()]
  let known: Promise<ShopModel> | null = null
  let onStep: OnStep | undefined
  let isReshaped = false
  const shop = () => (known ??= (isReshaped ? loadReshaped : loadShop)(tx, deps.shops, deps.now()))
  const add = (lines: Draft[]) => {
    drafts.push(...lines)
    return lines
  }
  const writing: Writing = {
    tx,
    deps,
    who,
    nowMs,
    shop,
    reshaped: () => {
      isReshaped = true
      known = null
    },
    say: (act) => add(draftsOf(act, { deps, who, nowMs })),
    put: (right) => add([correctionDraft(right, deps, who)])[0] as Draft,
    touch: (more) => touchAll(touched, more),
    inSteps: (step) => (onStep = step),
  }
  return {
    writing,
    shop,
    onStep: () => onStep,
    appendAll: async () => {
      touchAll(touched, await append(tx, drafts))
      if (isReshaped) await countShopRevision(tx)
      return { touched, drafts }
    },
  }
}

/** Answers how many jobs by the list are another now. */
async function projectAll(
  tx: Tx,
  touched: Touched,
  at: { shop: () => Promise<ShopModel>; onStep: () => OnStep | undefined; recall: Recall },
): Promise<number> {
  if (touchesNothing(touched)) return 0
  const by: ProjectBy = { shop: await at.shop(), recall: at.recall }
  const onStep = at.onStep()
  if (!onStep) return (await project(tx, touched, by)).taskDone
  const ids = [...touched.carrierIds].sort()
  let jobs = 0
  for (let i = STEP; i < ids.length; i += STEP) {
    await onStep(i, ids.length)
    const some = { ...nothingTouched(), carrierIds: new Set(ids.slice(i, i + STEP)) }
    jobs += (await project(tx, some, by)).taskDone
  }
  return jobs + (await project(tx, { ...touched, carrierIds: new Set(ids.slice(0, STEP)) }, by)).taskDone
}

/** Under what an act is kept: the key of its request, and which of the acts of that request it is. */
export const keyOf = (requestKey: string, nth = 0): string => `${requestKey}#${nth}`

const NOBODY: Who = { person: null, device: null }

function draftsOf(act: SaidAct, { deps, who, nowMs }: { deps: Deps; who: Who; nowMs: number }): Draft[] {
  const by = act.isNameless ? NOBODY : who
  const ids = act.lines.map(() => makeId('event', nowMs, deps.random))
  return act.lines.map((line, i): Draft => {
    const id = ids[i] as EventId
    return {
      id,
      rootId: id,
      actId: ids[0] as EventId,
      actKind: act.kind,
      lineNo: i,
      happenedMs: line.happenedMs ?? happenedAt(deps),
      loggedMs: line.loggedMs ?? nowMs,
      precision: line.precision ?? 'exact',
      stationId: line.stationId,
      personId: line.personId === undefined ? (by.person?.id ?? null) : line.personId,
      deviceId: line.deviceId === undefined ? (by.device?.id ?? null) : line.deviceId,
      note: line.note ?? null,
      body: { type: 'fact', fact: line.fact },
      idempotencyKey: i === 0 ? (act.key ?? null) : null,
    }
  })
}

function correctionDraft(right: PutRight, deps: Deps, who: Who): Draft {
  const id = makeId('event', right.loggedMs, deps.random)
  const { id: first, key, lineNo } = right.act
  return {
    id,
    rootId: right.of.rootId,
    actId: first ?? id,
    actKind: 'correct',
    lineNo,
    happenedMs: right.of.happenedMs,
    loggedMs: right.loggedMs,
    precision: right.of.precision,
    stationId: right.of.stationId,
    personId: who.person?.id ?? null,
    deviceId: who.device?.id ?? null,
    note: right.note,
    body: right.correction,
    idempotencyKey: lineNo === 0 ? key : null,
  }
}
