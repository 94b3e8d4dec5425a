import { and, desc, eq, isNull } from 'drizzle-orm'
import { type z } from 'zod'
import { PAIR_KEYS, type PairKey } from '@core/classes/items.ts'
import { PAIRS } from '@core/classes/pairs.ts'
import { pairPhotoKey } from '@core/photo/photo.ts'
import { type pairRequest, type pairsAnswer, type pairsPrintQuery, type PairLine } from '@contract/classes.ts'
import { pairWord, photo } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { pairCards, type PrintedPair } from '@server/print/paircards.ts'
import { pdfOf } from '@server/print/printer.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { changing } from '@server/write/changing.ts'

/** Of what shipped it is nobody’s here: whoever looks it over puts a name to it. */
const SHIPPED_SOURCE = 'the trade’s usual word'

async function linesOf(db: Reader): Promise<PairLine[]> {
  const words = new Map((await db.select().from(pairWord)).map((w) => [w.pair, w]))
  const photos = await db
    .select({ id: photo.id, key: photo.ofKey, takenMs: photo.takenMs })
    .from(photo)
    .where(and(eq(photo.ofType, 'pair'), isNull(photo.hiddenMs)))
    .orderBy(desc(photo.takenMs))
  const shot = (key: PairKey, side: 'right' | 'wrong') =>
    photos.filter((p) => p.key === pairPhotoKey(key, side)).map(({ id, takenMs }) => ({ id, side, takenMs }))
  return PAIR_KEYS.map((key) => {
    const own = words.get(key)
    const { at, name, drawing, ...shipped } = PAIRS[key]
    return {
      ...{ key, at, name, drawing },
      right: own?.right ?? shipped.right,
      wrong: own?.wrong ?? shipped.wrong,
      why: own?.why ?? shipped.why,
      exercise: own?.exercise ?? shipped.exercise,
      image: own?.image ?? null,
      isOwn: [own?.right, own?.wrong, own?.why, own?.exercise].some(Boolean),
      isWrongHere: own?.isWrongHere ?? false,
      source: own?.source ?? SHIPPED_SOURCE,
      reviewedBy: own?.reviewedBy ?? null,
      reviewedDay: own?.reviewedDay ?? null,
      photos: [...shot(key, 'right'), ...shot(key, 'wrong')],
    }
  })
}

/** The library: what is wrong here is shown to leads and instructors only, who may put it right. */
export async function readPairs(deps: Deps, who: Who): Promise<z.input<typeof pairsAnswer>> {
  mustRead(who)
  const { site } = await loadShop(deps.db, deps.shops, deps.now())
  const lines = await linesOf(deps.db)
  return { zone: site.zone, pairs: isLead(who) ? lines : lines.filter((l) => !l.isWrongHere) }
}

/** A pair in the shop’s own words, or marked as wrong here: with who looked it over and when. */
export const savePair = (deps: Deps, who: Who, r: z.output<typeof pairRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'pairWords', pair: r.pair, isWrongHere: r.isWrongHere },
    work: async (tx, w) => {
      const { site } = await w.shop()
      const shipped = PAIRS[r.pair]
      // What says the same as what shipped is no word of one’s own.
      const own = (key: 'right' | 'wrong' | 'why' | 'exercise') => (r[key] && r[key] !== shipped[key] ? r[key] : null)
      const values = {
        ...{ right: own('right'), wrong: own('wrong'), why: own('why'), exercise: own('exercise') },
        ...{ image: r.image ? r.image : null, isWrongHere: r.isWrongHere, source: r.source ? r.source : null },
        ...{ reviewedBy: who.person?.name ?? null, reviewedDay: dayOf(site.zone, deps.now()) },
      }
      await tx
        .insert(pairWord)
        .values({ pair: r.pair, ...values })
        .onDuplicateKeyUpdate({ set: values })
    },
  })

/** Cards to hang up: the chosen one, those of one place of the path, or all that are right here. */
export async function printPairs(deps: Deps, who: Who, q: z.output<typeof pairsPrintQuery>): Promise<Buffer> {
  mustRead(who)
  const { site } = await loadShop(deps.db, deps.shops, deps.now())
  const wanted = (await linesOf(deps.db)).filter(
    (l) => !l.isWrongHere && (!q.pair || l.key === q.pair) && (!q.at || l.at === q.at),
  )
  if (wanted.length === 0)
    throw new DomainError('not-found', 'There is no such card.', ['What is marked as wrong here is not printed.'])
  const printed: PrintedPair[] = []
  for (const line of wanted) printed.push({ ...line, pictures: await picturesOf(deps.db, line) })
  return (await pdfOf(pairCards(printed, { shopName: site.name, date: dayOf(site.zone, deps.now()) }))).pdf
}

/** The newest photo of each side. */
async function picturesOf(db: Reader, line: PairLine): Promise<PrintedPair['pictures']> {
  const pictures: PrintedPair['pictures'] = {}
  for (const side of ['right', 'wrong'] as const) {
    const newest = line.photos.find((p) => p.side === side)
    if (!newest) continue
    const [row] = await db.select({ jpeg: photo.jpeg }).from(photo).where(eq(photo.id, newest.id))
    if (row) pictures[side] = `data:image/jpeg;base64,${row.jpeg}`
  }
  return pictures
}
