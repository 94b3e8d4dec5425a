import { anId } from '@core/testing/ids.ts'
import { type AdviceLine, type OfferLine, type StockAnswer, type StockPart } from '@contract/stock.ts'

/** A shelf as the server tells of it. */
export const NOW = Date.UTC(2026, 10, 23, 9)
const DAY = 86_400_000

export const sampleOffer = (over: Partial<OfferLine> = {}): OfferLine => ({
  id: anId('offer', 'offer_1'),
  supplierId: anId('supplier', 'supp_1'),
  supplierName: 'By post',
  theirCode: 'P-4',
  packOf: 100,
  bands: [
    { from: 0, each: 64 },
    { from: 500, each: 52 },
  ],
  ...{ leadDays: 12, sdLeadDays: 3, leadBy: 'orders', isSure: true, quantity: 300 },
  ...{ minor: 20_600, standMinor: 90_000, chanceShort: 0.9 },
  ...over,
})
export const sampleAdvice = (over: Partial<AdviceLine> = {}): AdviceLine => ({
  ...{ supplierName: 'By post', offerId: anId('offer', 'offer_1'), leadDays: 12, point: 40, service: 0.98 },
  ...{ meanwhile: 28, quantity: 300, eachMinor: 64, orderInDays: 9, chanceShort: 0.01, tiedUpMinor: 11_000 },
  runsOut: { low: 18, middle: 22, high: 26 },
  ...{ yearMinor: 90_000, weekWithoutMinor: 400_000, shortMinor: 9000, bridge: null },
  ...over,
})
export const samplePart = (over: Partial<StockPart> = {}): StockPart => ({
  ...{ partId: anId('part', 'part_1'), code: 'T-10', name: 'tip 1.0', kindKey: 'tip', kindName: 'contact tip' },
  ...{ column: 'tip', familyName: 'Kite', wireSizeMm: 1, shelf: 'rack A', shelfMost: null },
  ...{ onHand: 50, countedMs: NOW - 3 * DAY, lies: [], packed: 0, likely: { mean: 50, low: 49, high: 51, share: 0.95 } },
  ...{ coming: [], inUse: 6, untold: 0, byClasses: null, by: 'lives', source: 'yours', seen: null },
  need: [
    { days: 7, mean: 16, low: 12, high: 20 },
    { days: 30, mean: 68, low: 58, high: 79 },
    { days: 90, mean: 204, low: 180, high: 230 },
  ],
  advice: sampleAdvice(),
  offers: [sampleOffer()],
  ...{ stands: ['Cell 1', 'Cell 2'], ready: 0 },
  ...over,
})
export const sampleStock = (parts: readonly StockPart[], over: Partial<StockAnswer> = {}): StockAnswer => ({
  ...{ nowMs: NOW, zone: 'UTC', currency: 'EUR', untilDays: null, parts: [...parts], orders: [] },
  suppliers: [
    { id: anId('supplier', 'supp_1'), name: 'By post', leadDays: 10, orderMinor: 1400, columns: null, learnt: null },
  ],
  ...{ tiedUpMinor: 0, fewer: [], orphans: [], stores: [] },
  ...over,
})
