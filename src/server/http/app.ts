import { DAY_MS } from '@core/units/time.ts'
import { existsSync } from 'node:fs'
import { join, sep } from 'node:path'
import compression from 'compression'
import { parse as parseCookies } from 'cookie'
import express, { type ErrorRequestHandler, type Express, type Request, type Response } from 'express'
import { rateLimit } from 'express-rate-limit'
import helmet from 'helmet'
import { ZodError } from 'zod'
import { bindRequest, firstLeadRequest, signInRequest } from '@contract/people.ts'
import { photoUpload } from '@contract/photo.ts'
import { telemetryRequest } from '@contract/telemetry.ts'
import { type Changes } from '@server/changes/changes.ts'
import { takeTelemetry } from '@server/ingest/telemetry.ts'
import { readFile } from '@server/ingest/readfile.ts'
import { checkTime } from '@server/write/place.ts'
import { bindDevice, firstLead, signIn, signOut, whoIs } from '@server/people/people.ts'
import { importAll } from '@server/shop/whole.ts'
import { keepPhoto } from '@server/photo/photos.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { type AllDeps } from './alldeps.ts'
import { endpoints, equipmentDoor } from './endpoints.ts'
import { giveFiles } from './files.ts'
import { describeApi } from './openapi.ts'
import { DomainError, STATUS } from '@server/problem/problem.ts'
import { type Endpoint } from '@server/call/routes.ts'
import { type Underway } from './underway.ts'

export interface AppParts {
  deps: AllDeps
  changes: Changes
  webFolder: string | null
  onFault: (problem: unknown) => void
  signInsPerMinute?: number
  underway?: Underway
}

const COOKIE = { session: 'idle_session', device: 'idle_device' }
const YEAR_MS = 365 * DAY_MS
const FILE_LIMIT = '20mb'
const PHOTO_LIMIT = '25mb'

export function makeApp(parts: AppParts): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          'default-src': ["'self'"],
          'style-src': ["'self'", "'unsafe-inline'"],
          'img-src': ["'self'", 'data:', 'blob:'],
          'upgrade-insecure-requests': null,
        },
      },
      hsts: false,
    }),
  )
  // Level 2: a Floor answer takes a third of the time to pack and is a sixth larger than at the usual level.
  app.use(
    compression({ level: 2, filter: (req, res) => !req.path.endsWith('/changes') && compression.filter(req, res) }),
  )
  if (parts.underway) app.use(parts.underway.count)
  const api = express.Router()
  takeFromEquipment(api, parts)
  api.use(mustCarryHeader)
  takeFiles(api, parts)
  api.use(express.json({ limit: '16mb' }))
  signing(api, parts)
  for (const e of endpoints) api[e.method](e.path, handler(parts.deps, e))
  const described = describeApi([...endpoints, equipmentDoor])
  api.get('/openapi.json', (_req, res) => void res.json(described))
  api.get('/health', async (_req, res) => void res.json({ ok: true, nowMs: parts.deps.now() }))
  giveFiles(api, parts.deps, whoOf)
  api.get('/changes', (req, res) => stream(parts, req, res))
  api.use((_req, _res) => {
    throw new DomainError('not-found', 'There is nothing at that address.')
  })
  app.use('/api', api)
  if (parts.webFolder) serveWeb(app, parts.webFolder)
  app.use(answerProblem(parts.onFault))
  return app
}

/** Equipment carries a token in its own header, which no page can make a browser send: it needs no other. */
function takeFromEquipment(api: express.Router, { deps }: AppParts): void {
  api.post('/ingest', express.json({ limit: '4mb' }), async (req, res) => {
    const token = /^Bearer (\S+)$/.exec(req.headers.authorization ?? '')?.[1]
    res.json(await takeTelemetry(deps, token, telemetryRequest.parse(req.body)))
  })
}

function takeFiles(api: express.Router, { deps }: AppParts): void {
  // A whole shop may be hundreds of megabytes: it flows through and is never held.
  api.post('/shop/whole', async (req, res) => void res.json(await importAll(deps, req)))
  api.post('/photo', express.raw({ type: () => true, limit: PHOTO_LIMIT }), async (req, res) => {
    const bytes = Buffer.isBuffer(req.body) ? req.body : new Uint8Array()
    res.json(await keepPhoto(noted(deps, req), await whoOf(deps, req), { of: photoUpload.parse(req.query), bytes }))
  })
  api.post('/ingest/file', express.raw({ type: () => true, limit: FILE_LIMIT }), async (req, res) => {
    const who = await whoOf(deps, req)
    const wanted = typeof req.query['sheet'] === 'string' ? req.query['sheet'] : null
    res.json(await readFile(who, Buffer.isBuffer(req.body) ? req.body : new Uint8Array(), wanted))
  })
}

/** A page of another site can't set this header, so it can't write in a signed-in browser's name. */
function mustCarryHeader(req: Request, _res: Response, next: () => void): void {
  if (req.method !== 'GET' && req.headers['x-idle-spool'] !== '1')
    throw new DomainError('bad-request', 'Writes need the header x-idle-spool: 1.')
  next()
}

const tokensOf = (req: Request) => {
  const cookies = parseCookies(req.headers.cookie ?? '')
  return { session: cookies[COOKIE.session], device: cookies[COOKIE.device] }
}
const whoOf = (deps: Deps, req: Request): Promise<Who> => whoIs(deps, tokensOf(req))

