export const GUIDE_KEYS = [
  'tip',
  'nozzle',
  'insulator',
  'diffuser',
  'liner',
  'rolls',
  'guides',
  'orings',
  'gun',
  'wire',
  'tail',
  'nest',
  'plug',
  'cylinder',
  'machine',
  'antispatter',
] as const
export type GuideKey = (typeof GUIDE_KEYS)[number]

/** Guides that end with wire loaded. */
export const isLoading = (guide: GuideKey) => guide === 'wire' || guide === 'tail'

/** Pieces of work whose minutes are learnt: the guides, and a change of wire. */
export const TASK_KEYS = [...GUIDE_KEYS, 'change'] as const
export type TaskKey = (typeof TASK_KEYS)[number]
