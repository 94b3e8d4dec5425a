import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { type Cause, type Knowledge } from '@core/diagnose/knowledge.ts'
import { type Scenario } from '@core/practice/drill.ts'
import { type FaultKey, isFault } from '@core/practice/faults.ts'
import { seedOf } from '@core/random/random.ts'
import { type BoothSetup } from '@core/practice/rig.ts'
import { DRILL_FORMAT, type PracticeAnswer } from '@contract/practice.ts'
import { field, PickOne, TextField } from '@web/kit/Field.tsx'
import { Bare, Key } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { shortDate } from '@web/format/times.ts'
import { capital } from '@web/format/words.ts'
import { faultWords } from './practicewords.ts'
import { indexed, useEndSet, useSetDrills, useSkill } from './queries.ts'
import { type AskBooth } from './useBoothWorker.ts'

interface SetProps {
  setups: readonly BoothSetup[]
  ask: AskBooth
  practice: PracticeAnswer
}
/** Drills an instructor sets: which faults, in which booth, for which group; as a file too. */
export function SetDrills(props: SetProps) {
  const [begun, setBegun] = useState<Begun | null>(null)
  const end = useEndSet()
  const { sets, stops, zone } = props.practice
  const index = indexed(props.practice.knowledge as Knowledge)
  return (
    <section className="practice-sets" aria-label="Drills you set">
      <h2>Drills you set</h2>
      {sets.map((s) => (
        <p key={s.id}>
          <strong>{s.name}</strong>, {s.scenarios.length === 1 ? 'one drill' : `${s.scenarios.length} drills`} for{' '}
          {s.groupName ?? 'all'}, played {s.played} {s.played === 1 ? 'time' : 'times'}
          {s.played > 0 ? `, ${s.well} of them well` : ''}.{' '}
          <Bare onClick={() => giveOut(s.name, s.scenarios as Scenario[])}>as a file</Bare>{' '}
          <Bare onClick={() => end.mutate({ id: s.id })}>take back</Bare>
        </p>
      ))}
      <Trouble problem={end.error} />
      {begun ? (
        <SetForm {...props} begun={begun} onDone={() => setBegun(null)} />
      ) : (
        <div className="practice-keys">
          <Key size="low" onClick={() => setBegun({ name: '', setup: null, faults: [] })}>
            Set drills
          </Key>
          {stops.map((s) => (
            <Key
              key={s.fault}
              size="low"
              onClick={() =>
                setBegun({
                  name: `${s.name}, ${shortDate(s.atMs, zone)}`,
                  setup: s.setup as BoothSetup | null,
                  faults: [s.fault],
                })
              }
            >
              As {s.name} stood on {shortDate(s.atMs, zone)} <small>{faultWords(index, s.fault)}</small>
            </Key>
          ))}
        </div>
      )}
    </section>
  )
}

