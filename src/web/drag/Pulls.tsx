import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { frictionBy, frictionInterval, PULL_WAYS, type PullWay } from '@core/drag/pulls.ts'
import { CautionLines } from '@web/guide/CautionLines.tsx'
import { READING } from '@core/reading/specs.ts'
import { type DragAnswer } from '@contract/drag.ts'
import { newKey } from '@web/api/client.ts'
import { type Units } from '@web/format/numbers.ts'
import { useRead } from '@web/reading/queries.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { ForceList, readForces } from './ForceList.tsx'

const LIST_WORD: Record<(typeof PULL_WAYS)[PullWay][number], string> = {
  straightN: 'Cable dead straight',
  loopedN: 'One loop, as near the gun as it will lie',
  noneN: 'No loop',
  oneN: 'One loop',
  twoN: 'Two loops in the same place',
  straightLightN: 'Straight, light weight on the tail',
  straightHeavyN: 'Straight, heavy weight',
  loopedLightN: 'One loop, light weight',
  loopedHeavyN: 'One loop, heavy weight',
}
const WAY_WORD: Record<PullWay, string> = {
  pulls: 'straight and with a loop: quick, tells “at least”',
  threeLays: 'no, one and two loops: exact',
  weights: 'two weights on the tail: exact',
}
const WAYS = Object.keys(PULL_WAYS) as PullWay[]
const WHY_NOT = {
  missing: '',
  pullTooSmall: 'The straight pull is under 2 N: that is the brake, not the liner. Snug the hub brake for the test.',
  notHarder: 'It pulled no harder with the loop. Lay the loop as near the gun as it will lie, and pull slowly.',
} as const

/** The feel of a liner as a number: pulls in two lays, what they tell and how sure, kept with the gun. */
export function Pulls({ drag, units, onDone }: { drag: DragAnswer; units: Units; onDone: () => void }) {
  const [way, setWay] = useState<PullWay>('pulls')
  const [texts, setTexts] = useState<Record<string, string>>({})
  const [key] = useState(newKey)
  const read = useRead()
  const lists = Object.fromEntries(PULL_WAYS[way].map((k) => [k, readForces(texts[k] ?? '', units).forcesN]))
  const made = frictionBy(way, lists, 1)
  const [method] = READING.pull.methods.filter((m) => m.key === way)
  return (
    <main className="drag pulls">
      <h1 className="sentence">Friction of {drag.name}’s liner, by pulling.</h1>
      <PickOne
        id="pull-way"
        label="Way"
        value={way}
        options={WAYS.map((w) => [w, WAY_WORD[w]] as const)}
        onPick={(w) => setWay(w)}
      />
      <ol className="pull-steps">
        <li>Tip off, pressure arm open, wire still on the spool with its usual brake.</li>
        <li>Hook a spring scale on the wire at the gun; pull slowly and steadily, read while it moves.</li>
        <li>Three pulls in each lay. Same tail, same place of the loop; then the arm closed to where it was.</li>
      </ol>
      <CautionLines className="caution-line" hazards={method?.hazards ?? []} />
      <div className="pull-lists">
        {PULL_WAYS[way].map((k) => (
          <ForceList
            key={k}
            id={`pull-${k}`}
            label={LIST_WORD[k]}
            units={units}
            text={texts[k] ?? ''}
            onText={(text) => setTexts({ ...texts, [k]: text })}
          />
        ))}
      </div>
      <p className="pull-result" role="status">
        {made.ok ? frictionSentence(made, way) : WHY_NOT[made.reason]}
      </p>
      <Trouble problem={read.error} />
      <div className="guide-keys">
        <Key
          tone="chalk"
          disabled={!made.ok || read.isPending}
          onClick={() =>
            read.mutate(
              {
                key,
                stationId: drag.stationId,
                what: 'pull',
                method: way,
                how: 'measured',
                from: { ...lists, loops: 1 },
              },
              { onSuccess: onDone },
            )
          }
        >
          Keep it with the gun
        </Key>
        <Key onClick={onDone}>Leave it</Key>
      </div>
    </main>
  )
}

/** "Friction 0.14 (0.13 to 0.16) at least." With single pulls nobody can tell how sure. */
export function frictionSentence(made: Parameters<typeof frictionInterval>[0], way: PullWay): string {
  const interval = frictionInterval(made)
  const sure = interval
    ? ` (${interval.low.toFixed(2)} to ${interval.high.toFixed(2)}, 19 in 20)`
    : '; from single pulls nobody can tell how sure'
  const least = way === 'pulls' ? ' At least: what drags after the loop is not counted.' : ''
  const coil = Math.exp(2 * Math.PI * made.friction)
  return `Friction ${made.friction.toFixed(2)}${sure}. Every coil multiplies the force by ${coil.toFixed(1)}.${least} It is of the whole gun, neck and all.`
}
