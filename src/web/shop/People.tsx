import { Bare } from '@web/kit/Keys.tsx'
import { PickField, TextField } from '@web/kit/Field.tsx'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { ROLES } from '@contract/people.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { newKey } from '@web/api/client.ts'
import { useDeviceLink, useDropDevice, useSavePerson } from '@web/people/queries.ts'
import { Trouble } from '@web/kit/Trouble.tsx'

/** People who sign in, and devices that belong to a place and need nobody to. */
export function People({ shop }: { shop: ShopAnswer }) {
  return (
    <div className="cols">
      <PersonList shop={shop} />
      <DeviceList shop={shop} />
    </div>
  )
}

function PersonList({ shop }: { shop: ShopAnswer }) {
  const save = useSavePerson()
  const [name, setName] = useState('')
  const [role, setRole] = useState<(typeof ROLES)[number]>('hand')
  const [password, setPassword] = useState('')
  return (
    <section>
      <h2>People</h2>
      <ul className="plain">
        {shop.people.map((p) => (
          <li key={p.id} className={p.isActive ? '' : 'dim'}>
            {p.name}{' '}
            <span className="dim">
              {p.role}
              {p.hasPassword ? '' : ', cannot sign in'}
              {p.isActive ? '' : ', gone'}
            </span>{' '}
            <Bare
              onClick={() =>
                save.mutate({ key: newKey(), id: p.id, name: p.name, role: p.role, isActive: !p.isActive })
              }
            >
              {p.isActive ? 'has left' : 'is back'}
            </Bare>
          </li>
        ))}
      </ul>
      <Form
        className="built-form"
        onSubmit={(e) => {
          e.preventDefault()
          save.mutate(
            { key: newKey(), name, role, ...(password ? { password } : {}) },
            {
              onSuccess: () => {
                setName('')
                setPassword('')
              },
            },
          )
        }}
      >
        <TextField id="pp-name" label="name, or a code" value={name} onChange={(e) => setName(e.target.value)} />
        <PickField
          id="pp-role"
          label="role"
          value={role}
          onChange={(e) => setRole(ROLES.find((r) => r === e.target.value) ?? 'hand')}
        >
          {ROLES.map((r) => (
            <option key={r}>{r}</option>
          ))}
        </PickField>
        <TextField
          id="pp-pass"
          label="password (10 letters; leads need one)"
          type="password"
          autoComplete="new-password"
          value={password}
          onChange={(e) => setPassword(e.target.value)}
        />
        <Trouble problem={save.error} />
        <div className="built-keys">
          <Button type="submit" disabled={!name.trim() || (password !== '' && password.length < 10)}>
            Add
          </Button>
        </div>
      </Form>
    </section>
  )
}

function DeviceList({ shop }: { shop: ShopAnswer }) {
  const link = useDeviceLink()
  const drop = useDropDevice()
  const [name, setName] = useState('')
  const [place, setPlace] = useState('')
  const [kind, id] = place.split(' ')
  return (
    <section>
      <h2>Devices</h2>
      <ul className="plain">
        {shop.devices
          .filter((d) => d.isActive)
          .map((d) => (
            <li key={d.id}>
              {d.name}{' '}
              <span className="dim">
                {d.place}, {d.isBound ? 'bound' : 'not bound'}
              </span>{' '}
              <Bare onClick={() => drop.mutate({ key: newKey(), deviceId: d.id })}>no longer here</Bare>
            </li>
          ))}
      </ul>
      <Form
        className="built-form"
        onSubmit={(e) => {
          e.preventDefault()
          link.mutate(
            { key: newKey(), name, areaId: kind === 'area' ? id : null, stationId: kind === 'stn' ? id : null },
            { onSuccess: () => setName('') },
          )
        }}
      >
        <TextField
          id="dv-name"
          label="what it is called"
          placeholder="hall tablet"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <PickField id="dv-place" label="where it belongs" value={place} onChange={(e) => setPlace(e.target.value)}>
          <option value="">the whole shop</option>
          {shop.areas.map((a) => (
            <option key={a.id} value={`area ${a.id}`}>
              {a.name}
            </option>
          ))}
          {shop.stations.map((s) => (
            <option key={s.id} value={`stn ${s.id}`}>
              {s.name}
            </option>
          ))}
        </PickField>
        <Trouble problem={link.error ?? drop.error} />
        <div className="built-keys">
          <Button type="submit" disabled={!name.trim()}>
            Make a link for it
          </Button>
        </div>
      </Form>
      {link.data ? (
        <p className="trouble">
          Open this once on the device, within a day:{' '}
          <a href={link.data.path} className="device-link">{`${location.origin}${link.data.path}`}</a>
        </p>
      ) : null}
    </section>
  )
}
