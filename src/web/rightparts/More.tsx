import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { JOINTS, type Joint } from '@core/rightparts/facts.ts'
import { JOINT_FAULTS, MADE_WITH, SAYS, type JointFault } from '@core/rightparts/joints.ts'
import { rulingFor } from '@core/houserule/schools.ts'
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
import { FAULT_WORD, JOINT_WORD } from './words.ts'

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
          {part?.code ?? ''} fits. {issue.data.onHand === null ? '' : `${issue.data.onHand} left on the shelf.`}
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
  const school = choices.data ? rulingFor('D19', gun.ruledBy, choices.data.choices).school.key : 'once'
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
            ? JOINT_FAULTS.map((f) => (
                <Key
                  key={f}
                  size="low"
                  onClick={() => (SAYS[f] === 'neither' || f === 'stripped' ? setFault(f) : say(null, f))}
                >
                  {FAULT_WORD[f]}
                </Key>
              ))
            : null}
      </div>
      {isThread ? <ThreadKeys school={school} say={say} /> : null}
      <Trouble problem={send.error} />
    </div>
  )
}

function ThreadKeys({ school, say }: { school: string; say: (thread: 'ran' | 'scrapped' | null) => void }) {
  return (
    <>
      <p>
        {school === 'scrap'
          ? 'House rule: both go, the tip and what it screws into.'
          : 'Cleaned once and tried by hand: does it run freely? If not, both go; a tip that stands askew shorts later.'}
      </p>
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