/** What a form begins with: nothing, or what really stopped. */
interface Begun {
  name: string
  setup: BoothSetup | null
  faults: readonly FaultKey[]
}
function SetForm({ setups: others, ask, practice, begun, onDone }: SetProps & { begun: Begun; onDone: () => void }) {
  const setups = begun.setup ? [begun.setup, ...others.filter((s) => s.name !== begun.setup?.name)] : others
  const save = useSetDrills()
  const groups = useSkill(true).data?.groups ?? []
  const index = indexed(practice.knowledge as Knowledge)
  const [name, setName] = useState(begun.name)
  const [groupId, setGroup] = useState('')
  const [booth, setBooth] = useState(setups[0]?.name ?? '')
  const [picked, setPicked] = useState<readonly FaultKey[]>(begun.faults)
  const [how, setHow] = useState<How>({ bad: '', two: '' })
  const [why, setWhy] = useState<string | null>(null)
  const faults = index.causes.filter((c) => isFault(c.key))
  const setup = setups.find((s) => s.name === booth)
  const send = async () => {
    if (!name.trim()) return setWhy('Give it a name, like the day it is for.')
    if (!setup || picked.length === 0) return setWhy('Tick at least one thing that is to be wrong.')
    const drawn = await Promise.all(
      picked.map((fault, i) =>
        ask('draw', { setup, seed: drillSeed(name, i), among: [fault], attempts: null, ...drawnBy(how) }),
      ),
    )
    const missing = picked.filter((_, i) => !drawn[i]).map((f) => faultWords(index, f))
    if (missing.length > 0)
      return setWhy(
        `In this booth${how.bad ? ', as bad as that,' : ''} nobody would notice: ${missing.join(', ')}. Leave it out, ${how.bad ? 'let it be worse, ' : ''}or take another booth.`,
      )
    setWhy(null)
    const scenarios = drawn.flatMap((s) => (s ? [s] : []))
    save.mutate(
      { name: name.trim(), groupId: groups.find((g) => g.id === groupId)?.id ?? null, scenarios },
      { onSuccess: onDone },
    )
  }
  return (
    <form
      className="practice-set"
      onSubmit={(e) => {
        e.preventDefault()
        void send()
      }}
    >
      <div className="group-fields">
        <TextField id="set-name" label="Name" maxLength={60} {...field(name, setName)} />
        <PickOne
          id="set-group"
          label="For"
          value={groupId}
          none="all"
          options={groups.map((g) => [g.id, g.name] as const)}
          onPick={setGroup}
        />
        <PickOne
          id="set-booth"
          label="In the booth"
          value={booth}
          options={setups.map((s) => [s.name, s.name] as const)}
          onPick={setBooth}
        />
        <HowFields {...{ how }} onHow={setHow} />
      </div>
      <Faults {...{ faults, picked }} onPick={setPicked} />
      {why ? (
        <p className="trouble" role="alert">
          {why}
        </p>
      ) : null}
      <Trouble problem={save.error} />
      <div className="practice-keys">
        <Key type="submit" tone="chalk" disabled={save.isPending}>
          Set {picked.length === 1 ? 'one drill' : `${picked.length} drills`}
        </Key>
        <Bare onClick={onDone}>leave it</Bare>
      </div>
    </form>
  )
}
/** How bad a fault is when the drill begins; what is hardly begun is harder to see. */
const HOW_BAD = [
  { key: 'begun', says: 'just begun', bad: [0, 0.35] },
  { key: 'plain', says: 'plain to see', bad: [0.35, 0.7] },
  { key: 'worst', says: 'as bad as it gets', bad: [0.7, 1] },
] as const
const TWO_SHARE: Readonly<Record<string, number>> = { one: 0, two: 1 }
interface How {
  bad: string
  two: string
}
function drawnBy({ bad, two }: How): { bad?: readonly [number, number]; twoShare?: number } {
  const of = HOW_BAD.find((h) => h.key === bad)
  const share = TWO_SHARE[two]
  return { ...(of ? { bad: of.bad } : {}), ...(share === undefined ? {} : { twoShare: share }) }
}
function HowFields({ how, onHow }: { how: How; onHow: (how: How) => void }) {
  return (
    <>
      <PickOne
        id="set-bad"
        label="How bad"
        value={how.bad}
        none="as it comes"
        options={HOW_BAD.map(({ key, says }) => [key, says] as const)}
        onPick={(bad) => onHow({ ...how, bad })}
      />
      <PickOne
        id="set-two"
        label="At a time"
        value={how.two}
        none="mostly one"
        options={[
          ['one', 'one thing'],
          ['two', 'two that show alike, where there are'],
        ]}
        onPick={(two) => onHow({ ...how, two })}
      />
    </>
  )
}
/** What may be wrong, to tick. */
function Faults(props: {
  faults: readonly Cause[]
  picked: readonly FaultKey[]
  onPick: (picked: readonly FaultKey[]) => void
}) {
  const { faults, picked, onPick } = props
  return (
    <fieldset className="practice-faults">
      <legend>What is wrong, a drill each</legend>
      {faults.map(({ key, says }) => (
        <Form.Check
          key={key}
          id={`fault-${key}`}
          label={capital(says)}
          checked={picked.some((k) => k === key)}
          onChange={(e) =>
            onPick(e.target.checked && isFault(key) ? [...picked, key].slice(0, MOST) : picked.filter((k) => k !== key))
          }
        />
      ))}
    </fieldset>
  )
}
const MOST = 20
/** The same name draws the same drills again. */
const drillSeed = (name: string, i: number) => seedOf(name, 17 + i) % 2 ** 31

function giveOut(name: string, scenarios: readonly Scenario[]): void {
  const text = JSON.stringify({ format: DRILL_FORMAT, scenarios }, null, 1)
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([text], { type: 'application/json' }))
  link.download = `${name.replaceAll(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}-drills.json`
  link.click()
  URL.revokeObjectURL(link.href)
}
