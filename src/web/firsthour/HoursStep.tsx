import { Link } from 'react-router'
import { type ShopAnswer } from '@contract/shop.ts'
import { Form } from 'react-bootstrap'
import { Key } from '@web/kit/Keys.tsx'
import { needed, useReadForm } from '@web/kit/readform.ts'
import { QuantityField } from '@web/kit/TypedField.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSaveStanding } from './queries.ts'

const HOURS = [0.5, 1, 2, 3, 4, 6]

/** About how long the arc is on in one shift: one tap, and wear is counted, as an estimate, until something counts it. */
export function HoursStep({ shop, area }: { shop: ShopAnswer; area: ShopAnswer['areas'][number] }) {
  const save = useSaveStanding()
  const form = useReadForm({ hours: needed({ of: 'hours', above: 0, to: 24 }) }, { hours: '' })
  const say = (arcHours: number) => save.mutate({ areaId: area.id, arcHours })
  const guns = shop.stations.filter((s) => s.areaId === area.id)
  const [first] = guns
  if (save.isSuccess)
    return (
      <>
        <h1 className="sentence">{area.name} counts from now on, as an estimate.</h1>
        <p className="said">
          A part you log has a life, one from a sheet you brought too, and Floor says when it is due. A shift total, a
          spool put on or a feeder that sends takes the place of the guess by itself.
        </p>
        <p className="bay-next">
          <Link className="key key-chalk" to="/">
            To Floor
          </Link>
          <Link className="key" to={`/look?area=${area.id}`}>
            Look at what is on {guns.length === 1 ? (first?.name ?? 'it') : `the ${guns.length} guns`}
          </Link>
        </p>
      </>
    )
  return (
    <>
      <h1 className="sentence">In one shift at {area.name}, about how long is a gun’s arc on?</h1>
      <p className="said dim">
        Arc time, not time at the booth: most hand welding is 1 to 3 hours in 8, training less, cells more.
      </p>
      <div className="bay-keys bay-hours">
        {HOURS.map((hours) => (
          <Key key={hours} disabled={save.isPending} onClick={() => say(hours)}>
            {hours === 0.5 ? '½ h' : `${hours} h`}
          </Key>
        ))}
      </div>
      <Form noValidate className="bay-typed" onSubmit={form.submit(({ hours }) => say(hours))}>
        <QuantityField form={form} name="hours" id="bay-hours" label="or so many hours" />
        <Key type="submit" size="low" disabled={save.isPending}>
          That is it
        </Key>
      </Form>
      <Trouble problem={save.error} />
      <p>
        <Link to="/">not now: to Floor</Link>
      </p>
    </>
  )
}
