import { PickTyped, QuantityField, TypedField } from '@web/kit/TypedField.tsx'
import { asItIs, neededWords, quantity, useReadForm } from '@web/kit/readform.ts'
import { ownUnit } from '@core/units/quantity.ts'
import { Bare } from '@web/kit/Keys.tsx'
import { Button, Form } from 'react-bootstrap'
import { TIGHTNESS } from '@core/rightparts/facts.ts'
import { ASKEW } from '@core/rightparts/joints.ts'
import { type JointLine } from '@contract/rightparts.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { GUN_STATUS_WORD } from '@web/gunnow/SwapGun.tsx'
import { useGunStatus, useMakeGun, useSpares } from '@web/gunnow/queries.ts'
import { cable, minutes, twoFigures } from '@web/format/numbers.ts'
import { ago } from '@web/format/times.ts'
import { capital } from '@web/format/words.ts'
import { useJoints } from '@web/rightparts/queries.ts'
import { JOINT_WORD } from '@web/rightparts/words.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useSave } from '@web/shopmodel/queries.ts'

/** Guns that hang nowhere, and what the joints of each family tell about how tight they are made. */
export function GunsAndJoints({ shop }: { shop: ShopAnswer }) {
  return (
    <>
      <SpareGuns shop={shop} />
      <Joints shop={shop} />
    </>
  )
}

function SpareGuns({ shop }: { shop: ShopAnswer }) {
  const spares = useSpares(null)
  const status = useGunStatus()
  const guns = spares.data?.guns ?? []
  const ready = guns.filter((g) => g.status === 'ready').length
  return (
    <section aria-label="Spare guns">
      <h2>Spare guns</h2>
      <p className="small-print">
        One ready gun a family and a stoppage ends in minutes; the liner is changed later, off the floor. {ready} ready,{' '}
        {guns.length - ready} not.
      </p>
      <ul className="plain">
        {guns.map((g) => (
          <li key={g.gunId}>
            <strong>{g.name}</strong>{' '}
            <span className="dim">
              {[g.familyName, g.cableM ? cable(g.cableM, shop.site.units) : null].filter(Boolean).join(', ')}
            </span>{' '}
            {GUN_STATUS_WORD[g.status]}
            {g.sinceMs ? <span className="dim"> for {ago(g.sinceMs, Date.now())}</span> : null}{' '}
            <Bare
              disabled={status.isPending}
              onClick={() => status.mutate({ gunId: g.gunId, status: g.status === 'ready' ? 'toRefurbish' : 'ready' })}
            >
              {g.status === 'ready' ? 'it wants refurbishing' : 'it is ready'}
            </Bare>
          </li>
        ))}
      </ul>
      <Trouble problem={spares.error ?? status.error} />
      <NewGun shop={shop} />
    </section>
  )
}

function NewGun({ shop }: { shop: ShopAnswer }) {
  const make = useMakeGun()
  const cable = { of: 'cable', units: shop.site.units } as const
  const form = useReadForm(
    {
      name: neededWords('Write the number painted on it.'),
      familyId: asItIs<string>(),
      cableM: quantity({ ...cable, above: 0 }),
    },
    { name: '', familyId: '', cableM: '' },
  )
  const send = form.submit(({ name, familyId, cableM }) =>
    make.mutate({ name, familyId: familyId || null, cableM }, { onSuccess: () => form.put('name', '') }),
  )
  return (
    <Form noValidate className="built-form" onSubmit={send}>
      <TypedField form={form} name="name" id="sg-name" label="painted on it" />
      <PickTyped
        form={form}
        name="familyId"
        id="sg-fam"
        label="fit family"
        none="not told"
        options={shop.families.map((f) => [f.id, f.name])}
      />
      <QuantityField form={form} name="cableM" id="sg-len" label={`cable, ${ownUnit(cable)}`} />
      <Button type="submit" disabled={make.isPending}>
        A gun that hangs free
      </Button>
      <Trouble problem={make.error} />
    </Form>
  )
}

function Joints({ shop }: { shop: ShopAnswer }) {
  const joints = useJoints()
  const lines = joints.data?.joints ?? []
  return (
    <section aria-label="Joints">
      <h2>How tight joints are made</h2>
      {joints.data && lines.length === 0 ? (
        <p className="said dim">No trouble with a joint was logged yet: a gun’s page has “Joint trouble”.</p>
      ) : null}
      {lines.map((line) => (
        <JointBlock key={`${line.familyId} ${line.joint}`} line={line} shop={shop} />
      ))}
      <Trouble problem={joints.error} />
    </section>
  )
}

