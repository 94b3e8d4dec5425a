import type { Content } from 'pdfmake/interfaces.js'
import { newlyHeld } from '@core/guide/cautions.ts'
import { PANEL, type DrawingKey, type Ink, type Panel } from '@core/drawings/drawing.ts'
import { DRAWINGS } from '@core/drawings/all.ts'
import { type GuideAnswer, type GuideStep } from '@contract/guide.ts'
import { MM, type Sheet } from './pdf.ts'

/** How an outline is printed: ink on paper, dirt as hatching dark, the measure in black with ticks. */
const INK: Record<Ink, string> = {
  body: 'fill="#e4e4e4" stroke="#000" stroke-width="2.2"',
  cut: 'fill="#a8a8a8" stroke="#000" stroke-width="1.8"',
  hole: 'fill="#fff" stroke="#000" stroke-width="1.6"',
  wire: 'fill="none" stroke="#000" stroke-width="4.5"',
  line: 'fill="none" stroke="#000" stroke-width="1.4"',
  faint: 'fill="none" stroke="#777" stroke-width="1" stroke-dasharray="4 4"',
  measure: 'fill="none" stroke="#000" stroke-width="2.2"',
  dirt: 'fill="#333" stroke="#000" stroke-width="0.6"',
}
const FRAME = { right: 'stroke-width="3"', wrong: 'stroke-width="3" stroke-dasharray="9 6"', how: 'stroke-width="1"' }

export function panelSvg(panel: Panel): string {
  const { width, height } = PANEL
  const shapes = panel.shapes.map(({ ink, d }) =>
    ink === 'wire' && d.endsWith('Z') ? `<path d="${d}" fill="#000"/>` : `<path d="${d}" ${INK[ink]}/>`,
  )
  const labels = (panel.labels ?? []).map((l) => `<text x="${l.x}" y="${l.y}" font-size="14">${escaped(l.text)}</text>`)
  const frame = `<rect x="1.5" y="1.5" width="${width - 3}" height="${height - 3}" fill="none" stroke="#000" ${FRAME[panel.is]}/>`
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}">${shapes.join('')}${labels.join('')}${frame}</svg>`
}
const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;')

/** How small it is set so that all of it stands on one page, from the roomiest on. */
export const SIZES = [
  { font: 10.5, panelMm: 30 },
  { font: 9.5, panelMm: 26 },
  { font: 8.5, panelMm: 22 },
  { font: 7.6, panelMm: 18 },
  { font: 6.8, panelMm: 15 },
] as const
export type SheetSize = (typeof SIZES)[number]

const PAGE_MM = { width: 210, height: 297, margin: 11 }
const GAP_MM = 6
const COLUMN_MM = (PAGE_MM.width - 2 * PAGE_MM.margin - GAP_MM) / 2
const MARK = { right: 'right: ', wrong: 'wrong: ', how: '' }

/** A guide as one sheet of paper: two columns of steps, each with its caution where it first holds and its drawing. */
export function guideSheet(
  guide: GuideAnswer,
  at: { size: SheetSize; shift: number; shopName: string; date: string },
): Sheet {
  const { size } = at
  const blocks = guide.steps.map((step, i) => stepBlock(guide, { step, number: i + 1, size }))
  const half = splitAt(blocks.map((b) => b.heightMm)) + at.shift
  const column = (list: typeof blocks) => ({ width: '*', stack: list.map((b) => b.content) })
  const foot: Sheet['foot'] = {
    text: `${at.shopName}, ${at.date}. The maker’s manual and the site’s lock-out practice come before this sheet.`,
    fontSize: 7,
    margin: [PAGE_MM.margin * MM, 2 * MM, PAGE_MM.margin * MM, 0],
  }
  const definition: Sheet['definition'] = {
    pageSize: 'A4',
    pageMargins: [PAGE_MM.margin * MM, PAGE_MM.margin * MM, PAGE_MM.margin * MM, 12 * MM],
    defaultStyle: { fontSize: size.font, lineHeight: 1.05 },
    info: { title: `${guide.title}, ${guide.name}` },
    content: [
      sheetHead(guide, size),
      { columnGap: GAP_MM * MM, columns: [column(blocks.slice(0, half)), column(blocks.slice(half))] },
    ],
  }
  return { definition, foot }
}

function sheetHead(guide: GuideAnswer, size: SheetSize): Content {
  const along = [guide.put ? `${guide.put.name} (${guide.put.code})` : null, ...guide.tools].filter(Boolean).join(', ')
  const name = guide.stationId ? `on ${guide.name}` : `${guide.name} guns`
  return {
    stack: [
      { text: `${guide.title}, ${name}`, bold: true, fontSize: size.font * 1.9 },
      { text: [guide.familyName, guide.wireName].filter(Boolean).join(', ') },
      ...(along ? [{ text: `Take along: ${along}.` }] : []),
      ...(guide.own ? [{ text: guide.own.words, italics: true }] : []),
    ],
    margin: [0, 0, 0, size.font * 0.5],
  }
}

