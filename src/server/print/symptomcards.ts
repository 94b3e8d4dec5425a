import type { Column, Content } from 'pdfmake/interfaces.js'
import { CAUTIONS } from '@core/guide/cautions.ts'
import { DRAWINGS } from '@core/drawings/all.ts'
import { type Panel } from '@core/drawings/drawing.ts'
import { type Check } from '@core/diagnose/knowledge.ts'
import { panelSvg } from './guidesheet.ts'
import { MM, type Sheet } from './pdf.ts'

export interface SymptomCard {
  says: string
  /** The panel that shows it. */
  drawn: Panel | null
  looks: readonly Check[]
}
const PANEL_MM = 38
const ANSWER_MM = 25
const MARK = { right: 'right: ', wrong: 'wrong: ', how: '' } as const
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

/** Cards for the booth, one page a symptom: look at these first, right beside wrong; then ask. */
export function symptomCards(cards: readonly SymptomCard[], at: { shopName: string; date: string }): Sheet {
  const foot: Sheet['foot'] = {
    text: `${at.shopName}, ${at.date}. Power off by the site’s own lock-out practice before hands go in; the maker’s manual comes first. Then ask.`,
    fontSize: 7,
    margin: [10 * MM, 1 * MM, 10 * MM, 0],
  }
  const definition: Sheet['definition'] = {
    pageSize: 'A5',
    pageMargins: [10 * MM, 10 * MM, 10 * MM, 12 * MM],
    defaultStyle: { fontSize: 10 },
    info: { title: `${at.shopName}: look first` },
    content: cards.map((card, i): Content => cardOf(card, i > 0)),
  }
  return { definition, foot }
}

function cardOf({ says, drawn, looks }: SymptomCard, isLater: boolean): Content {
  return {
    ...(isLater ? { pageBreak: 'before' as const } : {}),
    stack: [
      {
        columns: [
          {
            width: '*',
            stack: [
              { text: capital(says), fontSize: 17, bold: true },
              { text: 'Look at these first, in this order.', margin: [0, 1, 0, 4] },
            ],
          },
          ...(drawn ? [pictured(drawn, ANSWER_MM, null)] : []),
        ],
      },
      ...looks.map((look, i) => lookOf(look, i + 1)),
    ],
  }
}

/** A panel, with words under it. */
function pictured(panel: Panel, widthMm: number, text: string | null): Column {
  const width = widthMm * MM * 0.75
  return { width, stack: [{ svg: panelSvg(panel), width }, ...(text ? [{ text, fontSize: 7 }] : [])] }
}

function lookOf(look: Check, number: number): Content {
  const panels = look.drawing ? DRAWINGS[look.drawing].panels : []
  // Where each answer has its own picture they stand in a row, else right stands beside wrong.
  const answers = look.outcomes.flatMap((o) => {
    const panel = o.panel === undefined ? undefined : panels[o.panel]
    return panel ? [pictured(panel, ANSWER_MM, o.says)] : []
  })
  const isDrawn = answers.length > 0
  const hazards = look.hazards.map((h) => CAUTIONS[h].words).join(' ')
  const words: Column = {
    width: '*',
    stack: [
      { text: `${number}  ${look.do}`, bold: true, fontSize: 12 },
      { text: look.how },
      ...(isDrawn ? [] : [{ text: look.outcomes.map((o) => o.says).join(' · '), italics: true }]),
      ...(hazards ? [{ text: hazards, fontSize: 8, margin: [0, 2, 0, 0] as [number, number, number, number] }] : []),
    ],
  }
  const beside = isDrawn ? [] : panels.slice(0, 2).map((p) => pictured(p, PANEL_MM, `${MARK[p.is]}${p.word}`))
  return {
    unbreakable: true,
    margin: [0, 3, 0, 3],
    stack: [
      { columnGap: 4 * MM, columns: [words, ...beside] },
      ...(isDrawn
        ? [{ columnGap: 2 * MM, margin: [0, 3, 0, 0] as [number, number, number, number], columns: answers }]
        : []),
    ],
  }
}
