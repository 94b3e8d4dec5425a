import { FEEDER, SHELF } from '@core/testing/sampleparts.ts'
import { UNTOLD_FAMILY, UNTOLD_WIRE } from '@core/rightparts/untold.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { makePlaces, nextKey, type Client } from './testserver.ts'

/** A shop set up by hand with what fits what: the made-up bench's parts, a family, a feeder, four wires, a bay for 0.9 steel. */
export interface FitShop {
  ids: Map<string, string>
  part: (code: string) => string
  wire: (name: string) => string
  shop: ShopAnswer
}
export const STEEL = 'steel 0.9'
export const ALUMINIUM = 'alu 1.2'
export const CORED = 'gasless 1.2'

export async function openFitShop(
  lead: Pick<Client, 'get' | 'post'>,
  names: string,
  over: Record<string, unknown> = {},
): Promise<FitShop> {
  await lead.post('/shop/family', {
    key: nextKey(),
    name: 'Kelp',
    fit: { ...UNTOLD_FAMILY, neckMm: 150, linerHeldBy: 'set screw', linerRule: 'A', pin: 'long' },
  })
  await lead.post('/shop/family', { key: nextKey(), name: 'Reed' })
  const { id: _, name: __, ...fit } = FEEDER
  await lead.post('/shop/feedertype', { key: nextKey(), name: 'four-roll', fit: { ...fit, pin: 'long' } })
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
  const first = (await lead.get<ShopAnswer>('/shop')).body
  const family = first.families.find((f) => f.name === 'Kelp')?.id ?? ''
  for (const p of SHELF)
    await lead.post('/shop/part', {
      key: nextKey(),
      code: p.code,
      name: p.name,
      kindKey: p.kindKey,
      familyId: p.familyId ? family : null,
      wireSize: p.sizeMm ? `${p.sizeMm} mm` : null,
      priceMinor: p.priceMinor,
      onHand: 5,
      fit: p.fit,
    })
  const shop = (await lead.get<ShopAnswer>('/shop')).body
  const part = (code: string) => shop.parts.find((p) => p.code === code)?.id ?? ''
  const wire = (name: string) => shop.wires.find((w) => w.name === name)?.id ?? ''
  const ids = await makePlaces(lead, names, {
    built: {
      wireId: wire(STEEL),
      familyId: family,
      feederTypeId: shop.feederTypes[0]?.id ?? null,
      rollCount: 4,
      cableM: 4,
      mode: 'short circuit',
      gas: 'argon mix',
      parts: Object.fromEntries(
        ['T9', 'RV0910', 'LS10', 'GI', 'GO', 'NZ', 'DF', 'IN'].map((code) => [
          SHELF.find((p) => p.code === code)?.kindKey ?? '',
          part(code),
        ]),
      ),
    },
    ...over,
  })
  return { ids, part, wire, shop: (await lead.get<ShopAnswer>('/shop')).body }
}

/** What a look says of a gun that is as the bay, with what differs. */
export function lookOf(
  at: FitShop,
  name: string,
  but: { parts?: Record<string, string | null>; settings?: { name: string; value: string }[] } = {},
) {
  const bay = at.shop.areas[0]?.built.parts ?? {}
  const parts = { ...bay, ...but.parts }
  const rolls = ['roll1', 'roll2', 'roll3', 'roll4'].map((roll) => ({ name: roll, value: '0.9' }))
  return {
    key: nextKey(),
    stationId: at.ids.get(name) ?? '',
    wireId: at.wire(STEEL),
    parts: Object.entries(parts).map(([position, partId]) => ({ position, partId })),
    settings: [...rolls.filter((r) => !but.settings?.some((s) => s.name === r.name)), ...(but.settings ?? [])],
  }
}
