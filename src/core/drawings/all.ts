import { type Drawing, type DrawingKey } from './drawing.ts'
import { FEEDER } from './feeder.ts'
import { FRONT } from './front.ts'
import { LESSON } from './lesson.ts'
import { LINER } from './liner.ts'
import { SEEN } from './seen.ts'
import { SUPPLY } from './supply.ts'

export const DRAWINGS: Record<DrawingKey, Drawing> = { ...FRONT, ...LINER, ...FEEDER, ...SUPPLY, ...SEEN, ...LESSON }
