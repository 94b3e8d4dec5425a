import { DAY_MS } from '@core/units/time.ts'
import { createHash, randomBytes } from 'node:crypto'
import { existsSync, readFileSync } from 'node:fs'
import { join, sep } from 'node:path'
import compression from 'compression'
import { parse as parseCookies } from 'cookie'
import packedFiles from 'express-static-gzip'
import express, { type ErrorRequestHandler, type Express, type Request, type Response } from 'express'
import { rateLimit } from 'express-rate-limit'
import helmet, { type HelmetOptions } from 'helmet'
import { z, ZodError } from 'zod'
import { bindRequest, firstLeadRequest, passwordRequest, signInRequest } from '@contract/people.ts'
import { photoUpload } from '@contract/photo.ts'
import { telemetryRequest } from '@contract/telemetry.ts'
import { type Changes } from '@server/changes/changes.ts'
import { takeTelemetry } from '@server/ingest/telemetry.ts'
import { readFile } from '@server/ingest/readfile.ts'
import { checkTime } from '@server/write/place.ts'
import { bindDevice, changePassword, firstLead, signIn, signOut, whoIs } from '@server/people/people.ts'
import { importAll } from '@server/shop/whole.ts'
import { keepPhoto } from '@server/photo/photos.ts'
import { boundTo } from '@server/call/bound.ts'
import { mustLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { type Metrics } from '@server/health/metrics.ts'
import { notingRefusal } from '@server/call/refusals.ts'
import { passingFault, type DatabaseWatch } from '@server/health/watch.ts'
import { type AllDeps } from './alldeps.ts'
import { endpoints, equipmentDoor } from './endpoints.ts'
import { askedBy, Doors } from './doors.ts'
import { giveFiles } from './files.ts'
import { mustBeOurs } from './hosts.ts'
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
  /** Names that this machine goes by beside its own. */
  hosts?: readonly string[]
  underway?: Underway
  watch?: DatabaseWatch
  metrics?: Metrics
  /** Of tests: an answer that does not fit its shape is a fault here, not in the page that asked. */
  isAnswerChecked?: boolean
}

const COOKIE = { session: 'idle_session', device: 'idle_device' }
const YEAR_MS = 365 * DAY_MS
const FILE_LIMIT = '20mb'
const PHOTO_LIMIT = '25mb'

/** What of the page itself may run: the few lines that set the theme before anything is drawn, by what they are. */
function hashesOf(webFolder: string | null): string[] {
  const page = webFolder === null ? '' : join(webFolder, 'index.html')
  if (!existsSync(page)) return []
  const scripts = [...readFileSync(page, 'utf8').matchAll(/<script>(.*?)<\/script>/gs)]
  return scripts.map(([, text = '']) => `'sha256-${createHash('sha256').update(text).digest('base64')}'`)
}

const security = (webFolder: string | null): HelmetOptions => ({
  contentSecurityPolicy: {
    directives: {
      'default-src': ["'self'"],
      'script-src': ["'self'", ...hashesOf(webFolder)],
      'style-src': ["'self'", "'unsafe-inline'"],
      'img-src': ["'self'", 'data:', 'blob:'],
      // A film is read on the device, and never sent.
      'media-src': ["'self'", 'blob:'],
      // Small pieces of the fonts stand in the style itself.
      'font-src': ["'self'", 'data:'],
      'upgrade-insecure-requests': null,
    },
  },
  hsts: false,
})

export function makeApp(parts: AppParts): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(helmet(security(parts.webFolder)))
  app.use(mustBeOurs(parts.hosts ?? []))
  app.use(named)
  if (parts.metrics) app.use(parts.metrics.count)
  // Level 2: a Floor answer takes a third of the time to pack and is a sixth larger than at the usual level.
  app.use(
    compression({ level: 2, filter: (req, res) => !req.path.endsWith('/changes') && compression.filter(req, res) }),
  )
  if (parts.underway) app.use(parts.underway.count)
  app.use('/api', openAll(parts))
  if (parts.webFolder) serveWeb(app, parts.webFolder)
  app.use(answerProblem(parts.onFault))
  return app
}

