import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { type Knowledge } from '@core/diagnose/knowledge.ts'
import { type Scenario } from '@core/practice/drill.ts'
import { type BoothSetup } from '@core/practice/rig.ts'
import { USUAL_BOOTHS } from '@core/practice/setups.ts'
import { skillsOf } from '@core/practice/skill.ts'
import { type PracticeAnswer } from '@contract/practice.ts'
import { newKey } from '@web/api/client.ts'
import { dayKey } from '@web/format/times.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { Key } from '@web/kit/Keys.tsx'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { useIsLead } from '@web/people/queries.ts'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { keepDrill, readDrill, readPlayed } from './kept.ts'
import { HandsKeys } from './HandsPage.tsx'
import { FromFile } from './FromFile.tsx'
import { GroupSkill } from './GroupSkill.tsx'
import { faultWords } from './practicewords.ts'
import { indexed, isWaiting, usePractice } from './queries.ts'
import { SetDrills } from './SetDrills.tsx'
import { useBoothWorker, type AskBooth } from './useBoothWorker.ts'

/** The entrance: what to meet next, and what one knows of it so far. */
export function PracticePage() {
  const practice = usePractice()
  const isLead = useIsLead()
  const isPhone = useIsPhone()
  const navigate = useNavigate()
  const ask = useBoothWorker(practice.data?.knowledge as Knowledge | undefined)
  // Without a link there is what ships: nobody waits for a server to practise.
  if (isWaiting(practice)) return <main className="practice" aria-busy="true" />
  const setups = [...((practice.data?.setups ?? []) as BoothSetup[]), ...USUAL_BOOTHS]
  return (
    <main className="practice">
      <h1 className="sentence">{entranceWords(readPlayed().length)}</h1>
      <Entrance {...{ setups, ask }} practice={practice.data} />
      <section aria-label="For the hands">
        <h2>Two minutes for the hands</h2>
        <HandsKeys onPick={(what) => void navigate(`/practice/hands?what=${what}`)} />
      </section>
      <OwnSkill knowledge={practice.data?.knowledge as Knowledge | undefined} />
      {isLead && practice.data ? <SetDrills {...{ setups, ask }} practice={practice.data} /> : null}
      {isLead ? <GroupSkill /> : null}
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}
const entranceWords = (n: number) =>
  n === 0
    ? 'Find what is wrong in a booth that only hurts the clock.'
    : `${n} ${n === 1 ? 'drill' : 'drills'} on this device. What next?`

function Entrance({
  setups,
  ask,
  practice,
}: {
  setups: readonly BoothSetup[]
  ask: AskBooth
  practice: PracticeAnswer | undefined
}) {
  const navigate = useNavigate()
  const [name, setName] = useState(setups[0]?.name ?? '')
  const [why, setWhy] = useState<string | null>(null)
  const setup = setups.find((s) => s.name === name) ?? setups[0]
  const begin = (scenario: Scenario | null, setId: string | null = null) => {
    if (!scenario) return setWhy('Nothing that could be wrong shows in this booth: take another.')
    keepDrill({ scenario, acts: [], setId, key: newKey() })
    void navigate('/practice/drill')
  }
  const own = async () => {
    if (!setup) return
    const seed = Math.floor(Math.random() * 2 ** 31)
    begin(await ask('draw', { setup, seed, among: null, attempts: readPlayed() }))
  }
  const daily = async () => begin(await ask('daily', { day: practice?.day ?? localDay() }))
  const going = readDrill()
  return (
    <section className="practice-entrance" aria-label="Take a drill">
      <div className="practice-keys">
        {going ? (
          <Link className="key" to="/practice/drill">
            Go on with the one that stands there
          </Link>
        ) : null}
        <Key tone="chalk" onClick={() => void own()}>
          A drill for me
        </Key>
        <Key onClick={() => void daily()}>Today’s, the same for all</Key>
        {practice?.sets.flatMap((set) =>
          set.scenarios.map((s, i) => (
            <Key key={`${set.id} ${i}`} onClick={() => begin(s as Scenario, set.id)}>
              {set.name} {set.scenarios.length > 1 ? i + 1 : ''}{' '}
              <small>{set.groupName ? `set for ${set.groupName}` : 'set for all'}</small>
            </Key>
          )),
        )}
      </div>
      <div className="practice-from">
        <PickOne
          id="booth"
          label="The booth of a drill for me"
          value={name}
          options={setups.map((s) => [s.name, s.name] as const)}
          onPick={setName}
        />
        <FromFile onScenario={(s) => begin(s)} />
      </div>
      {why ? (
        <p className="trouble" role="alert">
          {why}
        </p>
      ) : null}
    </section>
  )
}
/** The day of the device, as 2026-12-01: without a link it is all there is. */
const localDay = () => dayKey(Date.now(), Intl.DateTimeFormat().resolvedOptions().timeZone)

const SHOWN = 8
/** What was tried on this device, what is known least first; kept here, sent to nobody. */
function OwnSkill({ knowledge }: { knowledge: Knowledge | undefined }) {
  const skills = skillsOf(readPlayed())
  const index = indexed(knowledge)
  if (skills.length === 0) return null
  return (
    <section aria-label="On this device">
      <h2>On this device</h2>
      <ul className="practice-skill">
        {skills.slice(0, SHOWN).map((s) => (
          <li key={s.fault}>
            {faultWords(index, s.fault)}:{' '}
            <strong>
              {s.well} of {s.tried}
            </strong>{' '}
            <span className="dim">found well</span>
          </li>
        ))}
      </ul>
      <p className="dim">
        Found well: within one and a half times the best order’s minutes. What is known least comes next.
      </p>
    </section>
  )
}
