import { type GunAnswer } from '@contract/gun.ts'
import { capital, partName } from '@web/format/words.ts'

/** A try-out that runs here: what this place was dealt, for whoever puts the next one on. */
export function TriedHere({ gun }: { gun: Pick<GunAnswer, 'tryouts'> }) {
  if (gun.tryouts.length === 0) return null
  return (
    <section className="tried-here" aria-label="Try-out">
      {gun.tryouts.map((t) => (
        <p key={`${t.kindKey} ${t.question}`}>
          <strong>{triedWords(t)}</strong> <span className="dim">{t.question} Drawn by lot: please keep to it.</span>
        </p>
      ))}
    </section>
  )
}
/** "Try-out, nozzle: this place has plated." */
export const triedWords = ({ kindKey, gets }: GunAnswer['tryouts'][number]): string =>
  `Try-out, ${partName(kindKey)}: here it is ${capital(gets)}.`