const CHAR = 0.5
const LINE = 1.28
const BESIDE_PANELS = 2
/** A step with its height as set, near enough to share the two columns out. A drawing of two stands beside its words. */
function stepBlock(
  guide: GuideAnswer,
  at: { step: GuideStep; number: number; size: SheetSize },
): { content: Content; heightMm: number } {
  const { step, number, size } = at
  const before = guide.steps[number - 2]
  const isNewPower = before?.power !== step.power && step.power !== 'either'
  const drawn = step.drawing ? drawingBlock(step.drawing, size) : null
  const isBeside = drawn !== null && drawn.panels <= BESIDE_PANELS
  const wordsMm = isBeside ? COLUMN_MM - drawn.widthMm - 2 : COLUMN_MM
  const said = stepWords(step, { number, before, size, widthMm: wordsMm })
  const below: Content[] = drawn && !isBeside ? [drawn.content] : []
  const body: Content = isBeside
    ? {
        columnGap: 2 * MM,
        columns: [
          { width: '*', stack: said.stack },
          { width: drawn.widthMm * MM, stack: [drawn.content] },
        ],
      }
    : { stack: [...said.stack, ...below] }
  const drawnMm = drawn?.heightMm ?? 0
  const powerMm = isNewPower ? (1.5 * size.font * LINE) / MM : 0
  return {
    heightMm:
      (isBeside ? Math.max(said.heightMm, drawnMm) : said.heightMm + drawnMm) + powerMm + (size.font * 0.35) / MM,
    content: {
      unbreakable: true,
      margin: [0, 0, 0, size.font * 0.35],
      stack: [...(isNewPower ? [powerLine(step)] : []), body],
    },
  }
}

const powerLine = (step: GuideStep): Content => ({
  text: step.power === 'on' ? 'POWER ON: LIVE' : 'POWER OFF',
  bold: true,
  margin: [0, 2, 0, 1],
})

/** What is done and looked for, and the caution where it first holds. */
function stepWords(
  step: GuideStep,
  at: { number: number; before: GuideStep | undefined; size: SheetSize; widthMm: number },
): { stack: Content[]; heightMm: number } {
  const { number, before, size } = at
  const cautions = newlyHeld(step.cautions, before?.cautions).map((c) => c.words)
  const words = `${number}. ${step.own?.isInstead ? step.own.words : step.do}`
  const more = [step.look, step.own && !step.own.isInstead ? step.own.words : null].filter(Boolean).join(' ')
  const perLine = (at.widthMm * MM) / (size.font * CHAR)
  const lines = [`${words} ${more}`, ...cautions].reduce((sum, t) => sum + Math.ceil(t.length / perLine), 0)
  return {
    heightMm: (lines * size.font * LINE) / MM,
    stack: [
      { text: [{ text: words, bold: true }, more ? ` ${more}` : ''] },
      ...cautions.map((text): Content => ({ text: `! ${text}`, italics: true })),
    ],
  }
}

function drawingBlock(
  key: DrawingKey,
  size: SheetSize,
): { content: Content; heightMm: number; widthMm: number; panels: number } {
  const { panels } = DRAWINGS[key]
  const widthMm = Math.min(size.panelMm, (COLUMN_MM - 2 * panels.length) / panels.length)
  const wordPt = size.font * 0.8
  const columns = panels.map((panel) => ({
    width: widthMm * MM,
    stack: [
      { svg: panelSvg(panel), width: widthMm * MM },
      { text: `${MARK[panel.is]}${panel.word}`, fontSize: wordPt },
    ],
  }))
  const most = Math.max(...panels.map((p) => Math.ceil(((p.word.length + 7) * wordPt * CHAR) / (widthMm * MM))))
  return {
    content: { columns, columnGap: 2 * MM, margin: [0, 1, 0, 0] },
    widthMm: panels.length * (widthMm + 2),
    panels: panels.length,
    heightMm: (widthMm * PANEL.height) / PANEL.width + (most * wordPt * LINE) / MM + 1,
  }
}

const HEAD_MM = 24
const COLUMN_HIGH_MM = PAGE_MM.height - PAGE_MM.margin - 12 - HEAD_MM
/** Heights are reckoned, not set: so much more still may fit. */
const NEARLY = 1.06
/** The sizes worth setting: from the roomiest that may fit by its reckoned height on. */
export function sizesFor(guide: GuideAnswer): readonly SheetSize[] {
  const from = SIZES.findIndex((size) => {
    const heights = guide.steps.map((step, i) => stepBlock(guide, { step, number: i + 1, size }).heightMm)
    const half = splitAt(heights)
    const sum = (list: readonly number[]) => list.reduce((s, h) => s + h, 0)
    return Math.max(sum(heights.slice(0, half)), sum(heights.slice(half))) <= COLUMN_HIGH_MM * NEARLY
  })
  return from < 0 ? SIZES.slice(-1) : SIZES.slice(from)
}

/** How far the end of the first column is moved where the reckoned one overflows. */
export const SHIFTS = [0, -1, 1, -2, 2] as const

/** Where the second column begins, so that the longer one is as short as can be. */
export function splitAt(heights: readonly number[]): number {
  const total = heights.reduce((s, h) => s + h, 0)
  let [best, bestAt, sum] = [Infinity, heights.length, 0]
  heights.forEach((h, i) => {
    sum += h
    const longer = Math.max(sum, total - sum)
    if (longer < best) [best, bestAt] = [longer, i + 1]
  })
  return bestAt
}
