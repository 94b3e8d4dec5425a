import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { JOINTS, type Joint } from '@core/rightparts/facts.ts'
import { ASKEW, isAskew, JOINT_FAULTS, MADE_WITH, SAYS, type JointFault } from '@core/rightparts/joints.ts'
import { rulingFor, type SchoolOf } from '@core/houserule/schools.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { capital, partLabel } from '@web/format/words.ts'
import { useChoices } from '@web/houserule/queries.ts'
import { useShop } from '@web/shopmodel/queries.ts'
import { field, PickOne, TextField } from '@web/kit/Field.tsx'
import { partsCalled } from '@web/places/find.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { NearMiss } from '@web/guide/NearMiss.tsx'
import { SwapGun } from '@web/gunnow/SwapGun.tsx'
import { useIssue, useJoint } from './queries.ts'
import { ASKEW_WORD, FAULT_WORD, JOINT_WORD } from './words.ts'

type Open = 'swap' | 'issue' | 'joint' | 'near' | null

/** What one does with a whole gun: change its wire, swap it, fetch a part for it, say that a joint gave trouble. */
export function MoreActs({ gun }: { gun: GunAnswer }) {
  const [params] = useSearchParams()
  // A gun of elsewhere was scanned here: the question stands open.
  const found = params.get('found')
  const [open, setOpen] = useState<Open>(found || params.get('open') === 'swap' ? 'swap' : null)
  const key = (is: Exclude<Open, null>, words: string) => (
    <Key size="low" aria-expanded={open === is} onClick={() => setOpen(open === is ? null : is)}>
      {words}
    </Key>
  )
  return (
    <section className="more-acts" aria-label="The whole gun">
      <div className="more-keys">
        <Link className="key key-low" to={`/change?guns=${gun.stationId}`}>
          Change wire
        </Link>
        <Link className="key key-low" to={`/guide?gun=${gun.stationId}`}>
          How it’s done
        </Link>
        <Link className="key key-low" to={`/read?gun=${gun.stationId}`}>
          Read it
        </Link>
        <Link className="key key-low" to={`/drag?gun=${gun.stationId}`}>
          Its drag
        </Link>
        <Link className="key key-low" to={`/walk?minutes=15&from=${gun.stationId}`}>
          15 min from here
        </Link>
        {gun.ruledBy.class === 'cell' ? (
          <Link className="key key-low" to={`/cells?cell=${gun.stationId}`}>
            Its cell: neck, crash, the way
          </Link>
        ) : null}
        {key('swap', 'Swap the gun')}
        {key('issue', 'Fetch a part')}
        {key('joint', 'Joint trouble')}
        {key('near', 'Near miss')}
      </div>
      {open === 'swap' ? <SwapGun gun={gun} found={found} onDone={() => setOpen(null)} /> : null}
      {open === 'issue' ? <IssuePart gun={gun} /> : null}
      {open === 'near' ? <NearMiss stationId={gun.stationId} onDone={() => setOpen(null)} /> : null}
      {open === 'joint' ? <JointTrouble gun={gun} onDone={() => setOpen(null)} /> : null}
    </section>
  )
}

/** So many can be looked over without a word. */
const FEW = 5
/** A part handed out for this gun; what does not fit is refused with the reason. */
function IssuePart({ gun }: { gun: GunAnswer }) {
  const shop = useShop()
  const issue = useIssue()
  const kinds = new Set(gun.positions.map((p) => p.kindKey))
  const [typed, setTyped] = useState('')
  const all = (shop.data?.parts ?? []).filter((p) => kinds.has(p.kindKey))
  const parts = partsCalled(all, shop.data?.kinds ?? [], typed)
  const [partId, setPart] = useState('')
  const part = parts.find((p) => p.id === partId)
  return (
    <div className="more-form">
      {all.length > FEW ? (
        <TextField id="issue-called" label="what it is called, or its number" {...field(typed, setTyped)} />
      ) : null}
      {all.length > 0 && parts.length === 0 ? (
        <p role="status">No part that this gun takes is called “{typed}”.</p>
      ) : null}
      <PickOne
        id="issue-part"
        label="a part from the shelf"
        none="choose …"
        value={partId}
        options={parts.map((p) => [p.id, `${partLabel(p)}${p.onHand === null ? '' : `, ${p.onHand}`}`])}
        onPick={(id) => {
          issue.reset()
          setPart(id)
        }}
      />
      <Key
        size="low"
        tone="chalk"
        disabled={!partId || issue.isPending}
        onClick={() => issue.mutate({ stationId: gun.stationId, partId })}
      >
        Hand it out for {gun.name}
      </Key>
      {issue.data ? (
        <p role="status">
          {part?.code ?? ''} fits.{' '}
          {issue.data.onHand === null ? '' : `${Math.max(0, issue.data.onHand)} left on the shelf.`}
        </p>
      ) : null}
      <Trouble problem={issue.error} />
    </div>
  )
}

