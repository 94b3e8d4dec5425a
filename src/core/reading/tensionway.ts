import { type SchoolOf } from '@core/houserule/schools.ts'

/** The way of reading the tension that goes with each way of setting it (D02). */
export const TENSION_WAY: Record<SchoolOf<'D02'>, string> = {
  block: 'block',
  slack: 'wood',
  pinch: 'gloved',
  pinchBare: 'pinch',
  mark: 'knob',
  ear: 'ear',
}
