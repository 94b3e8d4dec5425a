import { type Id } from '@core/ids/id.ts'
import { type Request, type Response } from 'express'
import { z } from 'zod'
import { sheetBack, sheetQuery } from '@server/ingest/giveback.ts'
import { calendarIcs } from '@server/calendar/icsout.ts'
import { logbookCsv } from '@server/logbook/csv.ts'
import { readPhoto } from '@server/photo/photos.ts'
import { guideQuery } from '@contract/guide.ts'
import { printGuide } from '@server/guide/guideprint.ts'
import { kitSheetQuery, orderSheetQuery } from '@contract/stock.ts'
import { kitPdf } from '@server/buying/kits.ts'
import { orderCsv, orderPdf, orderSheet } from '@server/buying/sheet.ts'
import { walkQuery } from '@contract/walk.ts'
import { type AllDeps } from './alldeps.ts'
import { askedBy, type Doors } from './doors.ts'
import { printWalk } from '@server/walk/print.ts'
import { print, printQuery } from '@server/print/prints.ts'
import { exportAll } from '@server/shop/whole.ts'
import { dayOf } from '@server/time/wall.ts'
import { printPairs } from '@server/classes/pairs.ts'
import { pairsPrintQuery } from '@contract/classes.ts'
import { printSymptoms, symptomsQuery } from '@server/down/print.ts'
import { type Who } from '@server/call/context.ts'

interface Asked {
  deps: AllDeps
  who: Who
  req: Request
  res: Response
}

/** What is no JSON: sheets, the whole shop, pictures, paper. */
export function giveFiles(doors: Doors, deps: AllDeps): void {
  const give = (path: `/${string}`, answer: (asked: Asked) => Promise<void>) =>
    doors.get(path, (req, res) => answer({ deps, who: askedBy(res), req, res }))
  give('/logbook.csv', csv)
  give('/calendar.ics', ics)
  give('/ingest/sheet.csv', sheet)
  give('/shop/whole.jsonl', whole)
  give('/photo/:file', picture)
  give('/print.pdf', printed)
  give('/print/guide.pdf', guided)
  give('/print/walk.pdf', walked)
  give('/print/symptoms.pdf', symptoms)
  give('/print/pairs.pdf', pairs)
  give('/parts/order.csv', orderedCsv)
  give('/parts/order.pdf', orderedPdf)
  give('/parts/kit.pdf', packed)
}

const csvQuery = z.object({ from: z.iso.date().optional(), to: z.iso.date().optional() })

async function csv({ deps, who, req, res }: Asked): Promise<void> {
  const { from, to } = csvQuery.parse(req.query)
  const today = dayOf('UTC', deps.now())
  const text = await logbookCsv(deps, who, { from: from ?? to ?? today, to: to ?? from ?? today })
  res.setHeader('content-type', 'text/csv; charset=utf-8')
  res.setHeader('content-disposition', `attachment; filename="logbook-${from ?? today}-${to ?? from ?? today}.csv"`)
  res.send(`\uFEFF${text}`)
}

async function ics({ deps, who, res }: Asked): Promise<void> {
  const text = await calendarIcs(deps, who)
  res.setHeader('content-type', 'text/calendar; charset=utf-8')
  res.setHeader('content-disposition', 'attachment; filename="calendar.ics"')
  res.send(text)
}

/** A picture never changes under its id, so a device may keep it; not a device in between. */
async function picture({ deps, who, req, res }: Asked): Promise<void> {
  const [, id = '', small] = /^(pic_\w+?)(-small)?\.jpg$/.exec(String(req.params['file'])) ?? []
  const jpeg = await readPhoto(deps, who, { id: id as Id<'photo'>, isSmall: small !== undefined })
  res.setHeader('cache-control', 'private, max-age=31536000, immutable')
  res.type('jpeg').send(jpeg)
}

function sendPdf(res: Asked['res'], pdf: Buffer, name: string): void {
  res.setHeader('content-type', 'application/pdf')
  res.setHeader('content-disposition', `inline; filename="${name}.pdf"`)
  res.send(pdf)
}

async function printed({ deps, who, req, res }: Asked): Promise<void> {
  const query = printQuery.parse(req.query)
  const origin = `${req.protocol}://${req.get('host') ?? 'localhost'}`
  const pdf = await print(deps, who, { query, origin })
  sendPdf(res, pdf, query.what)
}

async function guided({ deps, who, req, res }: Asked): Promise<void> {
  const { pdf, name } = await printGuide(deps, who, guideQuery.parse(req.query))
  sendPdf(res, pdf, name.replace(/[^\w ]/g, ''))
}

async function walked({ deps, who, req, res }: Asked): Promise<void> {
  const pdf = await printWalk(deps, who, walkQuery.parse(req.query))
  sendPdf(res, pdf, 'walk')
}

async function symptoms({ deps, who, req, res }: Asked): Promise<void> {
  const pdf = await printSymptoms(deps, who, symptomsQuery.parse(req.query))
  sendPdf(res, pdf, 'look-first')
}

async function pairs({ deps, who, req, res }: Asked): Promise<void> {
  sendPdf(res, await printPairs(deps, who, pairsPrintQuery.parse(req.query)), 'right-and-wrong')
}

async function orderedCsv({ deps, who, req, res }: Asked): Promise<void> {
  const order = await orderSheet(deps, who, orderSheetQuery.parse(req.query).id)
  res.setHeader('content-type', 'text/csv; charset=utf-8')
  res.setHeader('content-disposition', `attachment; filename="order-${order.day}.csv"`)
  res.send(`\uFEFF${orderCsv(order)}`)
}

async function orderedPdf({ deps, who, req, res }: Asked): Promise<void> {
  const order = await orderSheet(deps, who, orderSheetQuery.parse(req.query).id)
  sendPdf(res, await orderPdf(order), `order-${order.day}`)
}

async function packed({ deps, who, req, res }: Asked): Promise<void> {
  sendPdf(res, await kitPdf(deps, who, kitSheetQuery.parse(req.query).id), 'kit')
}

async function sheet({ deps, who, req, res }: Asked): Promise<void> {
  const query = sheetQuery.parse(req.query)
  const text = await sheetBack(deps, who, query)
  res.setHeader('content-type', 'text/csv; charset=utf-8')
  res.setHeader('content-disposition', `attachment; filename="${query.kind}${query.blank === '1' ? '-blank' : ''}.csv"`)
  res.send(`\uFEFF${text}`)
}

async function whole({ deps, who, res }: Asked): Promise<void> {
  res.setHeader('content-type', 'application/jsonl; charset=utf-8')
  res.setHeader('content-disposition', `attachment; filename="shop-${dayOf('UTC', deps.now())}.jsonl"`)
  await exportAll(deps, who, res)
  res.end()
}