/** Which joint, what it did; a damaged thread has two outcomes. */
function JointTrouble({ gun, onDone }: { gun: GunAnswer; onDone: () => void }) {
  const send = useJoint()
  const choices = useChoices()
  const [joint, setJoint] = useState<Joint | null>(null)
  const [fault, setFault] = useState<JointFault | null>(null)
  const has = new Set(gun.positions.map((p) => p.kindKey))
  const joints = JOINTS.filter((j) => has.has(MADE_WITH[j]))
  const say = (thread: 'ran' | 'scrapped' | null, what = fault) => {
    if (joint && what) send.mutate({ stationId: gun.stationId, joint, fault: what, thread }, { onSuccess: onDone })
  }
  const isThread = fault === 'stripped' || fault === 'crossThreaded'
  const rules = choices.data?.choices ?? []
  const [isCrooked, setCrooked] = useState(false)
  if (isCrooked)
    return (
      <div className="more-form">
        <AskewKeys school={rulingFor('D23', gun.ruledBy, rules).school.key} say={(why) => say(null, why)} />
        <Trouble problem={send.error} />
      </div>
    )
  return (
    <div className="more-form">
      <p>{joint ? `${capital(JOINT_WORD[joint])}:` : 'Which joint?'}</p>
      <div className="more-keys">
        {joint === null
          ? joints.map((j) => (
              <Key key={j} size="low" onClick={() => setJoint(j)}>
                {JOINT_WORD[j]}
              </Key>
            ))
          : fault === null
            ? JOINT_FAULTS.filter((f) => !isAskew(f)).map((f) => (
                <Key
                  key={f}
                  size="low"
                  onClick={() => (SAYS[f] === 'neither' || f === 'stripped' ? setFault(f) : say(null, f))}
                >
                  {FAULT_WORD[f]}
                </Key>
              ))
            : null}
        {joint === 'nozzle' && fault === null ? (
          <Key size="low" onClick={() => setCrooked(true)}>
            stands crooked
          </Key>
        ) : null}
      </div>
      {isThread ? <ThreadKeys school={rulingFor('D19', gun.ruledBy, rules).school.key} say={say} /> : null}
      <Trouble problem={send.error} />
    </div>
  )
}

const CROOKED = {
  cause: 'It stood straight once. Cold, look: thread, insulator, neck. Why does it stand crooked?',
  knock: 'Tapped straight it is a stop-gap: look why the same day. Why did it stand crooked?',
} as const satisfies Record<SchoolOf<'D23'>, string>
/** Why a nozzle stands crooked (D23): a cause, never only a knock. */
function AskewKeys({ school, say }: { school: SchoolOf<'D23'>; say: (why: (typeof ASKEW)[number]) => void }) {
  return (
    <>
      <p>{CROOKED[school]}</p>
      <div className="more-keys">
        {ASKEW.map((why) => (
          <Key key={why} size="low" onClick={() => say(why)}>
            {ASKEW_WORD[why]}
          </Key>
        ))}
      </div>
    </>
  )
}

const THREAD = {
  once: 'Cleaned once and tried by hand: does it run freely? If not, both go; a tip that stands crooked shorts later.',
  scrap: 'House rule: both go, the tip and what it screws into.',
  file: 'House rule: filed clean, then tried by hand. Does it run freely? A tip that stands crooked shorts later.',
} as const satisfies Record<SchoolOf<'D19'>, string>
function ThreadKeys(props: { school: SchoolOf<'D19'>; say: (thread: 'ran' | 'scrapped' | null) => void }) {
  const { school, say } = props
  return (
    <>
      <p>{THREAD[school]}</p>
      <div className="more-keys">
        {school === 'scrap' ? null : (
          <Key size="low" onClick={() => say('ran')}>
            It runs freely
          </Key>
        )}
        <Key size="low" onClick={() => say('scrapped')}>
          Both scrapped
        </Key>
        <Key size="low" onClick={() => say(null)}>
          Not tried yet
        </Key>
      </div>
    </>
  )
}
