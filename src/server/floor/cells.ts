import { COLUMNS, type Column } from '@core/path/columns.ts'
import { isWorse, STATES } from '@core/floor/state.ts'
import { type FloorCell, type FloorWant } from '@contract/floor.ts'
import { type SurveyedPosition } from './judge.ts'
import { type Surveyed } from './survey.ts'

/** The wants that open a row: due before the window. */
export function openWants(surveyed: Surveyed): FloorWant[] {
  return surveyed.positions.flatMap((p) => {
    if (p.verdict.state !== 'due' || p.verdict.act === 'look') return []
    const want = p.verdict.act === 'clean' ? p.clean : p.change
    return want ? [want] : []
  })
}

/** The soonest limit still ahead, for "next: A5 tip, about 13:00". */
export function nextWant(surveyed: Surveyed, nowMs: number): FloorWant | null {
  let soonest: FloorWant | null = null
  for (const p of surveyed.positions)
    for (const want of [p.change, p.clean]) {
      if (!want || want.act === 'look' || want.reachedMs === null || want.reachedMs <= nowMs || want.shiftsOver > 0)
        continue
      if (!soonest || want.reachedMs < (soonest.reachedMs ?? 0)) soonest = want
    }
  return soonest
}

/** In one column, the limit that is furthest gone. */
export function wantInColumn(surveyed: Surveyed, column: Column): FloorWant | null {
  const wants = surveyed.positions
    .filter((p) => p.kind.column === column)
    .flatMap((p) => [p.change, p.clean])
    .filter((w): w is FloorWant => w !== null)
  return wants.reduce<FloorWant | null>(
    (most, w) => (!most || w.used / w.limit > most.used / most.limit ? w : most),
    null,
  )
}

/** One cell per column of the path: the worst of its positions. Without any the gun has no such part. */
export function cellsOf(surveyed: Surveyed): FloorCell[] {
  const worst = new Map<Column, SurveyedPosition>()
  for (const p of surveyed.positions) {
    const known = worst.get(p.kind.column)
    if (!known || isWorse(p.verdict.state, known.verdict.state)) worst.set(p.kind.column, p)
  }
  return COLUMNS.map((column) => cellOf(worst.get(column)))
}

function cellOf(worst: SurveyedPosition | undefined): FloorCell {
  if (!worst) return [STATES.indexOf('absent'), 0, 0, 0]
  const want = worst.verdict.act === 'clean' ? worst.clean : worst.change
  const due = worst.verdict.due
  const used = due ? Math.round(Math.min(due.usedFraction, 9.99) * 100) / 100 : 0
  const isHollow = (due?.estimatedShare ?? 0) > 0.5
  return [STATES.indexOf(worst.verdict.state), used, isHollow ? 1 : 0, Math.round((want?.shiftsOver ?? 0) * 10) / 10]
}
