import { eq, inArray } from 'drizzle-orm'
import { makeId } from '@core/ids/id.ts'
import { device, feeder, station, stationNow } from '@server/db/schema.ts'
import { transact, type Tx } from '@server/db/db.ts'
import { type Deps } from '@server/call/context.ts'
import { standInToken } from '@server/shop/feeders.ts'
import { digest } from '@server/people/people.ts'
import { HANDS_TABLET, STAND_IN } from './yard.ts'

/** The demo's feeders that send their own counts: their tokens come from the secret that the stand-in was started with too. */
export async function connectStandIn(deps: Deps, secret: string): Promise<void> {
  await transact(deps.db, async (tx) => {
    const places = await tx
      .select()
      .from(station)
      .where(
        inArray(
          station.name,
          STAND_IN.map((s) => s.place),
        ),
      )
    for (const { place, equipmentId } of STAND_IN) {
      const at = places.find((p) => p.name === place)
      const [now] = at
        ? await tx
            .select()
            .from(stationNow)
            .where(inArray(stationNow.stationId, [at.id]))
        : []
      if (!now?.headId) continue
      const values = { headId: now.headId, tokenHash: digest(standInToken(secret, equipmentId)) }
      await tx
        .insert(feeder)
        .values({ equipmentId, ...values })
        .onDuplicateKeyUpdate({ set: values })
    }
    await tabletOfHands(tx, deps, digest(standInToken(secret, HANDS_TABLET)))
  })
}

/** The tablet that the yard's people log on; put away by the lead it stays away, and they log no more. */
async function tabletOfHands(tx: Tx, deps: Deps, tokenHash: string): Promise<void> {
  const [known] = await tx.select().from(device).where(eq(device.name, HANDS_TABLET))
  if (known && !known.isActive) return
  if (known) return void (await tx.update(device).set({ tokenHash }).where(eq(device.id, known.id)))
  const id = makeId('device', deps.now(), deps.random)
  await tx.insert(device).values({ id, name: HANDS_TABLET, tokenHash, boundMs: deps.now() })
}
