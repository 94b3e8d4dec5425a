import { type KindKey } from '@core/path/columns.ts'

/** Temporary settings: tied on the path by the step that makes them, until one tap says it is back as it was. */
export const TAGS = [
  'brakeTight',
  'cylinderShut',
  'guideOut',
  'knobRaised',
  'armOpen',
  'partsKept',
  'polaritySwapped',
] as const
export type Tag = (typeof TAGS)[number]

export interface TagText {
  /** Where on the path it hangs. */
  at: KindKey
  says: string
  /** What the tap that unties it says. */
  back: string
  /** It goes with the wire that is on: kept in mind, not asked for. */
  isPartOfSetup?: boolean
}
export const TAG_TEXT: Record<Tag, TagText> = {
  brakeTight: { at: 'hub', says: 'hub brake tight', back: 'brake is back' },
  cylinderShut: { at: 'gas', says: 'cylinder shut', back: 'cylinder is open' },
  guideOut: { at: 'outlet', says: 'outlet guide out, kept for steel', back: 'guide is back in', isPartOfSetup: true },
  knobRaised: { at: 'rolls', says: 'knob raised to keep going', back: 'knob is back' },
  armOpen: { at: 'rolls', says: 'pressure arm open', back: 'arm is closed' },
  partsKept: { at: 'rolls', says: 'parts kept to go back on', back: 'they are on again', isPartOfSetup: true },
  polaritySwapped: { at: 'gas', says: 'current cables swapped', back: 'cables are back' },
}

/** Reminders that ask to be undone. */
export const isToUndo = (tag: Tag) => !TAG_TEXT[tag].isPartOfSetup
