import { lazy, Suspense, useState } from 'react'
import { BEAD_S, ROWS_PER_S } from '@core/practice/bead.ts'
import { BEAD_MIN } from '@core/practice/drill.ts'
import { SOUND_WORDS } from '@core/practice/sound.ts'
import { spanWords } from '@web/down/downwords.ts'
import { wireSpeed, twoFigures, type Units } from '@web/format/numbers.ts'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { type Bead } from './boothasked.ts'
import { isMuted, mute } from './sound.ts'
import { BeadShown } from './BeadShown.tsx'

const Traces = lazy(async () => ({ default: (await import('./Traces.tsx')).Traces }))

/** The last bead: on its plate, on the meters, and in words of what is heard. */
export function BeadDesk(props: {
  bead: Bead | null
  atS: number | null
  units: Units
  isOver: boolean
  onPull: () => void
}) {
  const { bead, atS, units, isOver, onPull } = props
  const [isTraced, setTraced] = useState(false)
  const [isOff, setOff] = useState(isMuted)
  const now = bead?.captions.findLast((c) => c.fromS <= (atS ?? BEAD_S))
  const row = Math.min((bead?.trace.volts.length ?? 1) - 1, Math.floor((atS ?? 2.5) * ROWS_PER_S))
  const read = (column: 'volts' | 'amps' | 'rollsMmS') => around(bead?.trace[column], row)
  return (
    <section className="bead-desk" aria-label="The last bead">
      {bead ? <BeadShown picture={bead.picture} atS={atS} /> : <div className="bead-shown" />}
      <p className="bead-heard" aria-live="polite">
        {now ? `Heard: ${SOUND_WORDS[now.sound]}` : ' '}
      </p>
      {bead ? (
        <p className="bead-meters">
          <span>{Math.round(read('volts'))} V</span> <span>{Math.round(read('amps'))} A</span>{' '}
          <span>{wireSpeed(Number(twoFigures((read('rollsMmS') * 60) / 1000)), units)}</span>
        </p>
      ) : null}
      <div className="bead-keys">
        {isOver ? null : (
          <Key tone="chalk" disabled={!bead || atS !== null} onClick={onPull}>
            Pull the trigger <small>{spanWords(BEAD_MIN)}</small>
          </Key>
        )}
        {bead ? (
          <Bare aria-expanded={isTraced} onClick={() => setTraced(!isTraced)}>
            {isTraced ? 'close the traces' : 'traces'}
          </Bare>
        ) : null}
        <Bare
          aria-pressed={isOff}
          onClick={() => {
            mute(!isOff)
            setOff(!isOff)
          }}
        >
          {isOff ? 'sound is off' : 'sound is on'}
        </Bare>
      </div>
      {bead && isTraced ? (
        <Suspense fallback={null}>
          <Traces trace={bead.trace} gas={bead.gas} units={units} />
        </Suspense>
      ) : null}
    </section>
  )
}
const SPAN = 40
/** The mean about a row: a needle does not follow every short. */
function around(column: Float32Array | undefined, row: number): number {
  const near = column?.slice(Math.max(0, row - SPAN), row + SPAN) ?? new Float32Array(1)
  return near.reduce((a, b) => a + b, 0) / Math.max(1, near.length)
}
