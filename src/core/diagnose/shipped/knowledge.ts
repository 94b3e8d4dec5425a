import { type Knowledge } from '../knowledge.ts'
import { CAUSES } from './causes.ts'
import { CHECKS } from './checks.ts'
import { SYMPTOMS } from './symptoms.ts'

/** What ships: every number of it a guess, every part of it the shop's to change. */
export const SHIPPED: Knowledge = { symptoms: SYMPTOMS, causes: CAUSES, checks: CHECKS }