function openAll(parts: AppParts): express.Router {
  const doors = new Doors((req) => within(parts.watch, () => whoOf(parts.deps, req)))
  // How the server itself is stands before all that asks the database.
  giveHealth(doors, parts)
  takeFromEquipment(doors, parts)
  doors.router.use(mustCarryHeader)
  signing(doors, parts)
  // A whole shop may be hundreds of megabytes: it flows through and is never held. It goes into an empty one only, where nobody is yet.
  doors.post('/shop/whole', async (req, res) => void res.json(await importAll(parts.deps, req)))
  takeFiles(doors, parts)
  const json = [express.json({ limit: '16mb', verify: markOdd }), mustBeText]
  for (const e of endpoints) doors[e.method](e.path, ...(e.method === 'post' ? json : []), handler(parts, e))
  const described = describeApi([...endpoints, equipmentDoor])
  doors.get('/openapi.json', (_req, res) => void res.json(described))
  giveFiles(doors, parts.deps)
  doors.get('/changes', (req, res) => stream(parts, req, res))
  doors.mustBeAll()
  doors.router.use((_req, _res) => {
    throw new DomainError('not-found', 'There is nothing at that address.')
  })
  return doors.router
}

/** A letter that is none, or half of one: no text anybody typed, and the database keeps it as another. */
const ODD = /\\u0000|\\ud[89a-f]/i
const odd = new WeakSet<object>()
const markOdd = (req: object, _res: unknown, raw: Buffer): void => {
  if (ODD.test(raw.toString('latin1'))) odd.add(req)
}
function mustBeText(req: Request, _res: Response, next: () => void): void {
  if (odd.has(req) && !isText(req.body))
    throw new DomainError('bad-request', 'There is a letter in that request that is none.', ['Type that word again.'])
  next()
}
function isText(value: unknown): boolean {
  if (typeof value === 'string') return !value.includes('\0') && !/\p{Surrogate}/u.test(value)
  if (typeof value !== 'object' || value === null) return true
  return Object.entries(value).every(([key, inner]) => isText(key) && isText(inner))
}

/** Every answer has a number of its own, by which what is written down of it is found. */
function named(_req: Request, res: Response, next: () => void): void {
  res.locals['id'] = randomBytes(5).toString('hex')
  res.setHeader('x-request-id', String(res.locals['id']))
  next()
}

/** Whether the process lives; whether it and its database take work; and numbers for whoever watches, on this machine or as a lead. */
function giveHealth(doors: Doors, { deps, underway, watch, metrics }: AppParts): void {
  const live = (_req: Request, res: Response) => void res.json({ ok: true, nowMs: deps.now() })
  doors.get('/live', live)
  doors.get('/health', live)
  doors.get('/ready', async (_req, res) => {
    const why = underway?.isEnding() ? 'stopping' : watch && !(await watch.answers()) ? 'database' : null
    res.status(why ? 503 : 200).json(why ? { ok: false, why } : { ok: true })
  })
  doors.get('/metrics', async (req, res) => {
    if (!isOfThisMachine(req)) mustLead(await whoOf(deps, req))
    res.type('text/plain; version=0.0.4').send(metrics ? await metrics.registry.metrics() : '')
  })
}
/** Asked by this machine itself, and not through something that passes on what others ask. */
const isOfThisMachine = (req: Request) =>
  /^(::ffff:)?127\.|^::1$/.test(req.socket.remoteAddress ?? '') && req.headers['x-forwarded-for'] === undefined

const within = <T>(watch: DatabaseWatch | undefined, work: () => Promise<T>): Promise<T> =>
  watch ? watch.within(work) : work()

/** Equipment carries a token in its own header, which no page can make a browser send: it needs no other. */
function takeFromEquipment(doors: Doors, { deps }: AppParts): void {
  doors.post('/ingest', express.json({ limit: '4mb' }), async (req, res) => {
    const token = /^Bearer (\S+)$/.exec(req.headers.authorization ?? '')?.[1]
    res.json(await takeTelemetry(deps, token, telemetryRequest.parse(req.body)))
  })
}

