import { type PartFacts, type Setup } from './facts.ts'
import { text, type Finding } from './finding.ts'

/**
 * That a part fits is only heard: it goes on a gun in a try-out, and nowhere else (P156). Its maker's word is worth knowing, no more. Tried and
 * confirmed here it says nothing.
 */
export const proofRules = (setup: Setup): Finding[] =>
  Object.values(setup.parts).flatMap((part) => (part ? (proofRule(part, setup.trying ?? []) ?? []) : []))

function proofRule(part: PartFacts, trying: readonly string[]): Finding | null {
  const proof = part.fit?.proof
  if (!proof || proof === 'confirmed') return null
  const isTried = trying.includes(part.id)
  return {
    rule: proof === 'rumour' ? 'fitRumour' : 'fitClaimed',
    severity: proof === 'rumour' && !isTried ? 'harms' : 'note',
    at: part.kindKey,
    found: text(part.code),
    wanted: text(proof),
    remedy: { do: 'ask' },
  }
}
