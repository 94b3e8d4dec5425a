import Papa from 'papaparse'
import { type Id } from '@core/ids/id.ts'
import { sheetOf, type SheetLine } from '@core/stock/ordersheet.ts'
import { eq } from 'drizzle-orm'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { offer, partOrder, supplier } from '@server/db/schema.ts'
import { harmless } from '@server/logbook/csv.ts'
import { listFoot, MM, type Sheet } from '@server/print/pdf.ts'
import { pdfOf } from '@server/print/printer.ts'
import { DomainError } from '@server/problem/problem.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'

export interface OrderSheet {
  supplierName: string
  shopName: string
  day: string
  heads: string[]
  lines: string[][]
}
/** An order as it is sent: in the supplier's columns where they have some. */
export async function orderSheet(deps: Deps, who: Who, id: Id<'order'>): Promise<OrderSheet> {
  mustLead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const [order] = await deps.db.select().from(partOrder).where(eq(partOrder.id, id))
  const [from] = order ? await deps.db.select().from(supplier).where(eq(supplier.id, order.supplierId)) : []
  if (!order || !from) throw new DomainError('not-found', 'There is no such order.')
  const offers = new Map(
    (await deps.db.select().from(offer).where(eq(offer.supplierId, from.id))).map((o) => [o.partId, o]),
  )
  const lines = order.lines.map((l): SheetLine => {
    const [row, of] = [shop.partById.get(l.partId), offers.get(l.partId)]
    return {
      ...{ code: row?.code ?? '', name: row?.name ?? '', theirCode: of?.theirCode ?? null },
      ...{ quantity: l.quantity, packOf: of?.packOf ?? 1, eachMinor: l.eachMinor },
    }
  })
  const [heads = [], ...rows] = sheetOf(lines, from.columns ?? undefined)
  return {
    supplierName: from.name,
    shopName: shop.site.name,
    day: dayOf(shop.site.zone, order.orderedMs ?? 0),
    heads,
    lines: rows,
  }
}

export const orderCsv = ({ heads, lines }: OrderSheet): string =>
  Papa.unparse(
    [heads, ...lines].map((row) => row.map(harmless)),
    { newline: '\r\n' },
  )

/** The same on paper. */
export async function orderPdf(sheet: OrderSheet): Promise<Buffer> {
  const { supplierName, shopName, day, heads, lines } = sheet
  const definition: Sheet['definition'] = {
    pageSize: 'A4',
    pageMargins: [14 * MM, 16 * MM, 14 * MM, 16 * MM],
    defaultStyle: { fontSize: 10 },
    info: { title: `${shopName}: order, ${supplierName}, ${day}` },
    content: [
      { text: 'Order', fontSize: 16, bold: true },
      { text: `To ${supplierName}. From ${shopName}, ${day}.`, margin: [0, 4, 0, 10] },
      {
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: heads.map(() => 'auto'),
          body: [heads.map((text) => ({ text, bold: true })), ...lines],
        },
        layout: 'lines',
      },
    ],
  }
  return (await pdfOf({ definition, foot: listFoot(`${shopName}, ${day}`) })).pdf
}
