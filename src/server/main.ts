import { createServer } from 'node:http'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { existsSync } from 'node:fs'
import { type Express } from 'express'
import { pino } from 'pino'
import { compose, type Composed } from '@server/wiring/compose.ts'
import { migrateDatabase } from './db/db.ts'
import { connectStandIn } from './demo/standin.ts'
import { demoWhereNone, isOldDemo } from './demo/demo.ts'
import { DEMO_LEAD } from './demo/yard.ts'
import { readEnv, type Env } from '@server/wiring/env.ts'
import { forgetKeys } from './call/bound.ts'
import { recount } from './projection/recount.ts'
import { finishBuilding } from './shop/whole.ts'
import { startSettling } from '@server/settle/settlethread.ts'
import { startLives } from './life/lifethread.ts'
import { serveLan } from './lan/serve.ts'
import { faultText, faultWriter } from '@server/problem/fault.ts'
import { lastWrittenMs } from './ledger/lines.ts'
import { clockMovedBy, steadyClock } from './time/clock.ts'

/** Folders beside the bundle, or in the source tree when run from there. */
function folderOf(candidates: string[]): string {
  const here = dirname(fileURLToPath(import.meta.url))
  return candidates.map((c) => join(here, c)).find((path) => existsSync(path)) ?? join(here, candidates[0] ?? '')
}

async function main(): Promise<void> {
  const env = readEnv(process.env)
  const logger = pino({ level: env.LOG_LEVEL })
  const onFault = faultWriter((fault) => logger.error({ fault }, fault.message))
  await migrateDatabase(env.DATABASE_URL, folderOf(['../../src/server/db/migrations', './db/migrations']))
  const clock = steadyClock(clockMovedBy(env.CLOCK_SHIFT_MS), () => performance.now())
  const parts = compose({
    databaseUrl: env.DATABASE_URL,
    webFolder: env.WEB_FOLDER ?? folderOf(['../web', '../../dist/web']),
    onFault,
    now: clock.now,
    clockAheadMs: clock.aheadMs,
    ...{ hosts: env.HOSTS, folder: env.DATA_FOLDER, backups: env.BACKUP_FOLDER },
  })
  const say: Say = (text) => {
    if (env.SAY_READY === '1') process.stdout.write(`${text}\n`)
  }
  clock.notBefore(await lastWrittenMs(parts.deps.db, clock.now()))
  await makeReady(parts.deps, env, say)
  const thread = { databaseUrl: env.DATABASE_URL, clockShiftMs: env.CLOCK_SHIFT_MS }
  const lives = startLives(thread, onFault)
  parts.deps.lifeWork = lives
  const settling = startSettling(thread, onFault)
  parts.watcher.start()
  const close = env.LAN_FOLDER ? await onNetwork(parts.app, env, say) : onThisMachine(parts.app, env, say)
  if (await isOldDemo(parts.deps))
    say(
      'This demo yard is an older version’s and lacks what was added since. Anew, with all of it gone: npm run demo:reset',
    )
  if (env.WITH_DEMO === '1') say(`Demo lead:   ${DEMO_LEAD.name}   password: ${DEMO_LEAD.password}`)
  say('Ctrl-C stops it. Your own shop instead of the demo: npm start -- --no-demo with an empty .data folder.\n')
  const stop = () => {
    // What is under way ends first; then the lines are cut.
    void Promise.all([settling.stop(), lives.stop(), parts.close()]).then(() => {
      close()
      process.exit(0)
    })
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
}

type Say = (text: string) => void

/** What a run before this one left open, and the demo where one is wanted. */
async function makeReady(deps: Composed['deps'], env: Env, say: Say): Promise<void> {
  await forgetKeys(deps)
  if (await finishBuilding(deps)) say('What is counted from the ledger stands whole now.')
  if (await recount(deps)) say('What a change of shifts or wires left to be counted is counted now.')
  if (env.WITH_DEMO === '1') await demoWhereNone(deps, say)
  if (env.WITH_DEMO === '1' && env.STANDIN_SECRET) await connectStandIn(deps, env.STANDIN_SECRET)
}

/** A port that somebody else has: said in a line, and left to whoever starts this to choose another. */
const cannotListen = (port: number) => (problem: Error) => {
  process.stderr.write(`Port ${port} cannot be used: ${problem.message}\n`)
  process.exit(1)
}

function onThisMachine(app: Express, env: Env, say: Say): () => void {
  const server = createServer(app)
  server.once('error', cannotListen(env.PORT))
  server.listen(env.PORT, '127.0.0.1', () => {
    say(`\nIdle Spool:  http://127.0.0.1:${env.PORT}`)
    say('Only this machine reaches it. Phones and tablets: npm start -- --lan')
  })
  return () => {
    server.close()
    server.closeAllConnections()
  }
}

async function onNetwork(app: Express, env: Env, say: Say): Promise<() => void> {
  const ports = { secure: env.PORT, trust: env.TRUST_PORT, local: env.LOCAL_PORT }
  const lan = await serveLan(app, { folder: env.LAN_FOLDER ?? '', ports })
  const hosts = lan.addresses.length > 0 ? lan.addresses : ['127.0.0.1']
  say('')
  for (const host of hosts) say(`Idle Spool:  https://${host}:${env.PORT}`)
  say(`A new phone or tablet opens this first, once:  http://${hosts[0] ?? ''}:${env.TRUST_PORT}`)
  say(`It must show this fingerprint (SHA-256):\n  ${lan.fingerprint}`)
  if (env.WITH_DEMO === '1')
    say('The demo’s password is public: for your own shop start with --lan --no-demo and an empty .data folder.')
  say(`On this machine also:  http://127.0.0.1:${env.LOCAL_PORT}`)
  return lan.close
}

main().catch((problem: unknown) => {
  process.stderr.write(`${faultText(problem)}\n`)
  process.exit(1)
})
