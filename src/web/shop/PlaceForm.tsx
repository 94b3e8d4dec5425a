import { Bare } from '@web/kit/Keys.tsx'
import { kindOfPosition, type KindKey } from '@core/path/columns.ts'
import { PickOne, TextField } from '@web/kit/Field.tsx'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { isOptionalKind } from '@core/path/kinds.ts'
import { type ShopAnswer, type StationLine } from '@contract/shop.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { BuiltForm } from './BuiltForm.tsx'
import { FeederToken } from './FeederToken.tsx'
import { useMakePlaces, useSave } from '@web/shopmodel/queries.ts'

/** One place: its name and class, what is different on it, which parts it lacks, more like it, and which gun hangs there. */
export function PlaceForm({ shop, place, onDone }: { shop: ShopAnswer; place: StationLine; onDone: () => void }) {
  const save = useSave('/shop/station')
  const move = useSave('/shop/move')
  const make = useMakePlaces()
  const [isBuilt, setBuilt] = useState(false)
  const absent = shop.kinds.filter((k) => !place.positions.some((p) => kindOfPosition(p) === k.key)).map((k) => k.key)
  const area = shop.areas.find((a) => a.id === place.areaId)
  const extra = shop.kinds.filter((k) => isOptionalKind(k.key) && !absent.includes(k.key)).map((k) => k.key)
  const flip = (list: readonly string[], key: string) =>
    list.includes(key) ? list.filter((k) => k !== key) : [...list, key]
  const toggle = (key: KindKey) =>
    save.mutate({
      stationId: place.id,
      ...(isOptionalKind(key) ? { extra: flip(extra, key) } : { absent: flip(absent, key) }),
    })
  return (
    <section className="place-form" aria-label={`Place ${place.name}`}>
      <div className="d-flex gap-3 align-items-baseline">
        <h2>{place.name}</h2>
        <Link to={`/gun/${place.id}`}>open the gun</Link>
        <Bare className="ms-auto" onClick={onDone}>
          close
        </Bare>
      </div>
      <Trouble problem={save.error ?? move.error ?? make.error} />
      <Named shop={shop} place={place} save={save.mutate} />
      <MoreLike place={place} areaName={area?.name ?? ''} make={make.mutate} />
      <HangHere shop={shop} place={place} move={move.mutate} />
      <FeederToken place={place} />
      <h3>On this gun</h3>
      <div className="place-row">
        {shop.kinds.map((k) => (
          <label key={k.key} className="on-gun">
            <Form.Check.Input
              checked={!absent.includes(k.key)}
              disabled={save.isPending}
              onChange={() => toggle(k.key)}
            />{' '}
            {k.name}
          </label>
        ))}
      </div>
      <Button className="mt-2" onClick={() => setBuilt(!isBuilt)}>
        as the bay, except …
      </Button>
      {isBuilt ? (
        <BuiltForm
          shop={shop}
          built={place.except}
          emptyWord="as the bay"
          onSave={(except) => save.mutate({ stationId: place.id, except }, { onSuccess: () => setBuilt(false) })}
          onDone={() => setBuilt(false)}
        />
      ) : null}
    </section>
  )
}

type Save = ReturnType<typeof useSave>['mutate']

function Named({ shop, place, save }: { shop: ShopAnswer; place: StationLine; save: Save }) {
  const [name, setName] = useState(place.name)
  const [classKey, setClass] = useState(place.classKey)
  return (
    <div className="built-form">
      <TextField
        id="pl-name"
        label="painted on it"
        value={name}
        maxLength={24}
        onChange={(e) => setName(e.target.value)}
      />
      <PickOne
        id="pl-class"
        label="class"
        value={classKey}
        options={shop.classes.map((c) => [c.key, c.name])}
        onPick={setClass}
      />
      <Button
        variant="chalk"
        disabled={name === place.name && classKey === place.classKey}
        onClick={() => save({ stationId: place.id, name, classKey })}
      >
        Save
      </Button>
    </div>
  )
}

function MoreLike(props: { place: StationLine; areaName: string; make: ReturnType<typeof useMakePlaces>['mutate'] }) {
  const [more, setMore] = useState('')
  return (
    <div className="built-form">
      <TextField
        id="pl-more"
        label="more like this one"
        placeholder="A25–A44"
        value={more}
        onChange={(e) => setMore(e.target.value)}
      />
      <Button
        disabled={!more.trim()}
        onClick={() =>
          props.make(
            { names: more, areaName: props.areaName, likeStationId: props.place.id },
            { onSuccess: () => setMore('') },
          )
        }
      >
        Set them up
      </Button>
    </div>
  )
}

function HangHere({ shop, place, move }: { shop: ShopAnswer; place: StationLine; move: Save }) {
  const [gunOf, setGunOf] = useState('')
  return (
    <div className="built-form">
      <PickOne
        id="pl-gun"
        label={`the gun here (${place.gunName ?? 'none'}) is really the one of`}
        none="choose …"
        value={gunOf}
        options={shop.stations
          .filter((s) => s.id !== place.id)
          .map((s) => [s.id, `${s.name}: ${s.gunName ?? 'no gun'}`])}
        onPick={setGunOf}
      />
      <Button
        disabled={!gunOf}
        onClick={() => move({ stationId: place.id, gunOfStationId: gunOf }, { onSuccess: () => setGunOf('') })}
      >
        Hang it here; swap the two
      </Button>
    </div>
  )
}
