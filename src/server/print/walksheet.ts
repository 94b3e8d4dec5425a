import { type Position } from '@core/path/columns.ts'
import type { TableCell } from 'pdfmake/interfaces.js'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { lookMethod, WALKS } from '@core/walk/looks.ts'
import { READING } from '@core/reading/specs.ts'
import { type WalkAnswer, type WalkStop } from '@contract/walk.ts'
import { MM, type Sheet } from './pdf.ts'

const BOX = '[   ]'
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

/**
 * A walk on paper, in its order: a row for each thing that is looked at, its answers numbered as they are typed back, 0 for "didn't look";
 * what is due and what follows under it.
 */
export function walkSheet(
  walk: WalkAnswer,
  at: { shopName: string; date: string; partName: (position: Position) => string },
): Sheet {
  const foot: Sheet['foot'] = {
    text: `${at.shopName}, ${at.date}, page {page} of {pages}. Typed back on the page Walk, in this order.`,
    fontSize: 8,
    margin: [14 * MM, 0, 14 * MM, 0],
  }
  const definition: Sheet['definition'] = {
    pageSize: 'A4',
    pageMargins: [14 * MM, 12 * MM, 14 * MM, 14 * MM],
    defaultStyle: { fontSize: 10 },
    info: { title: `${at.shopName}: walk, ${WALKS[walk.walk].name}` },
    content: [
      {
        text: `Walk: ${WALKS[walk.walk].name}, ${Math.round(walk.taskMin + walk.walkMin)} min`,
        fontSize: 16,
        bold: true,
      },
      {
        margin: [0, 6, 0, 0],
        table: {
          headerRows: 0,
          dontBreakRows: true,
          widths: [52, 110, '*'],
          body: walk.stops.flatMap((s) => rowsOf(s, at.partName)),
        },
        layout: 'lines',
      },
    ],
  }
  return { definition, foot }
}

function rowsOf(stop: WalkStop, partName: (position: Position) => string): TableCell[][] {
  const looks = stop.looks.map(({ what }): [string, string] => {
    const answers = lookMethod(what).grades.map((g, i) => `${BOX} ${i + 1} ${g.says}`)
    return [capital(READING[what].name), [...answers, `${BOX} 0 didn’t look`].join('    ')]
  })
  const due = stop.wants.map((w): [string, string] => [
    `${w.act === 'clean' ? 'Clean' : w.act === 'look' ? 'Look at' : 'Change'}: ${partName(w.position)}`,
    `${BOX} done`,
  ])
  const follows = stop.followUps.map((f): [string, string] => [FOLLOW_UP_TEXT[f].do, `${BOX} done`])
  return [...looks, ...due, ...follows].map(([what, answers], i) => [
    { text: i === 0 ? stop.name : '', bold: true, fontSize: 12 },
    { text: what },
    { text: answers, fontSize: 9 },
  ])
}
