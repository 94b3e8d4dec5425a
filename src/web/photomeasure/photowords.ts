import { MOST_TILT_DEG, type BoreAnswer, type BoreMeasured } from '@core/photomeasure/bore.ts'

/** Why a picture tells nothing, and what to do about it. */
export const REFUSED: Record<Exclude<BoreAnswer, { ok: true }>['reason'], string> = {
  noBore: 'No round dark bore is found there. Tap its middle, or draw the inner ring on its rim.',
  noRim: 'The outer rim of the face is not seen whole. Take it with all of the face in it, on a darker ground.',
  blurred: 'It is blurred: the rim is guesswork. Hold still, let it focus, come closer.',
  tilted: `It is taken too much from the side (over ${MOST_TILT_DEG}°). Look straight into the bore.`,
  tooSmall: 'The tip is too small in it: a bore of a dozen pixels tells nothing. Come closer.',
}

/** "1.29 by 1.12 mm, each to 0.02; 15 % oval, give or take 2." */
export function boreSentence(m: BoreMeasured): string {
  const mm = (n: number) => n.toFixed(2)
  const percent = (share: number) => Math.round(share * 100)
  return `${mm(m.maxMm)} by ${mm(m.minMm)} mm, each to ${mm(Math.max(0.01, 1.96 * m.sdMm))}; ${percent(m.oval)} % oval, give or take ${Math.max(1, percent(1.96 * m.ovalSd))}.`
}

/** The limit lies within what it may be off: a person would look again. */
export const isClose = (m: BoreMeasured, limit: number) => Math.abs(m.oval - limit) < 1.96 * m.ovalSd
