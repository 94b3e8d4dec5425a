import { and, count, desc, eq, isNull } from 'drizzle-orm'
import { type z } from 'zod'
import { PAIR_KEYS } from '@core/classes/items.ts'
import { GUIDE_KEYS } from '@core/guide/keys.ts'
import { type Clip } from '@core/photo/clip.ts'
import { BY_KEY, pairPhotoKey, placeOfKey, type PhotoOf } from '@core/photo/photo.ts'
import { type FamilyId, type Id, makeId, type StationId } from '@core/ids/id.ts'
import { type photoHide, type photoKept, type photosAnswer, type photoUpload } from '@contract/photo.ts'
import { fitFamily, ledgerEvent, part, photo, spool, station } from '@server/db/schema.ts'
import { transact, type Reader } from '@server/db/db.ts'
import { once } from '@server/call/once.ts'
import { happenedAt, mustLead, mustLogAt, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { actByKey } from '@server/ledger/lines.ts'
import { keyOf, writeAct } from '@server/write/act.ts'
import { shopLine } from '@server/write/changing.ts'
import { isOwn } from '@server/logbook/correct.ts'
import { recode } from './recode.ts'
import { loadShop } from '@server/shopmodel/model.ts'

const LINE = {
  id: photo.id,
  ofType: photo.ofType,
  ofKey: photo.ofKey,
  widthPx: photo.widthPx,
  heightPx: photo.heightPx,
  clip: photo.clip,
  takenMs: photo.takenMs,
  personId: photo.personId,
  deviceId: photo.deviceId,
  hiddenMs: photo.hiddenMs,
  idempotencyKey: photo.idempotencyKey,
}

/** Photos of one thing, newest first. */
export async function listPhotos(deps: Deps, who: Who, of: PhotoOf): Promise<z.input<typeof photosAnswer>> {
  mustRead(who)
  const [{ site }, rows] = await Promise.all([
    loadShop(deps.db, deps.shops, deps.now()),
    deps.db
      .select(LINE)
      .from(photo)
      .where(and(eq(photo.ofType, of.type), eq(photo.ofKey, of.key), isNull(photo.hiddenMs)))
      .orderBy(desc(photo.takenMs)),
  ])
  return {
    zone: site.zone,
    photos: rows.map((row) => ({
      id: row.id,
      widthPx: row.widthPx,
      heightPx: row.heightPx,
      takenMs: row.takenMs,
      canHide: isOwn(row, who),
      clip: row.clip,
    })),
  }
}

/** The picture itself. */
export async function readPhoto(deps: Deps, who: Who, at: { id: Id<'photo'>; isSmall: boolean }): Promise<Buffer> {
  mustRead(who)
  const [row] = await deps.db
    .select({ picture: at.isSmall ? photo.small : photo.jpeg })
    .from(photo)
    .where(and(eq(photo.id, at.id), isNull(photo.hiddenMs)))
  if (!row) throw new DomainError('not-found', 'There is no such photo.')
  return Buffer.from(row.picture, 'base64')
}

/** Keeps a photo of something there is; the same request again keeps it once. */
export async function keepPhoto(
  deps: Deps,
  who: Who,
  at: { of: z.output<typeof photoUpload>; bytes: Uint8Array },
): Promise<z.input<typeof photoKept>> {
  mustRead(who)
  const id = await once(
    () => byKey(deps.db, at.of.once),
    () => insertPhoto(deps, who, at),
  )
  return { id }
}

async function insertPhoto(
  deps: Deps,
  who: Who,
  at: { of: z.output<typeof photoUpload>; bytes: Uint8Array },
): Promise<Id<'photo'>> {
  const { type } = at.of
  const key = type === 'event' ? await lineNamed(deps.db, at.of.key) : at.of.key
  await mustBeThere(deps.db, who, { type, key })
  await mustHaveRoom(deps.db, { type, key })
  const recoded = await recode(at.bytes)
  const row = {
    id: makeId('photo', deps.now(), deps.random),
    ofType: type,
    ofKey: key,
    ...recoded,
    clip: clipOf(at.of),
    takenMs: happenedAt(deps),
    personId: who.person?.id ?? null,
    deviceId: who.device?.id ?? null,
    hiddenMs: null,
    idempotencyKey: at.of.once,
  }
  await transact(deps.db, (tx) => tx.insert(photo).values(row))
  return row.id
}

function clipOf({ frames, perRow, stepMs }: z.output<typeof photoUpload>): Clip | null {
  return frames !== undefined && perRow !== undefined && stepMs !== undefined ? { frames, perRow, stepMs } : null
}

/** A line may be named by the key it was written under, by a device that had no link when it was noted. */
async function lineNamed(db: Reader, key: string): Promise<string> {
  if (!key.startsWith(BY_KEY)) return key
  return (await actByKey(db, 'read', keyOf(key.slice(BY_KEY.length))))?.id ?? key
}

async function byKey(db: Reader, key: string): Promise<Id<'photo'> | null> {
  const [row] = await db.select({ id: photo.id }).from(photo).where(eq(photo.idempotencyKey, key))
  return row?.id ?? null
}

/** A guide's photos are of a guide there is, for a family there is or for all ("tip *"). */
async function mustBeGuide(db: Reader, key: string): Promise<void> {
  const [guide, familyId, ...more] = key.split(' ')
  const isKnown = GUIDE_KEYS.some((k) => k === guide) && more.length === 0
  const [family] =
    isKnown && familyId && familyId !== '*'
      ? await db
          .select({ id: fitFamily.id })
          .from(fitFamily)
          .where(eq(fitFamily.id, familyId as FamilyId))
      : []
  if (!isKnown || (familyId !== '*' && !family)) throw new DomainError('not-found', 'There is no such guide.')
}

/** A photo of the library is the instructor’s choice: of a pair there is, marked right or wrong. */
function mustBePair(who: Who, key: string): void {
  mustLead(who)
  if (!PAIR_KEYS.some((pair) => pairPhotoKey(pair, 'right') === key || pairPhotoKey(pair, 'wrong') === key))
    throw new DomainError('not-found', 'There is no such card.')
}

/** So many photos of one thing are kept; a picture is about a third of a megabyte. */
const MOST_OF_ONE = 60
async function mustHaveRoom(db: Reader, { type, key }: PhotoOf): Promise<void> {
  const [has] = await db
    .select({ n: count() })
    .from(photo)
    .where(and(eq(photo.ofType, type), eq(photo.ofKey, key)))
  if ((has?.n ?? 0) >= MOST_OF_ONE)
    throw new DomainError('bad-request', `There are ${MOST_OF_ONE} photos of it already.`, ['Nothing was kept.'])
}

async function mustBeThere(db: Reader, who: Who, of: PhotoOf): Promise<void> {
  const placeId = placeOfKey(of)
  if (placeId !== null) {
    const [place] = await db
      .select()
      .from(station)
      .where(eq(station.id, placeId as StationId))
    if (!place) throw new DomainError('not-found', 'There is no such place.')
    return mustLogAt(who, place)
  }
  if (of.type === 'guide') return mustBeGuide(db, of.key)
  if (of.type === 'pair') return mustBePair(who, of.key)
  const table = { spool, part, event: ledgerEvent, position: station }[of.type]
  const [row] = await db
    .select({ id: table.id })
    .from(table)
    .where(eq(table.id, of.key as never))
  if (!row) throw new DomainError('not-found', `There is no such ${of.type === 'event' ? 'line' : of.type}.`)
}

/** Taken back: it is kept and no longer shown, and the Logbook says so. */
export async function hidePhoto(deps: Deps, who: Who, r: z.output<typeof photoHide>): Promise<{ ok: true }> {
  mustRead(who)
  await writeAct(deps, who, async (w) => {
    const key = keyOf(r.key)
    if (await actByKey(w.tx, 'shop', key)) return
    const [row] = await w.tx.select(LINE).from(photo).where(eq(photo.id, r.id)).for('update')
    if (!row) throw new DomainError('not-found', 'There is no such photo.')
    if (!isOwn(row, who))
      throw new DomainError('not-yours', 'Somebody else took this photo.', ['Ask them or the lead.'])
    await w.tx.update(photo).set({ hiddenMs: deps.now() }).where(eq(photo.id, r.id))
    w.say({ kind: 'shop', key, lines: [shopLine(deps, { of: 'photo', ofType: row.ofType })] })
  })
  return { ok: true }
}
