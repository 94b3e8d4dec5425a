import { Link } from 'react-router'
import { PickOne } from '@web/kit/Field.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
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
          <PickOne
            id="which-gun"
            label="Gun"
            none="choose …"
            value={'' as string}
            options={places.map((p) => [p.stationId, p.name] as const)}
            onPick={(id) => put({ [named]: id })}
          />
        </>
      )}
    </main>
  )
}
