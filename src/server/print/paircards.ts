import type { Column, Content } from 'pdfmake/interfaces.js'
import { DRAWINGS } from '@core/drawings/all.ts'
import { type DrawingKey } from '@core/drawings/drawing.ts'
import { panelSvg } from './guidesheet.ts'
import { MM, type Sheet } from './pdf.ts'

export interface PrintedPair {
  name: string
  right: string
  wrong: string
  why: string
  image: string | null
  drawing: DrawingKey
  source: string
  reviewedBy: string | null
  reviewedDay: string | null
  /** The shop’s own photo of a side, as a data address. */
  pictures: { right?: string; wrong?: string }
}
const SIDE_MM = 60
const PHOTO_MM = 45

/** Right beside wrong, a card a page: the drawing, the shop’s own photo, the words, and whose they are. */
export function pairCards(pairs: readonly PrintedPair[], at: { shopName: string; date: string }): Sheet {
  return {
    definition: {
      pageSize: 'A5',
      pageOrientation: 'landscape',
      pageMargins: [10 * MM, 9 * MM, 10 * MM, 12 * MM],
      defaultStyle: { fontSize: 11 },
      info: { title: `${at.shopName}: right and wrong` },
      content: pairs.map((pair, i): Content => cardOf(pair, i > 0)),
    },
    foot: {
      text: `${at.shopName}, ${at.date}. Power off by the site’s own lock-out practice before hands go in; the maker’s manual comes first.`,
      fontSize: 7,
      margin: [10 * MM, 1 * MM, 10 * MM, 0],
    },
  }
}

function cardOf(pair: PrintedPair, isLater: boolean): Content {
  const reviewed = pair.reviewedBy
    ? `, looked over by ${pair.reviewedBy} on ${pair.reviewedDay ?? ''}`
    : ', nobody here has looked it over yet'
  return {
    ...(isLater ? { pageBreak: 'before' as const } : {}),
    stack: [
      { text: pair.name, fontSize: 20, bold: true, margin: [0, 0, 0, 4] },
      { columnGap: 8 * MM, columns: [sideOf(pair, 'right'), sideOf(pair, 'wrong')] },
      { text: pair.why, margin: [0, 6, 0, 0] },
      ...(pair.image
        ? [{ text: `“${pair.image}”`, italics: true, margin: [0, 3, 0, 0] as [number, number, number, number] }]
        : []),
      { text: `Source: ${pair.source}${reviewed}.`, fontSize: 7, margin: [0, 5, 0, 0] },
    ],
  }
}

function sideOf(pair: PrintedPair, side: 'right' | 'wrong'): Column {
  const panel =
    DRAWINGS[pair.drawing].panels.find((p) => p.is === side) ?? DRAWINGS[pair.drawing].panels[side === 'right' ? 0 : 1]
  const picture = pair.pictures[side]
  return {
    width: '*',
    stack: [
      { text: side === 'right' ? 'RIGHT' : 'WRONG', bold: true },
      ...(panel ? [{ svg: panelSvg(panel), width: SIDE_MM * MM * 0.75 }] : []),
      ...(picture ? [{ image: picture, fit: [PHOTO_MM * MM, PHOTO_MM * MM * 0.75] as [number, number] }] : []),
      { text: pair[side], margin: [0, 3, 0, 0] as [number, number, number, number] },
    ],
  }
}
