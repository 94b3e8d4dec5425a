import { Plain } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { Link } from 'react-router'
import { type ShopAnswer, type StationLine } from '@contract/shop.ts'
import { cable, wireSpeed } from '@web/format/numbers.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { BuiltForm } from './BuiltForm.tsx'
import { FirstPlaces } from './FirstPlaces.tsx'
import { PlaceForm } from './PlaceForm.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

/** The shop laid out as the walk: areas, and in each the places in walking order. */
export function Places({ shop }: { shop: ShopAnswer }) {
  const [open, setOpen] = useState<string | null>(null)
  const chosen = shop.stations.find((s) => s.id === open)
  return (
    <>
      <FirstPlaces areaNames={shop.areas.map((a) => a.name)} />
      {shop.areas.map((area) => (
        <AreaBlock
          key={area.id}
          shop={shop}
          area={area}
          open={open}
          onOpen={(id) => setOpen(open === id ? null : id)}
        />
      ))}
      {chosen ? <PlaceForm key={chosen.id} shop={shop} place={chosen} onDone={() => setOpen(null)} /> : null}
    </>
  )
}

function AreaBlock(props: {
  shop: ShopAnswer
  area: ShopAnswer['areas'][number]
  open: string | null
  onOpen: (id: string) => void
}) {
  const { shop, area } = props
  const [isEditing, setEditing] = useState(false)
  const [walk, setWalk] = useState<string[] | null>(null)
  const save = useSave('/shop/area')
  const places = shop.stations.filter((s) => s.areaId === area.id)
  const tapped = (s: StationLine) => {
    if (!walk) return props.onOpen(s.id)
    setWalk(walk.includes(s.id) ? walk.filter((id) => id !== s.id) : [...walk, s.id])
  }
  return (
    <section className="shop-area" aria-label={area.name}>
      <h2>{area.name}</h2>
      <p className="dim">{describeBuilt(shop, area)}</p>
      <div className="place-row">
        {places.map((s) => (
          <Plain
            key={s.id}
            className={props.open === s.id || walk?.includes(s.id) ? 'place is-open' : 'place'}
            onClick={() => tapped(s)}
          >
            {s.name}
            {walk?.includes(s.id) ? <sup>{walk.indexOf(s.id) + 1}</sup> : null}
            {Object.keys(s.except).length > 0 ? <span className="dim"> *</span> : null}
          </Plain>
        ))}
      </div>
      <div className="d-flex gap-2 flex-wrap mt-2">
        <Link className={area.built.wireId ? 'btn' : 'btn btn-chalk'} to={`/bay?area=${area.id}`}>
          seven questions
        </Link>
        <Button onClick={() => setEditing(!isEditing)}>how guns here are built</Button>
        {walk ? (
          <>
            <Button
              variant="chalk"
              disabled={walk.length === 0}
              onClick={() => save.mutate({ areaId: area.id, walk }, { onSuccess: () => setWalk(null) })}
            >
              this is the walk
            </Button>
            <Button onClick={() => setWalk(null)}>leave it</Button>
            <span className="small-print align-self-center">tap the guns in the order you walk</span>
          </>
        ) : (
          <Button onClick={() => setWalk([])}>draw the walk</Button>
        )}
      </div>
      <Trouble problem={save.error} />
      {isEditing ? (
        <BuiltForm
          shop={shop}
          built={area.built}
          onSave={(built) => save.mutate({ areaId: area.id, built }, { onSuccess: () => setEditing(false) })}
          onDone={() => setEditing(false)}
        />
      ) : null}
    </section>
  )
}

function describeBuilt(shop: ShopAnswer, area: ShopAnswer['areas'][number]): string {
  const { built } = area
  const units = shop.site.units
  const said = [
    shop.wires.find((w) => w.id === built.wireId)?.name,
    shop.families.find((f) => f.id === built.familyId)?.name &&
      `family ${shop.families.find((f) => f.id === built.familyId)?.name}`,
    built.cableM ? `${cable(built.cableM, units)} cable` : null,
    built.mode,
    built.rollCount ? `${built.rollCount} rolls` : null,
    built.wireSpeedMPerMin ? `wire speed ${wireSpeed(built.wireSpeedMPerMin, units)} (guess)` : null,
  ].filter(Boolean)
  return said.length > 0 ? said.join(' · ') : 'Not yet said how guns here are built.'
}
