import { Link } from 'react-router'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { PickGun } from './PickGun.tsx'
import { usePlaces } from './usePlaces.ts'

/** A page of one gun whose address names none: which? `named`: what the address calls it. */
export function WhichGun({ named = 'gun' }: { named?: string }) {
  const { put } = useAddress()
  const asked = usePlaces()
  const places = asked.data?.places
  return (
    <main className="narrow" aria-busy={asked.isPending}>
      {!places ? (
        <Waiting says="Looking which guns there are" problem={asked.error} />
      ) : places.length === 0 ? (
        <>
          <h1 className="sentence">No guns yet. Say how many there are.</h1>
          <Link className="btn btn-chalk" to="/">
            Floor
          </Link>
        </>
      ) : (
        <>
          <h1 className="sentence">Which gun?</h1>
          <PickGun id="which-gun" none="choose …" value="" onPick={(id) => put({ [named]: id })} />
        </>
      )}
    </main>
  )
}