const per100 = (rate: JointLine['slackRate']) =>
  rate ? `${twoFigures(rate.rate)} in 100 times made (${twoFigures(rate.low)}–${twoFigures(rate.high)})` : ''

/** "Tips of Kelp: 14 too tight, 1 too slack": both ways, and what to do. */
export function jointSentence(line: JointLine): string {
  const step = TIGHTNESS[line.step - 1] ?? ''
  const to = line.to === null ? '' : (TIGHTNESS[line.to - 1] ?? '')
  const says = {
    'one tighter': `Make it one tighter: ${to} instead of ${step}.`,
    'one slacker': `Make it one slacker: ${to} instead of ${step}.`,
    stay: staySentence(line, step),
    'too few to tell': `Too few to tell; stay at ${step}.`,
  }[line.advise]
  return `${line.tight} too tight, ${line.slack} too slack${line.crossed > 0 ? `, ${line.crossed} crossed` : ''}. ${says}${askewSentence(line)}${twistSentence(line)}`
}

/** Why nozzles stood crooked: what is mended is that, and not the nozzle. */
function askewSentence({ askew }: JointLine): string {
  const told = ASKEW.flatMap((why) => (askew[why] ? [`${askew[why]} ${ASKEW_SHORT[why]}`] : []))
  return told.length === 0 ? '' : ` Crooked: ${told.join(', ')}.`
}
const ASKEW_SHORT = {
  askewThread: 'by a crossed thread',
  askewInsulator: 'by a loose insulator',
  askewNeck: 'by a bent neck',
  askewUntold: 'not explained',
} as const
/** An insulator that comes loose under pushed-on nozzles is a habit of the hand before it is a matter of tightness (P046). */
const twistSentence = ({ joint, slack, isPushOn }: JointLine): string =>
  joint === 'insulator' && slack > 0 && isPushOn
    ? ' Nozzles are pushed on here: turned the wrong way they unscrew it. Clockwise, off and on, comes before more tightness.'
    : ''

/** What speaks against the habit, and what helps in its place. */
function staySentence({ why, joint }: JointLine, step: string): string {
  const name = JOINT_WORD[joint] ?? joint
  if (why === 'least')
    return `Stay at ${step}: slacker a ${name} works loose. Clean threads, started by hand, and cold before it comes off help.`
  if (why === 'most') return `Stay at ${step}: tighter it seizes. Clean threads and the right spanner help.`
  if (why === 'rare') return `Stay at ${step}: that is rare.`
  return `Stay at ${step}.`
}

function JointBlock({ line, shop }: { line: JointLine; shop: ShopAnswer }) {
  const save = useSave('/shop/family')
  const family = shop.families.find((f) => f.id === line.familyId)
  const follow = () => {
    if (!family?.fit || line.to === null) return
    const tightness = { ...family.fit.tightness, [line.joint]: { step: line.to, sinceMs: 0 } }
    save.mutate({ id: family.id, name: family.name, fit: { ...family.fit, tightness } })
  }
  return (
    <article className="joint-block">
      <p>
        <strong>
          {line.familyName} {JOINT_WORD[line.joint] ?? line.joint}
        </strong>
        : {jointSentence(line)}
      </p>
      <p className="small-print">
        Too tight {per100(line.tightRate)}, about {minutes(line.tightMin)} lost; too slack {per100(line.slackRate)},
        about {minutes(line.slackMin)} (a guess of what each costs).{' '}
        {line.places.length > 0 ? `At ${line.places.map((p) => `${p.name} (${p.faults})`).join(', ')}. ` : ''}
        {line.diffusersPer100Tips === null
          ? ''
          : `${twoFigures(line.diffusersPer100Tips)} diffusers put on per 100 tips.`}
      </p>
      {line.to !== null && family?.fit ? (
        <Button disabled={save.isPending} onClick={follow}>
          {capital(TIGHTNESS[line.to - 1] ?? '')} from now on
        </Button>
      ) : null}
      <Trouble problem={save.error} />
    </article>
  )
}
