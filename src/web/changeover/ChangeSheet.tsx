import { newCautions } from '@web/guide/GuideSheet.tsx'
import { Link } from 'react-router'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { type ChangeAnswer, type GunChange } from '@contract/changeover.ts'
import { type Units } from '@web/format/numbers.ts'
import { capital, listed, partName } from '@web/format/words.ts'
import { findingSentence, SETTING_WORD, settingWords } from '@web/rightparts/words.ts'
import { type SettingName } from '@core/rightparts/facts.ts'
import { isStuck } from '@web/guide/walk.ts'
import { byPower } from '@web/guide/guidewords.ts'
import { costSentence } from './changewords.ts'

/** What the change takes, before anybody picks up a tool: what to fetch, what swaps, what stays, and in which order. */
export function ChangeSheet(props: {
  change: ChangeAnswer
  units: Units
  isScrapped: boolean | null
  onScrapped: (isScrapped: boolean) => void
  onWalk: (stationId: string) => void
}) {
  const { change } = props
  const [only] = change.guns
  return (
    <>
      <Fetch change={change} />
      {only && change.guns.length === 1 && only.fromWire === change.toWire ? (
        <p className="said">
          That wire is on. Its tail still in the gun, straight and clean:{' '}
          <Link to={`/guide?gun=${only.stationId}&do=tail`}>the short way, behind its tail</Link>.
        </p>
      ) : null}
      <p className="small-print">
        Wire in the cable:{' '}
        <Bare aria-pressed={props.isScrapped === true} onClick={() => props.onScrapped(props.isScrapped !== true)}>
          {props.isScrapped ? 'binned (kinked, nested or old)' : 'wound back'}
        </Bare>
      </p>
      {change.guns.map((g) => (
        <GunSheet key={g.stationId} gun={g} change={change} units={props.units} onWalk={props.onWalk} />
      ))}
      {change.guns.length === 1 && only ? <Order gun={only} /> : null}
    </>
  )
}

const shelfWord = ({ onHand, wanted }: ChangeAnswer['parts'][number]): string => {
  if (onHand === null) return 'not counted'
  if (onHand <= 0) return 'none on the shelf by the count'
  return onHand < wanted ? `only ${onHand} on the shelf` : `${onHand} on the shelf`
}

/** Parts the wire decides about. */
const BY_WIRE = ['rolls', 'liner', 'tip'] as const

function Fetch({ change }: { change: ChangeAnswer }) {
  if (change.parts.length === 0) {
    const untold = BY_WIRE.filter((kind) => change.guns.some((g) => g.unknown.includes(kind)))
    return (
      <p className="said">
        {untold.length === 0
          ? 'No part has to be fetched.'
          : `Look first whether ${listed(untold.map(partName))} must be fetched: nobody has noted which is on.`}
      </p>
    )
  }
  return (
    <section aria-label="To fetch">
      <h2>Take along</h2>
      <ul className="plain">
        {change.parts.map((p) => (
          <li key={p.partId} className={p.onHand !== null && p.onHand < p.wanted ? 'is-short' : ''}>
            <strong>{p.wanted} ×</strong> {p.code} {p.name} <span className="dim">{shelfWord(p)}</span>
          </li>
        ))}
      </ul>
    </section>
  )
}

function GunSheet(props: { gun: GunChange; change: ChangeAnswer; units: Units; onWalk: (stationId: string) => void }) {
  const { gun, units } = props
  const settings = Object.entries(gun.settings) as [SettingName, string][]
  const other = settings.filter(([name]) => !name.startsWith('roll'))
  return (
    <section className="gun-change" aria-label={gun.name}>
      <div className="gun-change-head">
        <h2>{gun.name}</h2>
        <span className="dim">from {gun.fromWire ?? 'a wire nobody has named'}</span>
        <Key size="low" tone="chalk" disabled={isStuck(gun)} onClick={() => props.onWalk(gun.stationId)}>
          Step by step
        </Key>
      </div>
      <ul className="plain">
        {gun.swaps.map((s) => (
          <li key={s.kindKey} className={s.to ? '' : 'is-short'}>
            {capital(partName(s.kindKey))}: {s.from?.code ?? 'what is on'} →{' '}
            <strong>{s.to?.code ?? 'the shop has none that fits'}</strong>
            {s.isKept && s.to ? <span className="dim">, the old one is put by.</span> : null}
            <span className="dim"> {findingSentence(s.because, units)}</span>
          </li>
        ))}
        {gun.turns && !gun.swaps.some((s) => s.kindKey === 'rolls') ? (
          <li>
            Rolls {gun.turns.rolls.join(', ')}: turned, {settingWords('roll1', String(gun.turns.readMm), units)} out
          </li>
        ) : null}
        {gun.outletGuide === 'out' ? <li>Outlet guide: out, and kept</li> : null}
        {gun.outletGuide === 'back' ? <li>Outlet guide: back in</li> : null}
        {other.map(([name, value]) => (
          <li key={name}>
            {capital(SETTING_WORD[name])}: {settingWords(name, value, units)}
          </li>
        ))}
      </ul>
      {gun.alsoDue.length > 0 ? (
        <p>
          While it is open:{' '}
          {gun.alsoDue.map((d) => `${partName(d.position)} (${d.state === 'due' ? 'due' : 'to look at'})`).join(', ')}.
        </p>
      ) : null}
      {gun.stays.length > 0 ? <p className="small-print">Stays: {gun.stays.map((p) => p.code).join(', ')}.</p> : null}
      {gun.unknown.length > 0 ? (
        <p className="small-print">
          Nobody knows what is on as {gun.unknown.map(partName).join(', ')}: look before you begin.
        </p>
      ) : null}
      {gun.left.map((f) => (
        <p key={`${f.rule} ${f.at}`} className="finding is-wrong">
          Still wrong afterwards: {findingSentence(f, units)}
        </p>
      ))}
      <p className="small-print">
        {isStuck(gun)
          ? 'It waits for what is missing: no step of it is begun before that is here.'
          : capital(costSentence(gun, units, props.change.currency))}
      </p>
    </section>
  )
}

/** The whole order on one sheet, for who would rather read it once. */
function Order({ gun }: { gun: GunChange }) {
  return (
    <section className="order" aria-label="The order of it">
      <h2>The order of it</h2>
      <div className="order-columns">
        {byPower(gun.steps).map(({ word, from, steps }) => (
          <div key={from}>
            <h3>{capital(word)}</h3>
            <ol start={from}>
              {steps.map((s) => (
                <li key={s.key}>
                  {s.do}
                  {newCautions(gun.steps, s).map((c) => (
                    <span key={c.hazard} className="dim">
                      {' '}
                      {c.words}
                    </span>
                  ))}
                </li>
              ))}
            </ol>
          </div>
        ))}
      </div>
    </section>
  )
}
