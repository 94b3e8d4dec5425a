import { type Express } from 'express'
import { Changes } from '@server/changes/changes.ts'
import { openDatabase, type Db } from '@server/db/db.ts'
import { PositionStore } from '@server/gunnow/positions.ts'
import { type AllDeps } from '@server/http/alldeps.ts'
import { settler } from '@server/settle/settler.ts'
import { type Rounds } from '@server/time/rounds.ts'
import { watcher } from '@server/cell/watcher.ts'
import { makeApp } from '@server/http/app.ts'
import { LifeStore } from '@server/lifekept/kept.ts'
import { livesAtHand } from '@server/life/work.ts'
import { Metrics } from '@server/health/metrics.ts'
import { DatabaseWatch } from '@server/health/watch.ts'
import { Underway } from '@server/http/underway.ts'
import { FloorSaid } from '@server/floor/said.ts'
import { SurveyStore } from '@server/floor/surveystore.ts'
import { ShareStore } from '@server/parts/sharestore.ts'
import { PutOnStore } from '@server/payback/puton.ts'
import { ShopStore } from '@server/shopmodel/store.ts'

export interface Composed {
  deps: AllDeps
  app: Express
  changes: Changes
  settler: Rounds
  watcher: Rounds
  close: () => Promise<void>
}
export interface ComposeInput {
  databaseUrl: string
  webFolder: string | null
  onFault: (problem: unknown) => void
  now?: () => number
  random?: () => number
  /** Folders of this machine's, where there are any to look at. */
  folder?: string | undefined
  backups?: string | undefined
  /** How far the program's clock is before the machine's, which was set back. */
  clockAheadMs?: () => number
  signInsPerMinute?: number
  hosts?: readonly string[]
  /** Each answer is held against the shape it is described with; by tests. */
  isAnswerChecked?: boolean
}

/** What is under way when the program is stopped has so long to end. */
const LONGEST_MS = 5000

function depsOf(db: Db, input: ComposeInput): AllDeps {
  const own = { db, shops: new ShopStore(), now: input.now ?? Date.now }
  return {
    ...own,
    positions: new PositionStore(),
    surveys: new SurveyStore(),
    said: new FloorSaid(),
    shares: new ShareStore(),
    putOn: new PutOnStore(),
    lives: new LifeStore(),
    // The server puts a thread in its place.
    lifeWork: livesAtHand(own),
    random: input.random ?? Math.random,
    machine: {
      folder: input.folder ?? null,
      backups: input.backups ?? null,
      upSinceMs: own.now(),
      clockAheadMs: input.clockAheadMs ?? (() => 0),
    },
  }
}

/** The one place where parts are put together; tests hand in their own clock and random source. */
export function compose(input: ComposeInput): Composed {
  const database = openDatabase(input.databaseUrl)
  const deps = depsOf(database.db, input)
  const changes = new Changes(database.db, deps.now, input.onFault)
  const rounds = { settler: settler(deps, input.onFault), watcher: watcher(deps, input.onFault) }
  const underway = new Underway()
  const watch = new DatabaseWatch(input.databaseUrl).start()
  const metrics = new Metrics({
    isDatabaseThere: watch.isThere,
    listeners: changes.count,
    clockAheadMs: deps.machine.clockAheadMs,
  })
  const app = makeApp({
    ...{ deps, underway, changes, watch, metrics },
    webFolder: input.webFolder,
    hosts: input.hosts ?? [],
    isAnswerChecked: input.isAnswerChecked ?? false,
    onFault: (problem) => {
      metrics.fault()
      input.onFault(problem)
    },
    ...(input.signInsPerMinute ? { signInsPerMinute: input.signInsPerMinute } : {}),
  })
  return {
    deps,
    app,
    changes,
    ...rounds,
    close: async () => {
      await underway.stop(LONGEST_MS)
      await rounds.settler.stop()
      await rounds.watcher.stop()
      changes.stop()
      watch.stop()
      await database.close()
    },
  }
}
