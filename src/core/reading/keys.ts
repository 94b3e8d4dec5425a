/** What is read on a gun, in path order. */
export const READINGS = [
  'hubDrag',
  'hubCoast',
  'conduitPull',
  'segmentPull',
  'wiper',
  'tension',
  'slip',
  'motorAmps',
  'gap',
  'pinHome',
  'orings',
  'layout',
  'pull',
  'toolCentre',
  'holes',
  'insulator',
  'continuity',
  'bore',
  'recess',
  'stickOut',
  'arcCone',
  'failedStarts',
  'centring',
  'nozzleOpen',
  'beforeReam',
  'afterReam',
  'agentTank',
  'gasFlow',
  'cylinder',
  'clamp',
] as const
export type ReadingKey = (typeof READINGS)[number]
/** How it was come by: with a tool, by eye or feel, or because somebody said so. */
export const HOWS = ['measured', 'looked', 'said'] as const
export type How = (typeof HOWS)[number]
/** Inside its window; worth another look; to be put right now. */
export const VERDICTS = ['good', 'look', 'act'] as const
export type ReadingVerdict = (typeof VERDICTS)[number]
export const READING_UNITS = [
  'mark',
  'N',
  'deg',
  'L/min',
  'L',
  'mm',
  'share',
  'amps',
  'friction',
  'coils',
  'tips',
  'bar',
] as const
export type ReadingUnit = (typeof READING_UNITS)[number]
