import { Link, useRouteError } from 'react-router'
import { Trouble } from '@web/kit/Trouble.tsx'

/** No such page, or one that tripped: a way back either way. */
export function Nowhere() {
  const problem = useRouteError()
  return (
    <main className="narrow">
      <h1>{problem ? 'This page tripped' : 'There is nothing here'}</h1>
      <Trouble problem={problem} />
      <p className="said dim">What was logged is kept. Go back to Floor and try again.</p>
      <Link className="btn btn-chalk" to="/">
        Floor
      </Link>
    </main>
  )
}
