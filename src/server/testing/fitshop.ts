import { NO_ID, type PartId, type StationId, type WireId } from '@core/ids/id.ts'
import { FEEDER, SHELF } from '@core/testing/sampleparts.ts'
import { ROLL_SETTINGS } from '@core/rightparts/facts.ts'
import { UNTOLD_FAMILY, UNTOLD_WIRE } from '@core/rightparts/untold.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { makePlaces, nextKey, type Client } from './client.ts'

/** A shop set up by hand with what fits what: the made-up bench's parts, a family, a feeder, four wires, a bay for 0.9 steel. */
export interface FitShop {
  ids: Map<string, StationId>
  part: (code: string) => PartId
  wire: (name: string) => WireId
  shop: ShopAnswer
}
export const STEEL = 'steel 0.9'
export const ALUMINIUM = 'alu 1.2'
export const CORED = 'gasless 1.2'

type Asker = Pick<Client, 'get' | 'post'>

/** What a shop is made of must be taken: else the test says what was refused, and not what it missed later. */
const sure = (lead: Asker): Asker => {
  const must = async <A extends { status: number; body: unknown }>(path: string, asked: Promise<A>): Promise<A> => {
    const answer = await asked
    if (answer.status >= 400) throw new Error(`${path} was answered ${answer.status}: ${JSON.stringify(answer.body)}`)
    return answer
  }
  return {
    get: (path) => must(path, lead.get(path)),
    post: (path, body) => must(path, lead.post(path, body)),
  }
}

export async function openFitShop(by: Asker, names: string, over: Record<string, unknown> = {}): Promise<FitShop> {
  const lead = sure(by)
  await insertKnown(lead)
  await insertWires(lead)
  await insertParts(lead)
  const shop = (await lead.get<ShopAnswer>('/shop')).body
  const part = (code: string) => shop.parts.find((p) => p.code === code)?.id ?? NO_ID
  const wire = (name: string) => shop.wires.find((w) => w.name === name)?.id ?? NO_ID
  const onIt = ['T9', 'RV0910', 'LS10', 'GI', 'GO', 'NZ', 'DF', 'IN']
  const ids = await makePlaces(lead, names, {
    built: {
      wireId: wire(STEEL),
      familyId: shop.families.find((f) => f.name === 'Kelp')?.id ?? NO_ID,
      feederTypeId: shop.feederTypes[0]?.id ?? null,
      rollCount: 4,
      cableM: 4,
      mode: 'short circuit',
      gas: 'argon mix',
      parts: Object.fromEntries(onIt.map((code) => [SHELF.find((p) => p.code === code)?.kindKey ?? NO_ID, part(code)])),
    },
    ...over,
  })
  return { ids, part, wire, shop: (await lead.get<ShopAnswer>('/shop')).body }
}

async function insertKnown(lead: Asker): Promise<void> {
  const kelp = { ...UNTOLD_FAMILY, neckMm: 150, linerHeldBy: 'set screw', linerRule: 'A', pin: 'long' }
  await lead.post('/shop/family', { key: nextKey(), name: 'Kelp', fit: kelp })
  await lead.post('/shop/family', { key: nextKey(), name: 'Reed' })
  const { id: _, name: __, ...fit } = FEEDER
  await lead.post('/shop/feedertype', { key: nextKey(), name: 'four-roll', fit: { ...fit, pin: 'long' } })
}

async function insertWires(lead: Asker): Promise<void> {
  for (const [name, construction, size, more] of [
    [STEEL, 'solid', '0.9', { pricePerKgMinor: 300 }],
    ['steel 1.0', 'solid', '1.0', {}],
    [ALUMINIUM, 'aluminium', '1.2', { alloy: 'aluminium 4xxx' }],
    [CORED, 'flux-cored', '1.2', { isSelfShielded: true }],
  ] as const)
    await lead.post('/shop/wire', {
      key: nextKey(),
      name,
      construction,
      size,
      densityGPerCm3: construction === 'aluminium' ? 2.66 : 7.85,
      spoolKg: 15,
      fit: { ...UNTOLD_WIRE, ...more },
    })
}

async function insertParts(lead: Asker): Promise<void> {
  const kelp = (await lead.get<ShopAnswer>('/shop')).body.families.find((f) => f.name === 'Kelp')?.id ?? NO_ID
  for (const p of SHELF)
    await lead.post('/shop/part', {
      key: nextKey(),
      code: p.code,
      name: p.name,
      kindKey: p.kindKey,
      familyId: p.familyId ? kelp : null,
      wireSize: p.sizeMm ? `${p.sizeMm} mm` : null,
      priceMinor: p.priceMinor,
      onHand: 5,
      fit: p.fit,
    })
}

/** What a look says of a gun that is as the bay, with what differs. */
export function lookOf(
  at: FitShop,
  name: string,
  but: { parts?: Record<string, string | null>; settings?: { name: string; value: string }[] } = {},
) {
  const bay = at.shop.areas[0]?.built.parts ?? {}
  const parts = { ...bay, ...but.parts }
  const rolls = ROLL_SETTINGS.map((roll) => ({ name: roll, value: '0.9' }))
  return {
    key: nextKey(),
    stationId: at.ids.get(name) ?? NO_ID,
    wireId: at.wire(STEEL),
    parts: Object.entries(parts).map(([position, partId]) => ({ position, partId })),
    settings: [...rolls.filter((r) => !but.settings?.some((s) => s.name === r.name)), ...(but.settings ?? [])],
  }
}
