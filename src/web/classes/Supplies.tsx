import { Link } from 'react-router'
import { type ClassesAnswer } from '@contract/classes.ts'
import { useMe } from '@web/people/queries.ts'
import { areTipsShort, callsSentence, tipsSentence, wireSentence } from './classwords.ts'

/** What the classes called for, and what those to come will use up, by the calendar and by what classes of their level used. */
export function Supplies({ at }: { at: ClassesAnswer }) {
  const units = useMe().data?.units ?? 'metric'
  const { calls, tips, wires } = at
  return (
    <>
      {calls ? (
        <>
          <h3>Calls</h3>
          <p>{callsSentence(calls)}</p>
        </>
      ) : null}
      {tips ? (
        <>
          <h3>Tips</h3>
          <p>
            {tipsSentence(tips)}{' '}
            {tips.part ? (
              <Link to={`/parts?part=${tips.part.partId}`}>{areTipsShort(tips) ? 'Order in Parts' : 'Parts'}</Link>
            ) : null}
          </p>
        </>
      ) : null}
      {wires.length > 0 ? (
        <>
          <h3>Wire</h3>
          {wires.map((w) => (
            <p key={w.wireId}>{wireSentence(w, units)}</p>
          ))}
          <Link to="/spools">Spools</Link>
        </>
      ) : null}
    </>
  )
}
