import { type z } from 'zod'
import { indexOf } from '@core/diagnose/belief.ts'
import { firstLooks } from '@core/diagnose/firstlooks.ts'
import { makeQuiz, type QuizShop } from '@core/classes/quiz.ts'
import { NO_ID, makeId, type StationId } from '@core/ids/id.ts'
import { kindOfPosition, type KindKey } from '@core/path/columns.ts'
import { makeRandom } from '@core/random/random.ts'
import { findingsWith, rightPart, type Stocked } from '@core/rightparts/check.ts'
import { RULES } from '@core/rightparts/finding.ts'
import { shareInterval } from '@core/stats/share.ts'
import { DAY_MS } from '@core/units/time.ts'
import { gte } from 'drizzle-orm'
import { type quizAnswer, type quizKnown, type quizQuery, type quizTakenRequest } from '@contract/classes.ts'
import { quizTaken } from '@server/db/schema.ts'
import { transact } from '@server/db/db.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { activeBooths } from '@server/shopmodel/school.ts'
import { DomainError } from '@server/problem/problem.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { stockedParts } from '@server/gunnow/line.ts'
import { setupOf, type Hung } from '@server/gunnow/setup.ts'
import { knowledgeNow } from '@server/knowledge/now.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { ofClassHere } from './found.ts'

const QUESTIONS = 10
const FITTING: readonly KindKey[] = ['tip', 'liner', 'rolls', 'nozzle', 'diffuser']
const FIRSTS = 6

/** Ten questions about one of the shop’s own guns; another seed asks others. */
export async function readQuiz(
  deps: Deps,
  who: Who,
  q: z.output<typeof quizQuery>,
): Promise<z.input<typeof quizAnswer>> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const stationId = q.stationId ?? who.device?.stationId ?? (await boothToAsk(deps, who, shop))
  const station = shop.stationById.get(stationId)
  if (!station) throw new DomainError('not-found', 'There is no booth to ask about yet.', ['Set one up in Our shop.'])
  const hung = await hungOne(deps.db, shop, stationId)
  const seed = q.seed ?? deps.now() % 100_000
  const quiz = makeQuiz(await quizShop(deps, hung, shop), { many: QUESTIONS, random: makeRandom(seed) })
  return { stationId, name: station.name, seed, questions: quiz }
}

/** A booth of a group, where there is one; else the first there is. */
async function boothToAsk(deps: Deps, who: Who, shop: ShopModel): Promise<StationId> {
  const { school } = await loadShop(deps.db, deps.shops, deps.now())
  const booths = new Set(school.groups.flatMap((g) => activeBooths(school, g.id)))
  const here = shop.stations.filter((s) => !who.device?.areaId || s.areaId === who.device.areaId)
  return (here.find((s) => booths.has(s.id)) ?? here[0])?.id ?? NO_ID
}

async function quizShop(deps: Deps, hung: Hung, shop: ShopModel): Promise<QuizShop> {
  const setup = setupOf(hung, shop)
  const { knowledge } = await knowledgeNow(deps.db)
  const index = indexOf(knowledge)
  const parts = await stockedParts(deps.db)
  const kinds = Object.keys(setup.parts).map((p) => kindOfPosition(p as KindKey))
  return {
    gunName: hung.station.name,
    wireName: setup.wire?.name ?? null,
    parts: shop.kinds.filter((k) => kinds.includes(k.key)).map((k) => ({ kindKey: k.key, name: k.name })),
    fits: FITTING.flatMap((kindKey) => fitOf(kindKey, { setup, shop, parts })),
    firsts: knowledge.symptoms
      .filter((s) => s.picture !== 'robot')
      .slice(0, FIRSTS)
      .flatMap((s) => {
        const [look] = firstLooks(index, { symptom: s.key, most: 1 })
        return look ? [{ symptom: s.key, says: s.says, look: look.do, how: look.how }] : []
      }),
  }
}

function fitOf(
  kindKey: KindKey,
  { setup, shop, parts }: { setup: ReturnType<typeof setupOf>; shop: ShopModel; parts: readonly Stocked[] },
): QuizShop['fits'] {
  const right = rightPart(setup, kindKey, parts)
  const kind = shop.kindByKey.get(kindKey)
  if (!right || !kind) return []
  const wrong = parts
    .filter((p) => p.kindKey === kindKey)
    .flatMap((p) => {
      const worst = findingsWith(setup, p).find((f) => f.severity !== 'note')
      return worst ? [{ says: `${p.code} ${p.name}`, why: `${RULES[worst.rule].why}` }] : []
    })
  return [{ kindKey, name: kind.name, right: `${right.code} ${right.name}`, wrong }]
}

/** What was answered, told of the group that has the booth now; of nobody. */
export async function keepQuiz(deps: Deps, who: Who, r: z.output<typeof quizTakenRequest>): Promise<{ ok: true }> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  if (!shop.stationById.has(r.stationId)) throw new DomainError('not-found', 'There is no such booth.')
  const here = ofClassHere(deps, shop, r.stationId)
  const row = {
    ...{ id: makeId('quiz', deps.now(), deps.random), stationId: r.stationId, ...here },
    ...{ answers: r.answers, idempotencyKey: r.key },
  }
  await transact(deps.db, (tx) =>
    tx
      .insert(quizTaken)
      .values(row)
      .onDuplicateKeyUpdate({ set: { atMs: here.atMs } }),
  )
  return { ok: true }
}

const KNOWN_DAYS = 120
/** What is known by group, thing by thing: for teaching. What few answered says little, and its spread says so. */
export async function readKnown(deps: Deps, who: Who): Promise<z.input<typeof quizKnown>> {
  mustRead(who)
  const { school } = await loadShop(deps.db, deps.shops, deps.now())
  const taken = await deps.db
    .select()
    .from(quizTaken)
    .where(gte(quizTaken.atMs, deps.now() - KNOWN_DAYS * DAY_MS))
  const counts = new Map<
    string,
    { groupId: string | null; kind: string; about: string; right: number; asked: number }
  >()
  for (const { groupId, answers } of taken)
    for (const { kind, about, isRight } of answers) {
      const key = `${groupId ?? ''} ${kind} ${about}`
      const c = counts.get(key) ?? { groupId, kind, about, right: 0, asked: 0 }
      counts.set(key, { ...c, right: c.right + (isRight ? 1 : 0), asked: c.asked + 1 })
    }
  return {
    known: [...counts.values()]
      .map((c) => ({
        ...c,
        groupName: school.groups.find((g) => g.id === c.groupId)?.name ?? null,
        ...shareInterval(c.right, c.asked),
      }))
      .sort((a, b) => a.high - b.high)
      .map(({ groupId: _, ...c }) => c),
  }
}
