import type { Content } from 'pdfmake/interfaces.js'
import { codedActs, codePath, PAGE_SLUG, type CodedAct, type CodePage } from '@core/logbook/actcode.ts'
import { type ShopModel, type StationRow } from '@server/shopmodel/model.ts'
import { MM, type Sheet } from './pdf.ts'

/** The acts a hand does at a booth, most often first; a card has room for nine. */
const ON_CARD = [
  'tip-changed',
  'nozzle-cleaned',
  'new-spool',
  'nozzle-changed',
  'liner-changed',
  'diffuser-changed',
  'down',
  'running',
  'all-looked-at',
]
const COLUMNS = 3
const CODE_MM = 36

/** One A4 card a booth: its number to be read across the aisle, a code that opens it, and codes that log. */
export function boothCards(stations: readonly StationRow[], shop: ShopModel, origin: string): Sheet['definition'] {
  const known = codedActs(shop.kinds)
  const acts = ON_CARD.flatMap((slug) => known.find((a) => a.slug === slug) ?? [])
  return {
    pageSize: 'A4',
    pageMargins: [14 * MM, 12 * MM, 14 * MM, 12 * MM],
    info: { title: `${shop.site.name}: booth cards` },
    content: stations.flatMap((s, i) => card(s, { acts, origin, shop, isLast: i === stations.length - 1 })),
  }
}

/** What a booth of learners has beside: the look before class, and the cards of right and wrong. */
const TAUGHT: readonly { page: CodePage; says: string }[] = [
  { page: 'pairs', says: 'right and wrong' },
  { page: 'beforeClass', says: 'before class' },
]

interface At {
  acts: readonly CodedAct[]
  origin: string
  shop: ShopModel
  isLast: boolean
}

function card(station: StationRow, at: At): Content[] {
  const area = at.shop.areas.find((a) => a.id === station.areaId)
  const url = (slug?: string) => `${at.origin}${codePath(station.name, slug)}`
  return [
    head(station, {
      areaName: area?.name ?? '',
      codes: [
        ...(station.classKey === 'training'
          ? TAUGHT.map(({ page, says }) => ({ code: url(PAGE_SLUG[page]), says }))
          : []),
        { code: url(), says: 'open' },
      ],
    }),
    { text: 'Scan what you did: it is logged.', fontSize: 16, margin: [0, 0, 0, 12] },
    ...rowsOf(at.acts, COLUMNS).map((row) => codeRow(row, url)),
    { ...foot(url('x2')), ...(at.isLast ? {} : { pageBreak: 'after' as const }) },
  ]
}

/** The name in figures 20 mm tall and more: read at the far side of a booth, and through spatter. */
const head = (
  station: StationRow,
  at: { areaName: string; codes: readonly { code: string; says: string }[] },
): Content => ({
  columns: [
    {
      width: '*',
      stack: [
        { text: station.name, fontSize: nameSize(station.name), bold: true, lineHeight: 0.9 },
        { text: `${station.placeWord}, ${at.areaName}`, fontSize: 14 },
      ],
    },
    ...at.codes.map(({ code, says }) => ({
      width: 'auto' as const,
      margin: [12, 0, 0, 0] as [number, number, number, number],
      stack: [
        { qr: code, fit: 30 * MM, eccLevel: 'Q' as const },
        { text: says, fontSize: 11, alignment: 'center' as const },
      ],
    })),
  ],
  margin: [0, 0, 0, 12],
})

const codeRow = (row: readonly CodedAct[], url: (slug: string) => string): Content => ({
  columns: row.map((act) => ({
    width: '*',
    stack: [
      { qr: url(act.slug), fit: CODE_MM * MM, eccLevel: 'Q', alignment: 'center' },
      { text: act.label, fontSize: 14, bold: true, alignment: 'center', margin: [0, 4, 0, 0] },
    ],
  })),
  margin: [0, 0, 0, 16],
})

const foot = (twice: string) => ({
  columns: [
    { width: 'auto', qr: twice, fit: 24 * MM, eccLevel: 'Q' as const },
    {
      width: '*',
      margin: [10, 6, 0, 0] as [number, number, number, number],
      stack: [
        { text: 'two of them', bold: true, fontSize: 14 },
        { text: 'Scan it after a change: the last one here was two.', fontSize: 11 },
        {
          text: 'Hot parts, wire ends and a live feeder: follow the site’s lock-out rule and the maker’s manual before you touch.',
          fontSize: 9,
          margin: [0, 6, 0, 0] as [number, number, number, number],
        },
      ],
    },
  ],
})

const nameSize = (name: string) => (name.length <= 4 ? 84 : name.length <= 8 ? 60 : 36)

export function rowsOf<T>(list: readonly T[], size: number): T[][] {
  return Array.from({ length: Math.ceil(list.length / size) }, (_, i) => list.slice(i * size, (i + 1) * size))
}

export interface Label {
  title: string
  sub: string
  code: string
}
const LABEL_COLUMNS = 3
const LABEL_ROWS = 8

/** Three by eight small labels an A4 sheet, each a code with its words beside it. */
export function labelSheet(labels: readonly Label[], title: string): Sheet['definition'] {
  const heightPt = ((297 - 20) / LABEL_ROWS) * MM
  const cells = rowsOf(labels, LABEL_COLUMNS).map((row) =>
    Array.from({ length: LABEL_COLUMNS }, (_, i) => {
      const label = row[i]
      return label ? labelCell(label) : { text: '' }
    }),
  )
  return {
    pageSize: 'A4',
    pageMargins: [8 * MM, 10 * MM, 8 * MM, 10 * MM],
    info: { title },
    content: [
      {
        layout: 'noBorders',
        table: {
          widths: Array.from({ length: LABEL_COLUMNS }, () => '*'),
          heights: heightPt - 5,
          dontBreakRows: true,
          body: cells,
        },
      },
    ],
  }
}

const labelCell = (label: Label): Content => ({
  columns: [
    { width: 26 * MM, qr: label.code, fit: 25 * MM, eccLevel: 'Q' },
    {
      width: '*',
      margin: [4, 4, 0, 0],
      stack: [
        { text: label.title, bold: true, fontSize: label.title.length <= 5 ? 28 : 16, lineHeight: 0.9 },
        { text: label.sub, fontSize: 9 },
      ],
    },
  ],
})
