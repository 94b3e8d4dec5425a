import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { createHash, randomBytes } from 'node:crypto'
import { and, eq, gt, isNotNull, lt } from 'drizzle-orm'
import { hash, verify } from '@node-rs/argon2'
import { type AreaId, type DeviceId, makeId, type PersonId, type StationId } from '@core/ids/id.ts'
import { area, device, meta, person, session, site, station, type Role } from '@server/db/schema.ts'
import { isDuplicate, transact, type Tx } from '@server/db/db.ts'
import { mustOwn, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { isZone } from '@server/time/wall.ts'
import { changing } from '@server/write/changing.ts'
import { seedShop } from './seed.ts'
import { mustMayTry, noteFailure } from './tries.ts'

const SESSION_MS = 14 * DAY_MS
const LINK_MS = 24 * HOUR_MS
export const digest = (token: string) => createHash('sha256').update(token).digest('hex')
export const newToken = () => randomBytes(24).toString('base64url')

/** Who a pair of cookies stands for. Expired or unknown tokens are nobody. */
export async function whoIs(
  deps: Deps,
  tokens: { session: string | undefined; device: string | undefined },
): Promise<Who> {
  const [people, devices] = await Promise.all([
    tokens.session
      ? deps.db
          .select({ id: person.id, name: person.name, role: person.role })
          .from(session)
          .innerJoin(person, eq(person.id, session.personId))
          .where(
            and(
              eq(session.tokenHash, digest(tokens.session)),
              gt(session.expiresMs, deps.now()),
              eq(person.isActive, true),
            ),
          )
      : [],
    tokens.device
      ? deps.db
          .select({ id: device.id, name: device.name, areaId: device.areaId, stationId: device.stationId })
          .from(device)
          .where(and(eq(device.tokenHash, digest(tokens.device)), eq(device.isActive, true)))
      : [],
  ])
  return { person: people[0] ?? null, device: devices[0] ?? null }
}

/** A hash to compare with when there is no such person, so that both answers take as long. */
const NOBODY = hash('nobody has this password')

export async function signIn(
  deps: Deps,
  request: { name: string; password: string; from: string },
): Promise<{ token: string; expiresMs: number }> {
  await mustMayTry(deps, request)
  const [found] = await deps.db
    .select()
    .from(person)
    .where(and(eq(person.name, request.name), eq(person.isActive, true)))
  const isRight = await verify(found?.passwordHash ?? (await NOBODY), request.password)
  if (!found?.passwordHash || !isRight) {
    await noteFailure(deps, request)
    throw new DomainError('wrong-password', 'That name and password do not go together.', ['Check both and try again.'])
  }
  return openSession(deps, found.id)
}

/** One's own password anew. Whatever else is signed in under that name is signed out; asked for twice it is done once. */
export async function changePassword(
  deps: Deps,
  who: Who,
  request: { old: string; password: string; from: string },
): Promise<{ token: string; expiresMs: number }> {
  const id = who.person?.id
  const [found] = id ? await deps.db.select().from(person).where(eq(person.id, id)) : []
  if (!found?.passwordHash)
    throw new DomainError('not-found', 'Nobody with a password is signed in here.', ['Ask the lead for one.'])
  const trying = { name: found.name, from: request.from }
  await mustMayTry(deps, trying)
  if (!(await verify(found.passwordHash, request.old)) && !(await verify(found.passwordHash, request.password))) {
    await noteFailure(deps, trying)
    throw new DomainError('wrong-password', 'That is not your password as it is now.', [
      'Type the old one again. Who has lost theirs gets a new one from the lead.',
    ])
  }
  const passwordHash = await hash(request.password)
  await transact(deps.db, async (tx) => {
    await tx.update(person).set({ passwordHash }).where(eq(person.id, found.id))
    await tx.delete(session).where(eq(session.personId, found.id))
  })
  return openSession(deps, found.id)
}

async function openSession(deps: Deps, personId: PersonId): Promise<{ token: string; expiresMs: number }> {
  const token = newToken()
  const expiresMs = deps.now() + SESSION_MS
  // Those that ran out long ago are of no use to anybody.
  await deps.db.delete(session).where(lt(session.expiresMs, deps.now() - SESSION_MS))
  await deps.db.insert(session).values({ tokenHash: digest(token), personId, expiresMs })
  return { token, expiresMs }
}

export async function signOut(deps: Deps, token: string | undefined): Promise<void> {
  if (token) await deps.db.delete(session).where(eq(session.tokenHash, digest(token)))
}

export async function me(deps: Deps, who: Who) {
  const [[only], [someLead], [demo], [aCell], [aBay]] = await Promise.all([
    deps.db.select().from(site),
    deps.db.select({ id: person.id }).from(person).where(isNotNull(person.passwordHash)).limit(1),
    deps.db.select().from(meta).where(eq(meta.key, 'demo')),
    deps.db.select({ id: station.id }).from(station).where(eq(station.classKey, 'cell')).limit(1),
    deps.db.select({ id: station.id }).from(station).where(eq(station.classKey, 'training')).limit(1),
  ])
  return {
    ...who,
    isNew: !someLead,
    isDemo: Boolean(demo),
    hasCells: Boolean(aCell),
    hasClasses: Boolean(aBay),
    shopName: only?.name ?? 'Idle Spool',
    zone: only?.zone ?? 'UTC',
    units: only?.units ?? ('metric' as const),
    currency: only?.currency ?? 'EUR',
  }
}

/** An empty shop gets its name and its first lead, once. */
export async function firstLead(
  deps: Deps,
  request: { shopName: string; zone: string; units: 'metric' | 'us'; name: string; password: string },
) {
  if (!isZone(request.zone))
    throw new DomainError('bad-request', `"${request.zone}" is no time zone this machine knows.`, [
      'Write it like Europe/Oslo or America/Chicago.',
    ])
  const passwordHash = await hash(request.password)
  const personId = makeId('person', deps.now(), deps.random)
  const isSetUp = new DomainError('already-set-up', 'This shop has a lead already.', ['Sign in instead.'])
  await transact(deps.db, async (tx) => {
    const [someLead] = await tx
      .select({ id: person.id })
      .from(person)
      .where(isNotNull(person.passwordHash))
      .limit(1)
      .for('update')
    if (someLead) throw isSetUp
    const currency = request.units === 'us' ? 'USD' : 'EUR'
    await seedShop(tx, { deps, name: request.shopName, zone: request.zone, units: request.units, currency })
    await tx.insert(person).values({ id: personId, name: request.name, role: 'lead', passwordHash })
  }).catch((problem: unknown) => {
    // There is one site: whoever comes second in the same moment finds it made.
    throw isDuplicate(problem) ? isSetUp : problem
  })
  return openSession(deps, personId)
}

export async function savePerson(
  deps: Deps,
  who: Who,
  request: {
    key: string
    id?: PersonId | undefined
    name: string
    role: Role
    password?: string | undefined
    isActive: boolean
  },
) {
  mustOwn(who)
  const isStillLead = request.isActive && request.role === 'lead'
  if (request.id === who.person?.id && !isStillLead)
    throw new DomainError('bad-request', 'You would lock yourself out.', ['Let another lead change this.'])
  const passwordHash = request.password ? await hash(request.password) : undefined
  const values = {
    name: request.name,
    role: request.role,
    isActive: request.isActive,
    ...(passwordHash ? { passwordHash } : {}),
  }
  return changing(deps, who, {
    key: request.key,
    change: { of: 'person', isNew: !request.id },
    work: async (tx) => {
      if (!request.id)
        return void (await tx.insert(person).values({ id: makeId('person', deps.now(), deps.random), ...values }))
      const [known] = await tx.select({ id: person.id }).from(person).where(eq(person.id, request.id)).for('update')
      if (!known) throw new DomainError('not-found', 'There is no such person.')
      await tx.update(person).set(values).where(eq(person.id, request.id))
      // A new password, or being switched off, ends what was signed in; switched on again one signs in anew.
      if (passwordHash || !request.isActive) await tx.delete(session).where(eq(session.personId, request.id))
    },
  })
}

/**
 * A one-time link that binds the device that opens it to a place; good for a day. Asked for again under the same key the
 * device is the same and only its link is new: the first one is known to nobody but its hash.
 */
export async function makeDeviceLink(
  deps: Deps,
  who: Who,
  request: { key: string; name: string; areaId?: AreaId | null | undefined; stationId?: StationId | null | undefined },
) {
  mustOwn(who)
  const token = newToken()
  const expiresMs = deps.now() + LINK_MS
  const link = { linkHash: digest(token), linkExpiresMs: expiresMs }
  const deviceId = await transact(deps.db, async (tx) => {
    await mustBeThere(tx, request)
    await tx
      .insert(device)
      .values({
        id: makeId('device', deps.now(), deps.random),
        name: request.name,
        areaId: request.areaId ?? null,
        stationId: request.stationId ?? null,
        linkKey: request.key,
        ...link,
      })
      .onDuplicateKeyUpdate({ set: link })
    const [made] = await tx.select().from(device).where(eq(device.linkKey, request.key))
    if (!made || made.tokenHash || !made.isActive)
      throw new DomainError('key-used', 'That device is bound already.', ['Ask for a link under a new name.'])
    return made.id
  })
  return { deviceId, path: `/link/${token}`, expiresMs }
}

/** The place or bay that a device is to belong to. */
async function mustBeThere(
  tx: Tx,
  { areaId, stationId }: { areaId?: AreaId | null | undefined; stationId?: StationId | null | undefined },
): Promise<void> {
  const [bay] = areaId ? await tx.select({ id: area.id }).from(area).where(eq(area.id, areaId)) : []
  const [place] = stationId ? await tx.select({ id: station.id }).from(station).where(eq(station.id, stationId)) : []
  if ((areaId && !bay) || (stationId && !place))
    throw new DomainError('not-found', 'There is no such place.', ['Choose one that is there.'])
}

export async function bindDevice(deps: Deps, token: string): Promise<{ token: string }> {
  const made = newToken()
  await transact(deps.db, async (tx) => {
    const [found] = await tx
      .select()
      .from(device)
      .where(and(eq(device.linkHash, digest(token)), eq(device.isActive, true)))
      .for('update')
    if (!found || (found.linkExpiresMs ?? 0) < deps.now())
      throw new DomainError('link-used', 'This link was used before, or is over a day old.', [
        'Ask the lead for a new one.',
      ])
    await tx
      .update(device)
      .set({ linkHash: null, linkExpiresMs: null, tokenHash: digest(made), boundMs: deps.now() })
      .where(eq(device.id, found.id))
  })
  return { token: made }
}

export const dropDevice = async (deps: Deps, who: Who, request: { key: string; deviceId: DeviceId }) => {
  mustOwn(who)
  return changing(deps, who, {
    key: request.key,
    change: { of: 'device' },
    work: async (tx) => {
      const [known] = await tx.select({ id: device.id }).from(device).where(eq(device.id, request.deviceId))
      if (!known) throw new DomainError('not-found', 'There is no such device.')
      const gone = { isActive: false, tokenHash: null, linkHash: null }
      await tx.update(device).set(gone).where(eq(device.id, request.deviceId))
    },
  })
}

export async function peopleLines(deps: Deps, who: Who) {
  if (who.person?.role !== 'lead' && who.person?.role !== 'instructor') return { people: [], devices: [] }
  const [people, devices, areas, stations] = await Promise.all([
    deps.db.select().from(person),
    deps.db.select().from(device),
    deps.db.select().from(area),
    deps.db.select().from(station),
  ])
  const placeName = (d: (typeof devices)[number]) =>
    stations.find((s) => s.id === d.stationId)?.name ?? areas.find((a) => a.id === d.areaId)?.name ?? 'the whole shop'
  return {
    people: people.map((p) => ({
      id: p.id,
      name: p.name,
      role: p.role,
      isActive: p.isActive,
      hasPassword: p.passwordHash !== null,
    })),
    devices: devices.map((d) => ({
      id: d.id,
      name: d.name,
      place: placeName(d),
      isBound: d.tokenHash !== null,
      isActive: d.isActive,
    })),
  }
}
