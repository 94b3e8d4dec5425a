import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { makeRandom, pick } from '@core/random/random.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { bodyFor } from '@server/testing/routecases.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { makePlaces, type Client, type TestServer } from '@server/testing/testserver.ts'
import { endpoints } from './endpoints.ts'

/**
 * What no page sends: every write asked with one to four fields of its shape put wrong. None of it may trip the program; what is refused writes nothing; what
 * does not fit its shape is refused. `FUZZ` requests a route (the long form: npm run fuzz), from `FUZZ_SEED`, which a failure names.
 */
const EACH = Number(process.env['FUZZ'] ?? 12)
const SEED = Number(process.env['FUZZ_SEED'] ?? Date.now() % 1e6)
/** The whole content is compared for one in so many. */
const COMPARED_EVERY = EACH > 100 ? 100 : 1

let server: TestServer
let lead: Client
let ids: Map<string, string>
serverForAll({ nowMs: Date.UTC(2026, 10, 23, 12) }, async (here) => {
  ;({ server, lead } = here)
  ids = await makePlaces(lead, 'A1–A2')
})

const HOSTILE: readonly unknown[] = [
  ...[null, true, false, 0, -1, 1.5, -0, 1e308, -1e308, 2 ** 53, 1e21, 4294967296],
  ...['', ' ', '0', 'null', '-1', '1e999', '\u202e', 'é'.repeat(300), 'x'.repeat(5000), '💧', "'; drop table part; --"],
  ...['../../etc/passwd', '<img src=x onerror=alert(1)>', '=1+1', '2026-02-30', '9999-12-31', '__proto__', '\\u0000'],
  ...[
    [],
    {},
    [[]],
    [null],
    [1, 2, 3],
    { $ne: null },
    { toString: 1 },
    Array.from({ length: 50 }, () => ({})),
    ['a', 'a'],
  ],
]

interface Shape {
  properties?: Record<string, Shape>
  items?: Shape
  enum?: unknown[]
  anyOf?: Shape[]
  oneOf?: Shape[]
  const?: unknown
}
type Path = (string | number)[]
/** Every field of a shape, those that may be left out as well, and the words each may be. */
function fieldsOf(shape: Shape, at: Path = []): { path: Path; words: unknown[] }[] {
  const choices = [...(shape.anyOf ?? []), ...(shape.oneOf ?? [])]
  const words = [shape, ...choices].flatMap((s) => [...(s.enum ?? []), ...('const' in s ? [s.const] : [])])
  const inner = [shape, ...choices].flatMap((s) => [
    ...Object.entries(s.properties ?? {}).flatMap(([name, of]) => fieldsOf(of, [...at, name])),
    ...(s.items ? fieldsOf(s.items, [...at, 0]) : []),
  ])
  return [...(at.length > 0 ? [{ path: at, words }] : []), ...inner]
}

/** A copy with one field set; what is not there on the way to it is made. */
function withField(body: unknown, [head, ...rest]: Path, value: unknown): unknown {
  if (head === undefined) return value
  const own: Record<string | number, unknown> =
    typeof body === 'object' && body !== null
      ? Array.isArray(body)
        ? ([...(body as unknown[])] as never)
        : { ...body }
      : typeof head === 'number'
        ? ([] as never)
        : {}
  own[head] = withField(own[head], rest, value)
  return own
}

const writes = endpoints.filter((e) => e.method === 'post')
describe(`a write that no page sends (seed ${SEED})`, () => {
  it.each(writes.map((e) => e.path))(
    '%s is refused in words, or kept whole',
    async (path) => {
      const e = writes.find((w) => w.path === path)
      if (!e?.body) return
      const random = makeRandom(SEED + path.length * 7919)
      const fields = fieldsOf(z.toJSONSchema(e.body, { io: 'input', unrepresentable: 'any' }) as Shape)
      for (let i = 0; i < EACH; i++) {
        const before = i % COMPARED_EVERY === 0 ? await contentOf(server) : null
        let body: unknown = bodyFor(path, { id: (name) => ids.get(name) ?? '', nowMs: server.clock.nowMs })
        for (let n = 1 + Math.floor(random() * 4); n > 0; n--) {
          const { path: at, words } = pick(random, fields)
          const value = words.length > 0 && random() < 0.5 ? pick(random, words) : pick(random, HOSTILE)
          body = withField(body, at, value)
        }
        const said = { seed: SEED, body }
        const { status, body: answer } = await lead.post<{ message?: string; details?: string[] }>(path, body)
        expect({ ...said, is: status < 500 }, JSON.stringify(answer)).toMatchObject({ is: true })
        const fits = e.body.safeParse(JSON.parse(JSON.stringify(body))).success
        if (!fits) expect({ ...said, status }).toMatchObject({ status: 400 })
        if (status >= 400) expect({ ...said, words: answer.message?.length ?? 0 }.words).toBeGreaterThan(10)
        if (before && status >= 400)
          expect({ ...said, after: await contentOf(server) }).toEqual({ ...said, after: before })
      }
      expect(server.faults.splice(0).map(String)).toEqual([])
    },
    Math.max(60_000, EACH * 200),
  )
})
