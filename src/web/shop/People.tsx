import { idIn } from '@web/kit/idin.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { asItIs, neededWords, useReadForm, type Reader } from '@web/kit/readform.ts'
import { PickTyped, TypedField } from '@web/kit/TypedField.tsx'
import { Button, Form } from 'react-bootstrap'
import { ROLES } from '@contract/people.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { newKey } from '@web/api/client.ts'
import { LEAST_LETTERS, newPassword } from '@web/people/password.ts'
import { useDeviceLink, useDropDevice, useIsOwner, useSavePerson } from '@web/people/queries.ts'
import { Trouble } from '@web/kit/Trouble.tsx'

/** People who sign in, and devices that belong to a place and need nobody to; changed by a lead, seen by an instructor. */
export function People({ shop }: { shop: ShopAnswer }) {
  const isOwner = useIsOwner()
  if (!isOwner) return <OnlySeen shop={shop} />
  return (
    <div className="cols">
      <PersonList shop={shop} />
      <DeviceList shop={shop} />
    </div>
  )
}

function OnlySeen({ shop }: { shop: ShopAnswer }) {
  const here = shop.people.filter((p) => p.isActive)
  return (
    <section>
      <p className="said">A lead adds people and devices, and takes them off.</p>
      <ul className="plain">
        {here.map((p) => (
          <li key={p.id}>
            {p.name} <span className="dim">{p.role}</span>
          </li>
        ))}
        {shop.devices
          .filter((d) => d.isActive)
          .map((d) => (
            <li key={d.id}>
              {d.name} <span className="dim">{d.place}</span>
            </li>
          ))}
      </ul>
    </section>
  )
}

type Role = (typeof ROLES)[number]
/** Null: none, so that one does not sign in. */
const password: Reader<string | null> = (text) => (text === '' ? { ok: true, value: null } : newPassword(text))

function PersonList({ shop }: { shop: ShopAnswer }) {
  const save = useSavePerson()
  const form = useReadForm(
    { name: neededWords('Write a name, or a code.'), role: asItIs<Role>(), password },
    { name: '', role: 'hand', password: '' },
  )
  const add = form.submit((read) => {
    if (read.role === 'lead' && read.password === null)
      return form.refuse('password', `A lead signs in: ${LEAST_LETTERS} letters or more.`)
    save.mutate(
      { key: newKey(), name: read.name, role: read.role, ...(read.password ? { password: read.password } : {}) },
      { onSuccess: () => form.begin({ ...form.all(), name: '', password: '' }) },
    )
  })
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
      <Form noValidate className="built-form" onSubmit={add}>
        <TypedField form={form} name="name" id="pp-name" label="name, or a code" />
        <PickTyped form={form} name="role" id="pp-role" label="role" options={ROLES.map((r) => [r, r])} />
        <TypedField
          form={form}
          name="password"
          id="pp-pass"
          label="password (10 letters; leads need one)"
          type="password"
          autoComplete="new-password"
        />
        <Trouble problem={save.error} />
        <div className="built-keys">
          <Button type="submit" disabled={save.isPending}>
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
  const form = useReadForm(
    { name: neededWords('Write what it is called, like “hall tablet”.'), place: asItIs<string>() },
    { name: '', place: '' },
  )
  const make = form.submit(({ name, place }) => {
    link.mutate(
      { key: newKey(), name, areaId: idIn(shop.areas, place), stationId: idIn(shop.stations, place) },
      { onSuccess: () => form.begin({ ...form.all(), name: '' }) },
    )
  })
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
      <Form noValidate className="built-form" onSubmit={make}>
        <TypedField form={form} name="name" id="dv-name" label="what it is called" placeholder="hall tablet" />
        <PickTyped
          form={form}
          name="place"
          id="dv-place"
          label="where it belongs"
          none="the whole shop"
          options={[
            ...shop.areas.map((a) => [a.id, a.name] as const),
            ...shop.stations.map((s) => [s.id, s.name] as const),
          ]}
        />
        <Trouble problem={link.error ?? drop.error} />
        <div className="built-keys">
          <Button type="submit" disabled={link.isPending}>
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