function handler(deps: AllDeps, e: Endpoint<AllDeps>) {
  return async (req: Request, res: Response) => {
    const who = await whoOf(deps, req)
    const at = noted(deps, req)
    const body: unknown = e.body ? e.body.parse(req.body) : undefined
    const query: unknown = e.query ? e.query.parse(req.query) : undefined
    res.setHeader('cache-control', 'no-store')
    res.json(await e.run(at, who, { body, query, params: req.params as Record<string, string> }))
  }
}

/** A device that had no link says when it was noted; the write is a fact at that time. */
function noted(deps: AllDeps, req: Request): AllDeps {
  const said = req.headers['x-happened']
  if (req.method === 'GET' || typeof said !== 'string') return deps
  const happenedMs = Number(said)
  if (!Number.isInteger(happenedMs))
    throw new DomainError('bad-request', 'The header x-happened is no time.', [
      'Give UTC milliseconds, or leave it out.',
    ])
  checkTime(happenedMs, deps.now())
  return { ...deps, happenedMs }
}

function signing(api: express.Router, parts: AppParts): void {
  const { deps } = parts
  const limited = rateLimit({
    windowMs: 60_000,
    limit: parts.signInsPerMinute ?? 20,
    legacyHeaders: false,
    handler: () => {
      throw new DomainError('too-many', 'Too many tries in a minute.', ['Wait a minute, then try again.'])
    },
  })
  const keep = (res: Response, cookie: { name: string; token: string; maxAge: number }) =>
    res.cookie(cookie.name, cookie.token, {
      httpOnly: true,
      sameSite: 'lax',
      secure: res.req.secure,
      maxAge: cookie.maxAge,
      path: '/',
    })
  api.post('/people/sign-in', limited, async (req, res) => {
    const made = await signIn(deps, signInRequest.parse(req.body))
    keep(res, { name: COOKIE.session, token: made.token, maxAge: made.expiresMs - deps.now() }).json({ ok: true })
  })
  api.post('/people/first-lead', limited, async (req, res) => {
    const made = await firstLead(deps, firstLeadRequest.parse(req.body))
    keep(res, { name: COOKIE.session, token: made.token, maxAge: made.expiresMs - deps.now() }).json({ ok: true })
  })
  api.post('/people/sign-out', async (req, res) => {
    await signOut(deps, tokensOf(req).session)
    res.clearCookie(COOKIE.session, { path: '/' }).json({ ok: true })
  })
  api.post('/people/bind', limited, async (req, res) => {
    const made = await bindDevice(deps, bindRequest.parse(req.body).token)
    keep(res, { name: COOKIE.device, token: made.token, maxAge: 2 * YEAR_MS }).json({ ok: true })
  })
}

const BEAT_MS = 20_000

/** Server-sent: "these stations changed". A beat keeps the line open and lets the page see when it is gone. */
async function stream({ deps, changes }: AppParts, req: Request, res: Response): Promise<void> {
  mustRead(await whoOf(deps, req))
  res.writeHead(200, {
    'content-type': 'text/event-stream',
    'cache-control': 'no-store',
    connection: 'keep-alive',
    'x-accel-buffering': 'no',
  })
  res.write('retry: 2000\nevent: hello\ndata: {}\n\n')
  const stop = changes.listen((stationIds) => res.write(`event: changed\ndata: ${JSON.stringify({ stationIds })}\n\n`))
  const beat = setInterval(() => res.write('event: beat\ndata: {}\n\n'), BEAT_MS)
  req.on('close', () => {
    clearInterval(beat)
    stop()
  })
}

function serveWeb(app: Express, folder: string): void {
  app.use(
    express.static(folder, {
      index: false,
      maxAge: '1y',
      immutable: true,
      setHeaders: (res, path) => {
        // Only what has its content's hash in its name is kept; all else may be another tomorrow.
        if (!path.includes(`${sep}assets${sep}`)) res.setHeader('cache-control', 'no-cache')
      },
    }),
  )
  // A piece of another version, asked for by a page that is still open: no page, so that it knows to load itself again.
  app.use('/assets', () => {
    throw new DomainError('not-found', 'This piece is of another version of the program.', ['Load the page again.'])
  })
  const page = join(folder, 'index.html')
  app.get('/{*path}', (_req, res) => {
    if (!existsSync(page)) throw new DomainError('not-found', 'The web app is not built.', ['Run npm run build.'])
    res.sendFile(page, { headers: { 'cache-control': 'no-cache' } })
  })
}

function answerProblem(onFault: (problem: unknown) => void): ErrorRequestHandler {
  // eslint-disable-next-line max-params -- the framework tells error handlers by their four parameters
  return (problem: unknown, _req, res, next) => {
    if (res.headersSent) return next(problem)
    if (problem instanceof DomainError)
      return void res
        .status(STATUS[problem.code])
        .json({ code: problem.code, message: problem.message, details: problem.details })
    if (problem instanceof ZodError) {
      const details = problem.issues.map((issue) => `${issue.path.join('.') || 'request'}: ${issue.message}`)
      return void res
        .status(400)
        .json({ code: 'bad-request', message: 'Something in that request can’t be read.', details })
    }
    if (problem instanceof Error && 'status' in problem && problem.status === 413)
      return void res
        .status(413)
        .json({ code: 'bad-request', message: 'That is too much at once.', details: ['Bring it in parts.'] })
    if (problem instanceof SyntaxError)
      return void res.status(400).json({ code: 'bad-request', message: 'That request is no JSON.', details: [] })
    onFault(problem)
    return void res.status(500).json({
      code: 'server-fault',
      message: 'The program tripped; nothing was written.',
      details: ['Try again. If it happens twice, tell whoever looks after this server.'],
    })
  }
}