function takeFiles(doors: Doors, { deps }: AppParts): void {
  doors.post('/photo', express.raw({ type: () => true, limit: PHOTO_LIMIT }), async (req, res) => {
    const bytes = Buffer.isBuffer(req.body) ? req.body : new Uint8Array()
    const of = photoUpload.parse(req.query)
    const who = askedBy(res)
    const keep = () => keepPhoto(noted(deps, req), who, { of, bytes })
    const send = () => boundTo(deps, { key: of.once, route: '/photo', content: { of, bytes } }, keep)
    res.json(await (isNoted(req) ? notingRefusal(deps, { who, key: of.once }, send) : send()))
  })
  doors.post('/ingest/file', express.raw({ type: () => true, limit: FILE_LIMIT }), async (req, res) => {
    const who = askedBy(res)
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

function handler({ deps, watch, isAnswerChecked }: AppParts, e: Endpoint<AllDeps>) {
  return async (req: Request, res: Response) => {
    const answer = await within(watch, async () => {
      const who = (res.locals['who'] as Who | undefined) ?? (await whoOf(deps, req))
      const body: unknown = e.body ? e.body.parse(req.body) : undefined
      const query: unknown = e.query ? e.query.parse(req.query) : undefined
      const run = () => e.run(noted(deps, req), who, { body, query, params: req.params as Record<string, string> })
      const key = keyIn(body)
      const send = () => (key === null ? run() : boundTo(deps, { key, route: e.path, content: body }, run))
      return isNoted(req) ? notingRefusal(deps, { who, key }, send) : send()
    })
    if (isAnswerChecked) mustFit(e, answer)
    res.setHeader('cache-control', 'no-store')
    res.json(answer)
  }
}

/** An answer as it goes over the wire has the shape it is described with: a page refuses any other (a share of nothing is no number, and goes as null). */
function mustFit(e: Endpoint<AllDeps>, answer: unknown): void {
  const read = e.answer.safeParse(JSON.parse(JSON.stringify(answer ?? null)))
  if (!read.success) throw new Error(`${e.path} answers what it is not described with: ${z.prettifyError(read.error)}`)
}

const keyIn = (body: unknown): string | null =>
  typeof body === 'object' && body !== null && 'key' in body && typeof body.key === 'string' ? body.key : null

const isNoted = (req: Request): boolean => req.method !== 'GET' && req.headers['x-happened'] !== undefined

/** A device that had no link says when it was noted; the write is a fact at that time. */
function noted(deps: AllDeps, req: Request): AllDeps {
  if (!isNoted(req)) return deps
  const happenedMs = Number(req.headers['x-happened'])
  if (!Number.isInteger(happenedMs))
    throw new DomainError('bad-request', 'The header x-happened is no time.', [
      'Give UTC milliseconds, or leave it out.',
    ])
  checkTime(happenedMs, deps.now())
  return { ...deps, happenedMs }
}

/** A cookie that scripts can't read, and that goes to this shop only. */
const keep = (res: Response, cookie: { name: string; token: string; maxAge: number }) =>
  res.cookie(cookie.name, cookie.token, {
    httpOnly: true,
    sameSite: 'lax',
    secure: res.req.secure,
    maxAge: cookie.maxAge,
    path: '/',
  })

const limitedTo = (limit: number) =>
  rateLimit({
    windowMs: 60_000,
    limit,
    legacyHeaders: false,
    handler: () => {
      throw new DomainError('too-many', 'Too many tries in a minute.', ['Wait a minute, then try again.'])
    },
  })

function signing(doors: Doors, parts: AppParts): void {
  const { deps } = parts
  const short = express.json({ limit: '16kb' })
  const limited = limitedTo(parts.signInsPerMinute ?? 20)
  const from = (req: Request) => req.socket.remoteAddress ?? ''
  const signedIn = (res: Response, { token, expiresMs }: { token: string; expiresMs: number }) =>
    keep(res, { name: COOKIE.session, token, maxAge: expiresMs - deps.now() }).json({ ok: true })
  doors.post(
    '/people/sign-in',
    short,
    async (req, res) => void signedIn(res, await signIn(deps, { ...signInRequest.parse(req.body), from: from(req) })),
  )
  doors.post(
    '/people/first-lead',
    limited,
    short,
    async (req, res) => void signedIn(res, await firstLead(deps, firstLeadRequest.parse(req.body))),
  )
  doors.post(
    '/people/password',
    short,
    async (req, res) =>
      void signedIn(
        res,
        await changePassword(deps, askedBy(res), { ...passwordRequest.parse(req.body), from: from(req) }),
      ),
  )
  doors.post('/people/sign-out', async (req, res) => {
    await signOut(deps, tokensOf(req).session)
    res.clearCookie(COOKIE.session, { path: '/' }).json({ ok: true })
  })
  doors.post('/people/bind', limited, short, async (req, res) => {
    const made = await bindDevice(deps, bindRequest.parse(req.body).token)
    keep(res, { name: COOKIE.device, token: made.token, maxAge: 2 * YEAR_MS }).json({ ok: true })
  })
}

const BEAT_MS = 20_000

/** Server-sent: "these stations changed". A beat keeps the line open and lets the page see when it is gone. */
function stream({ deps, changes }: AppParts, req: Request, res: Response): void {
  res.writeHead(200, {
    'content-type': 'text/event-stream',
    'cache-control': 'no-store',
    connection: 'keep-alive',
    'x-accel-buffering': 'no',
  })
  res.write('retry: 2000\nevent: hello\ndata: {}\n\n')
  const stop = changes.listen((stationIds) => res.write(`event: changed\ndata: ${JSON.stringify({ stationIds })}\n\n`))
  // Who has signed out meanwhile, or whose device was taken off, is told nothing any more.
  const beat = setInterval(() => {
    res.write('event: beat\ndata: {}\n\n')
    whoOf(deps, req)
      .then(mustRead)
      .catch((problem: unknown) => problem instanceof DomainError && res.end())
  }, BEAT_MS)
  req.on('close', () => {
    clearInterval(beat)
    stop()
  })
}

function serveWeb(app: Express, folder: string): void {
  // For those who mend the program, not for the shop's network.
  app.use((req, _res, next) => {
    if (req.path.endsWith('.map')) throw new DomainError('not-found', 'There is nothing at that address.')
    next()
  })
  app.use(
    packedFiles(folder, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: {
        maxAge: '1y',
        immutable: true,
        setHeaders: (res, path) => {
          // Only what has its content's hash in its name is kept; all else may be another tomorrow.
          if (!path.includes(`${sep}assets${sep}`)) res.setHeader('cache-control', 'no-cache')
        },
      },
    }),
  )
  // A piece of another version, asked for by a page that is still open: no page, so that it knows to load itself again.
  app.use('/assets', () => {
    throw new DomainError('not-found', 'This piece is of another version of the program.', ['Load the page again.'])
  })
  const page = join(folder, 'index.html')
  app.get('/{*path}', (req, res) => {
    // What looks like a file and is none is no page either.
    if (/\.[^/]*$/.test(req.path)) throw new DomainError('not-found', 'There is nothing at that address.')
    if (!existsSync(page)) throw new DomainError('not-found', 'The web app is not built.', ['Run npm run build.'])
    res.sendFile(page, { headers: { 'cache-control': 'no-cache' } })
  })
}

/** What a request has wrong in itself, as the framework tells it: an address that can't be read, a body too large. */
function ofRequest(problem: unknown): { status: number; message: string; details: string[] } | null {
  if (problem instanceof ZodError) {
    const details = problem.issues.map((issue) => `${issue.path.join('.') || 'request'}: ${issue.message}`)
    return { status: 400, message: 'Something in that request can’t be read.', details }
  }
  const status = problem instanceof Error && 'status' in problem ? Number(problem.status) : 0
  if (status === 413) return { status, message: 'That is too much at once.', details: ['Bring it in parts.'] }
  if (problem instanceof SyntaxError) return { status: 400, message: 'That request is no JSON.', details: [] }
  if (status >= 400 && status < 500) return { status, message: 'That request can’t be read.', details: [] }
  return null
}

const AGAIN_IN_S = 2
function answerProblem(onFault: (problem: unknown) => void): ErrorRequestHandler {
  // eslint-disable-next-line max-params -- the framework tells error handlers by their four parameters
  return (problem: unknown, _req, res, next) => {
    if (res.headersSent) return next(problem)
    const passing = passingFault(problem)
    if (passing) onFault(problem)
    const known = problem instanceof DomainError ? problem : passing
    if (known) {
      if (known.code === 'busy') res.setHeader('retry-after', String(AGAIN_IN_S))
      return void res
        .status(STATUS[known.code])
        .json({ code: known.code, message: known.message, details: known.details })
    }
    const wrong = ofRequest(problem)
    if (wrong)
      return void res.status(wrong.status).json({ code: 'bad-request', message: wrong.message, details: wrong.details })
    onFault(problem instanceof Error ? Object.assign(problem, { requestId: String(res.locals['id']) }) : problem)
    return void res.status(500).json({
      code: 'server-fault',
      message: 'The program tripped; nothing was written.',
      details: [
        `Try again. If it happens twice, tell whoever looks after this server, with the number ${String(res.locals['id'])}.`,
      ],
    })
  }
}
