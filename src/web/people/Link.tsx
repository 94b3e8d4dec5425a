import { Button } from 'react-bootstrap'
import { useNavigate, useParams } from 'react-router'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useBind } from './queries.ts'

/** Opened once on a tablet or phone: from then on it belongs to its place. A tap, so that a link preview binds nothing. */
export function LinkPage() {
  const { token = '' } = useParams()
  const bind = useBind()
  const go = useNavigate()
  return (
    <main className="narrow">
      <h1>This device belongs to a place</h1>
      <p className="said dim">
        From now on it shows the floor and logs what is done there, without anybody signing in.
      </p>
      <Trouble problem={bind.error} />
      <Button
        variant="chalk"
        className="big-key"
        disabled={bind.isPending}
        onClick={() => bind.mutate(token, { onSuccess: () => go('/') })}
      >
        Bind it here
      </Button>
    </main>
  )
}
