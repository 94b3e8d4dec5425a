import { useEffect, useState } from 'react'
import {
  BUILT,
  drawBuild,
  drawChange,
  rightBuild,
  type Build,
  type BuiltKey,
  type WireOn,
} from '@core/practice/hands.ts'
import { makeRandom } from '@core/random/random.ts'
import { wireSize, type Units } from '@web/format/numbers.ts'
import { capital, listed } from '@web/format/words.ts'
import { Key } from '@web/kit/Keys.tsx'
import { OrderDrill } from './HandsOrder.tsx'

export interface HandsProps {
  seed: number
  units: Units
  onAgain: () => void
}
const SECONDS = 10
const NAMES: Readonly<Record<BuiltKey, string>> = {
  ...{ rolls: 'rolls, all four', outlet: 'outlet guide', liner: 'liner', tip: 'contact tip', gas: 'gas' },
}
const METALS: Readonly<Record<string, string>> = {
  steel: 'solid steel',
  'aluminium 5xxx': 'aluminium',
  'flux-cored': 'flux-cored',
}
const wireWords = ({ material, diameterMm }: WireOn, units: Units) =>
  `${METALS[material] ?? material} ${wireSize(diameterMm, units)}`
/** What is stamped on each, as it is read. */
function stamped(build: Build, units: Units): Record<BuiltKey, string> {
  const size = (mm: number) => wireSize(mm, units)
  const [from, to] = build.liner.span
  return {
    rolls: `${build.rolls.groove} ${size(build.rolls.sizeMm)}`,
    outlet: size(build.outletMm),
    liner: `${build.liner.kind}, ${size(from)} to ${size(to)}`,
    tip: size(build.tipMm),
    gas: build.gas,
  }
}

/** One thing of five does not fit its wire: which, before the ten seconds are over. */
export function BuildDrill({ seed, units, onAgain }: HandsProps) {
  const [{ build, wrong }] = useState(() => drawBuild(makeRandom(seed)))
  const [picked, setPicked] = useState<BuiltKey | null>(null)
  const [left, setLeft] = useState(SECONDS)
  const isOver = picked !== null || left === 0
  useEffect(() => {
    if (isOver) return
    const timer = setInterval(() => setLeft((s) => Math.max(0, s - 1)), 1000)
    return () => clearInterval(timer)
  }, [isOver])
  const reads = stamped(build, units)
  const wants = stamped(rightBuild(build.wire), units)
  return (
    <>
      <h1 className="sentence">
        {isOver
          ? picked === wrong
            ? 'That was it.'
            : picked
              ? 'Not that one.'
              : 'Ten seconds are over.'
          : `On it: ${wireWords(build.wire, units)}. What does not fit?`}
      </h1>
      {isOver ? null : (
        <p className="minute-left" role="timer" aria-live="off">
          {left}
        </p>
      )}
      <div className="quiz-options" role="group" aria-label="Built so">
        {BUILT.map((k) => (
          <Key
            key={k}
            disabled={isOver}
            className={isOver && k === wrong ? 'is-right' : undefined}
            onClick={() => setPicked(k)}
          >
            {capital(NAMES[k])}: {reads[k]}
          </Key>
        ))}
      </div>
      {isOver ? (
        <p role="status" className="quiz-why">
          {capital(wireWords(build.wire, units))} wants {NAMES[wrong]} {wants[wrong]}; there was {reads[wrong]}.
        </p>
      ) : null}
      {isOver ? <Again onAgain={onAgain} /> : null}
    </>
  )
}
export const Again = ({ onAgain }: { onAgain: () => void }) => (
  <Key tone="chalk" autoFocus onClick={onAgain}>
    Another
  </Key>
)

/** Another wire on the same gun: all that has to change, ticked, and nothing else. */
export function ChangeDrill({ seed, units, onAgain }: HandsProps) {
  const [{ from, to, asks }] = useState(() => drawChange(makeRandom(seed)))
  const [picked, setPicked] = useState<readonly BuiltKey[]>([])
  const [isOver, setOver] = useState(false)
  const [reads, wants] = [stamped(from, units), stamped(rightBuild(to), units)]
  const missed = asks.filter((k) => !picked.includes(k))
  const needless = picked.filter((k) => !asks.includes(k))
  const isRight = missed.length === 0 && needless.length === 0
  const [isOrdered, setOrdered] = useState(false)
  if (isOrdered) return <OrderDrill {...{ seed, from, to, onAgain }} />
  return (
    <>
      <h1 className="sentence">
        {isOver
          ? isRight
            ? 'All of it, and nothing else.'
            : 'Not quite.'
          : `From ${wireWords(from.wire, units)} to ${wireWords(to, units)}: what has to change?`}
      </h1>
      <div className="quiz-options" role="group" aria-label="To change">
        {BUILT.map((k) => (
          <Key
            key={k}
            disabled={isOver}
            aria-pressed={picked.includes(k)}
            className={isOver && asks.includes(k) ? 'is-right' : undefined}
            onClick={() => setPicked(picked.includes(k) ? picked.filter((p) => p !== k) : [...picked, k])}
          >
            {picked.includes(k) ? '✓ ' : ''}
            {capital(NAMES[k])}: {reads[k]}
            {isOver && asks.includes(k) ? ` → ${wants[k]}` : ''}
          </Key>
        ))}
      </div>
      {isOver ? (
        <p role="status" className="quiz-why">
          {missed.length > 0 ? `Left as it was: ${listed(missed.map((k) => NAMES[k]))}. ` : ''}
          {needless.length > 0 ? `Changed for nothing: ${listed(needless.map((k) => NAMES[k]))}.` : ''}
          {asks.includes('rolls')
            ? ' Four rolls are four to change or turn: one left over slips or marks the wire.'
            : ''}
        </p>
      ) : (
        <Key tone="chalk" disabled={picked.length === 0} onClick={() => setOver(true)}>
          That is all
        </Key>
      )}
      {isOver ? (
        <Key tone="chalk" autoFocus onClick={() => setOrdered(true)}>
          Now the order
        </Key>
      ) : null}
    </>
  )
}
