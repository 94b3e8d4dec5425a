import { Curve } from './Curve.tsx'
import { LIFE_BYS, type LifeAnswer } from '@contract/life.ts'
import { type Units } from '@web/format/numbers.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { useMe } from '@web/people/queries.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { Blade } from './Blade.tsx'
import {
  BY_WORD,
  lifeSentence,
  moneySentence,
  neededWords,
  notSaidWords,
  reasonWords,
  seenWords,
  shapeWords,
  shareWords,
  wireWords,
  wornWhereWords,
} from './lifewords.ts'
import { LinerSigns } from './LinerSigns.tsx'
import { useLife } from './queries.ts'
import { Schools } from './Schools.tsx'
import { Alongside, Compared, EachLife, Hungry, Longer } from './Told.tsx'
import { Tryouts } from './Tryouts.tsx'
import { Word } from './Word.tsx'

/** How long do parts last here, and when is changing cheapest? */
export function LifePage() {
  const { get, put: putAll } = useAddress()
  const units = useMe().data?.units ?? 'metric'
  const isPhone = useIsPhone()
  const life = useLife({
    kind: get('kind'),
    where: get('where'),
    by: get('by'),
    notSaid: get('notSaid'),
    unsure: get('unsure'),
  })
  // The part that was marked belongs to the row that was shown.
  const put = (name: string, value: string) => putAll({ [name]: value, at: null })
  if (!life.data)
    return (
      <main className="walk" aria-busy={life.isPending}>
        {life.isPending ? <h1 className="sentence dim">Fitting lives …</h1> : null}
        <Trouble problem={life.error} />
      </main>
    )
  const at = life.data
  const marked = Number(get('at')) > 0 ? Number(get('at')) : null
  return (
    <main className="walk payback life" aria-busy={life.isPlaceholderData}>
      <h1 className="sentence">{lifeSentence(at, units)}</h1>
      <p className="life-money">
        {moneySentence(at, units)} {neededWords(at)}
      </p>
      <p className="honesty dim">
        {shareWords(at)} {shapeWords(at)} {wireWords(at, units)} {at.wornWhere ? wornWhereWords(at.wornWhere) : ''}
        {at.progress ? ` Fitting lives for Floor and the guns: ${at.progress} groups.` : ''}
      </p>
      <Which at={at} get={get} put={put} />
      <Trouble problem={life.error} />
      <div className="life-two">
        {at.strokes.length > 0 ? <Blade key={`${at.kind} ${at.where}`} at={at} marked={marked} units={units} /> : null}
        <div>
          <Schools at={at} units={units} />
          <Hungry at={at} />
        </div>
      </div>
      <LinerSigns key={`${at.kind} ${at.where}`} at={at} units={units} />
      <Compared at={at} units={units} />
      <More at={at} units={units} />
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

interface WhichProps {
  at: LifeAnswer
  get: (name: string) => string
  put: (name: string, value: string) => void
}
function Which({ at, get, put }: WhichProps) {
  return (
    <div className="walk-which">
      <PickOne
        id="life-kind"
        label="Part"
        value={at.kind}
        options={at.kinds.map((k) => [k.key, `${k.name} (${k.n})`] as const)}
        onPick={(k) => put('kind', k)}
      />
      <PickOne
        id="life-where"
        label="Where"
        value={at.where}
        options={at.wheres.map((w) => [w.key, w.name] as const)}
        onPick={(w) => put('where', w)}
      />
      <PickOne
        id="life-by"
        label="Side by side"
        value={at.by ?? ''}
        none="nothing"
        options={LIFE_BYS.map((by) => [by, `by ${BY_WORD[by]}`] as const)}
        onPick={(by) => put('by', by)}
      />
      {at.reasons.some((r) => r.reason === 'notSaid') ? (
        <PickOne
          id="life-unsaid"
          label="What nobody said"
          value={get('notSaid')}
          none="as the others"
          options={[
            ['worn', 'count as worn'],
            ['cut', 'leave open'],
          ]}
          onPick={(how) => put('notSaid', how)}
        />
      ) : null}
      {at.seen.unsure > 0 ? (
        <PickOne
          id="life-unsure"
          label="Where the bench was not sure"
          value={get('unsure')}
          none="by the reason said"
          options={[
            ['found', 'by what it showed'],
            ['open', 'leave open'],
          ]}
          onPick={(how) => put('unsure', how)}
        />
      ) : null}
    </div>
  )
}

function More({ at, units }: { at: LifeAnswer; units: Units }) {
  return (
    <>
      <Longer at={at} />
      <Alongside at={at} />
      <Tryouts at={at} />
      <section aria-label="What it rests on">
        <h2>What it rests on</h2>
        <p>
          {seenWords(at, units)} {notSaidWords(at, units)}{' '}
          {at.reasons.length > 0 ? `Why they came out: ${reasonWords(at, units)}.` : ''}
        </p>
        <Word key={`${at.kind} ${at.classKey ?? ''}`} at={at} units={units} />
        {at.curve.length > 0 ? (
          <details>
            <summary>The curve, and the log beside it</summary>
            <Curve at={at} units={units} />
          </details>
        ) : null}
        {at.strokes.length > 0 ? <EachLife at={at} units={units} /> : null}
      </section>
    </>
  )
}
