import { useState } from 'react'
import { Link } from 'react-router'
import { HANDS, type HandsKey } from '@core/practice/hands.ts'
import { useAddress } from '@web/kit/useAddress.ts'
import { Key } from '@web/kit/Keys.tsx'
import { useMe } from '@web/people/queries.ts'
import { BuildDrill, ChangeDrill } from './HandsBuild.tsx'
import { KnobDrill, LayDrill, TrimDrill } from './HandsWork.tsx'

export const HANDS_WORDS: Readonly<Record<HandsKey, { name: string; does: string }>> = {
  build: { name: 'One thing wrong', does: 'A gun is built for its wire, but for one thing. Ten seconds.' },
  change: { name: 'Another wire, four rolls', does: 'All that has to change for it, and in what order.' },
  tension: { name: 'Set the tension', does: 'Somebody left the knob anywhere: by the block into its window.' },
  lay: { name: 'Lay the cable', does: 'Which lay asks most of the rolls?' },
  trim: { name: 'Trim a liner', does: 'In two steps or more, and never too short.' },
}

/** Small exercises of two minutes: one at a time, another each time. */
export function HandsPage() {
  const { get, put } = useAddress()
  const [seed, setSeed] = useState(() => Math.floor(Math.random() * 2 ** 31))
  const units = useMe().data?.units ?? 'metric'
  const what = HANDS.find((h) => h === get('what')) ?? null
  const again = () => setSeed(seed + 1)
  if (!what)
    return (
      <main className="practice">
        <h1 className="sentence">Two minutes for the hands.</h1>
        <HandsKeys onPick={(h) => put({ what: h }, { isStep: true })} />
        <p>
          <Link to="/practice">Practice booth</Link>
        </p>
      </main>
    )
  const key = `${what} ${seed}`
  return (
    <main className="practice">
      {what === 'build' ? <BuildDrill key={key} {...{ seed, units }} onAgain={again} /> : null}
      {what === 'change' ? <ChangeDrill key={key} {...{ seed, units }} onAgain={again} /> : null}
      {what === 'tension' ? <KnobDrill key={key} {...{ seed, units }} onAgain={again} /> : null}
      {what === 'lay' ? <LayDrill key={key} {...{ seed, units }} onAgain={again} /> : null}
      {what === 'trim' ? <TrimDrill key={key} {...{ seed, units }} onAgain={again} /> : null}
      <p>
        <Link to="/practice/hands">Others</Link>
      </p>
    </main>
  )
}
export const HandsKeys = ({ onPick }: { onPick: (h: HandsKey) => void }) => (
  <div className="practice-keys">
    {HANDS.map((h) => (
      <Key key={h} onClick={() => onPick(h)}>
        <span>
          {HANDS_WORDS[h].name}
          <br />
          <small className="hands-does">{HANDS_WORDS[h].does}</small>
        </span>
      </Key>
    ))}
  </div>
)
