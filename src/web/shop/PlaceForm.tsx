import { PickField, TextField } from '@web/shell/Field.tsx'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { type ShopAnswer, type StationLine } from '@contract/shop.ts'
import { Trouble } from '@web/shell/Trouble.tsx'
import { BuiltForm } from './BuiltForm.tsx'
import { useMakePlaces, useSave } from './queries.ts'

/** One place: its name and class, what is different on it, which parts it lacks, more like it, and which gun hangs there. */
export function PlaceForm({ shop, place, onDone }: { shop: ShopAnswer; place: StationLine; onDone: () => void }) {
  const save = useSave('/shop/station')
  const move = useSave('/shop/move')
  const make = useMakePlaces()
  const [name, setName] = useState(place.name)
  const [classKey, setClass] = useState(place.classKey)
  const [more, setMore] = useState('')
  const [gunOf, setGunOf] = useState('')
  const [isBuilt, setBuilt] = useState(false)
  const absent = shop.kinds.filter((k) => !place.positions.some((p) => p.split('#')[0] === k.key)).map((k) => k.key)
  const area = shop.areas.find((a) => a.id === place.areaId)
  const toggle = (key: string) =>
    save.mutate({
      stationId: place.id,
      absent: absent.includes(key) ? absent.filter((k) => k !== key) : [...absent, key],
    })
  return (
    <section className="place-form" aria-label={`Place ${place.name}`}>
      <div className="d-flex gap-3 align-items-baseline">
        <h2>{place.name}</h2>
        <Link to={`/gun/${place.id}`}>open the gun</Link>
        <button type="button" className="bare ms-auto" onClick={onDone}>
          close
        </button>
      </div>
      <Trouble problem={save.error ?? move.error ?? make.error} />
      <div className="built-form">
        <TextField
          id="pl-name"
          label="painted on it"
          value={name}
          maxLength={24}
          onChange={(e) => setName(e.target.value)}
        />
        <PickField id="pl-class" label="class" value={classKey} onChange={(e) => setClass(e.target.value)}>
          {shop.classes.map((c) => (
            <option key={c.key} value={c.key}>
              {c.name}
            </option>
          ))}
        </PickField>
        <Button
          variant="chalk"
          disabled={name === place.name && classKey === place.classKey}
          onClick={() => save.mutate({ stationId: place.id, name, classKey })}
        >
          Save
        </Button>
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
            make.mutate(
              { names: more, areaName: area?.name ?? '', likeStationId: place.id },
              { onSuccess: () => setMore('') },
            )
          }
        >
          Set them up
        </Button>
        <PickField
          id="pl-gun"
          label={`the gun here (${place.gunName ?? 'none'}) is really the one of`}
          value={gunOf}
          onChange={(e) => setGunOf(e.target.value)}
        >
          <option value="">choose …</option>
          {shop.stations
            .filter((s) => s.id !== place.id)
            .map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}: {s.gunName}
              </option>
            ))}
        </PickField>
        <Button
          disabled={!gunOf}
          onClick={() => move.mutate({ stationId: place.id, gunOfStationId: gunOf }, { onSuccess: () => setGunOf('') })}
        >
          Hang it here; swap the two
        </Button>
      </div>
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
