import { anId } from '@core/testing/ids.ts'
import { NOTHING_OF_CELL, type CellFit } from '@core/rightparts/facts.ts'
import { type CellLine, type CellsAnswer } from '@contract/cell.ts'
import { NOW } from '@web/testing/samples.ts'

/** A cell as tests show it. */
export const BUILT: CellFit = {
  ...NOTHING_OF_CELL,
  ...{ payoff: 'drum', booster: 'electric', lockOut: 'Key in your pocket.' },
  conduit: [
    { name: 'drum to post', lengthM: 4, bends: 2, lining: 'polymer' },
    { name: 'along the arm', lengthM: 1.5, bends: 1, lining: 'rollers' },
  ],
}
export const aCell = (over: Partial<CellLine> = {}): CellLine => ({
  ...{ stationId: anId('station', 'stn_00c1'), name: 'Cell 1', areaName: 'Cells', wireName: 'steel 1.2' },
  ...{ familyName: 'Tarn', gunName: 'gun 1', cableM: 1.2, goesRound: true, neckId: anId('carrier', 'car_n1') },
  ...{ neckName: 'N1', neckSinceMs: NOW - 86_400_000, keepsCentre: true, isDown: false, cell: BUILT, own: {} },
  ...{ bladeMm: null, clampMm: null, misfits: [], todo: [], centre: null, limitMm: 0.5, isLimitGuess: true, pulls: [] },
  creeping: null,
  heat: null,
  turned: null,
  reamer: { blade: null, cutter: null, every: null, reams: null, tank: null, fails: null },
  ready: [{ neckId: anId('carrier', 'car_n4'), name: 'N4', verdict: { is: 'right', amiss: [], minutes: 0 } }],
  ...over,
})
export const cellsOf = (cells: CellLine[], over: Partial<CellsAnswer> = {}): CellsAnswer => ({
  ...{ nowMs: NOW, zone: 'UTC', currency: 'EUR', cells, bench: [], rounds: [], families: [] },
  ...over,
})
