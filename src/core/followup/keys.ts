/** What is to be done after something else was. */
export const FOLLOW_UPS = [
  'tension',
  'freeFeed',
  'outlet',
  'seat',
  'orings',
  'linerCheck',
  'reamer',
  'neckStraight',
  'cableLook',
  'toolCentre',
  'deepClean',
] as const
export type FollowUp = (typeof FOLLOW_UPS)[number]
