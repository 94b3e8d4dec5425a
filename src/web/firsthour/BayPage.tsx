import { useState } from 'react'
import { Link } from 'react-router'
import { answersOf } from '@core/catalogue/answered.ts'
import { bayFrom, NO_ANSWERS, type BayAnswers, type BayQuestion } from '@core/catalogue/bay.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { Key, Plain } from '@web/kit/Keys.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { useIsPhone } from '@web/kit/useIsPhone.ts'
import { useIsLead } from '@web/people/queries.ts'
import { PhoneMore } from '@web/sections/PhoneMore.tsx'
import { useShop } from '@web/shopmodel/queries.ts'
import { HoursStep } from './HoursStep.tsx'
import { LimitsStep } from './LimitsStep.tsx'
import { AnswerKeys } from './AnswerKeys.tsx'
import { answerWords, ASK, ORDER } from './questions.tsx'
import { useSaveBay } from './queries.ts'

/** A bay from seven questions, then how long parts last and how much is welded: what makes a new shop worth something within ten minutes. */
export function BayPage() {
  const { get, put } = useAddress()
  const shop = useShop()
  const isLead = useIsLead()
  const isPhone = useIsPhone()
  if (!shop.data)
    return (
      <main className="bay">
        <Waiting says="Reading how the shop is set up" problem={shop.error} />
      </main>
    )
  const areas = shop.data.areas.filter((a) => shop.data.stations.some((s) => s.areaId === a.id))
  const area = areas.find((a) => a.id === get('area')) ?? areas[0]
  if (!area) return <NoBay />
  const step = get('step')
  const to = (next: string | null) => put({ area: area.id, step: next }, { isStep: true })
  return (
    <main className="bay">
      {step === 'limits' ? (
        <LimitsStep shop={shop.data} onNext={() => to('hours')} />
      ) : step === 'hours' ? (
        <HoursStep key={area.id} shop={shop.data} area={area} />
      ) : (
        <Questions
          key={area.id}
          shop={shop.data}
          area={area}
          areas={areas}
          isLead={isLead}
          onNext={() => to('limits')}
          onArea={(id) => put({ area: id })}
        />
      )}
      {isPhone ? <PhoneMore /> : null}
    </main>
  )
}

function NoBay() {
  return (
    <main className="bay">
      <h1 className="sentence">No guns yet: a bay is made of them.</h1>
      <p>
        <Link to="/">Floor asks for the numbers painted on them.</Link>
      </p>
    </main>
  )
}

type Area = ShopAnswer['areas'][number]
interface Props {
  shop: ShopAnswer
  area: Area
  areas: readonly Area[]
  isLead: boolean
  onNext: () => void
  onArea: (areaId: string) => void
}

function Questions({ shop, area, areas, isLead, onNext, onArea }: Props) {
  const before = answersOf(area.built, shop)
  const [answers, setAnswers] = useState(before)
  const [passed, setPassed] = useState<ReadonlySet<BayQuestion>>(new Set())
  const isOpenStill = (q: BayQuestion, of: BayAnswers) => of[q] === null && !passed.has(q)
  const [open, setOpen] = useState<BayQuestion | null>(() => ORDER.find((q) => before[q] === null) ?? null)
  const save = useSaveBay()
  const { units } = shop.site
  const draft = bayFrom(answers, units)
  const isSaid = JSON.stringify(answers) !== JSON.stringify(before)
  const answer = (question: BayQuestion, said: Partial<BayAnswers>) => {
    const next = { ...answers, ...said }
    setAnswers(next)
    setOpen(ORDER.find((q) => q !== question && isOpenStill(q, next)) ?? null)
  }
  const pass = (question: BayQuestion) => {
    setPassed(new Set([...passed, question]))
    setOpen(ORDER.find((q) => q !== question && isOpenStill(q, answers)) ?? null)
  }
  const others = areas.filter((a) => a.id !== area.id && a.built.wireId)
  return (
    <>
      <h1 className="sentence">{area.name}: seven questions, and each may be left.</h1>
      <Bays areas={areas} area={area} onArea={onArea} />
      {area.built.wireId || answers.wire ? null : (
        <AsAnother areas={others} onPick={(built) => setAnswers({ ...NO_ANSWERS, ...answersOf(built, shop) })} />
      )}
      <div className="bay-two">
        <ol className="plain bay-questions">
          {ORDER.map((question) => (
            <li key={question}>
              <Plain
                className="bay-line"
                aria-expanded={open === question}
                onClick={() => setOpen(open === question ? null : question)}
              >
                <span>{ASK[question].ask}</span>
                <strong>{answerWords(question, answers, units) ?? (passed.has(question) ? 'don’t know' : '')}</strong>
              </Plain>
              {open === question ? (
                <AnswerKeys
                  question={question}
                  answers={answers}
                  shop={shop}
                  onAnswer={(said) => answer(question, said)}
                  onPass={() => pass(question)}
                />
              ) : null}
            </li>
          ))}
        </ol>
        <section className="bay-makes" aria-label="What this makes">
          <h2>On a gun here</h2>
          <Makes draft={draft} isNew={isSaid} />
          {draft.doubts.map((doubt) => (
            <p key={doubt} className="bay-doubt" role="status">
              {doubt}
            </p>
          ))}
          <Trouble problem={save.error} />
          {isLead ? (
            <Key
              tone="chalk"
              disabled={save.isPending}
              onClick={() => (isSaid ? save.mutate({ areaId: area.id, answers }, { onSuccess: onNext }) : onNext())}
            >
              {isSaid ? `That is ${area.name}` : 'On to how long parts last'}
            </Key>
          ) : (
            <p className="small-print">To look at. A lead signs in to change it.</p>
          )}
        </section>
      </div>
    </>
  )
}

/** "As Main bay, except …": begun with its answers. */
function AsAnother({ areas, onPick }: { areas: readonly Area[]; onPick: (built: Area['built']) => void }) {
  if (areas.length === 0) return null
  return (
    <div className="bay-as">
      {areas.map((a) => (
        <Key key={a.id} size="low" onClick={() => onPick(a.built)}>
          As {a.name}, except …
        </Key>
      ))}
    </div>
  )
}

function Bays({ areas, area, onArea }: Pick<Props, 'areas' | 'area' | 'onArea'>) {
  if (areas.length < 2) return null
  return (
    <div className="look-areas">
      {areas.map((a) => (
        <Key key={a.id} size="low" aria-pressed={a.id === area.id} onClick={() => onArea(a.id)}>
          {a.name}
        </Key>
      ))}
    </div>
  )
}

/** What the answers make, in plain words; part numbers come when somebody has the bag in hand. */
function Makes({ draft, isNew }: { draft: ReturnType<typeof bayFrom>; isNew: boolean }) {
  const lines = [draft.wire?.name, draft.family?.name, draft.feeder?.name, ...draft.parts.map((p) => p.name)].filter(
    Boolean,
  )
  if (lines.length === 0) return <p className="dim">Nothing yet: answer one.</p>
  return (
    <>
      <ul className="plain bay-list">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      {isNew && draft.parts.length > 0 ? (
        <p className="small-print">
          Named for the wire; <Link to="/shop?part=parts">part numbers</Link> are filled in when you have the bag in
          hand.
        </p>
      ) : null}
    </>
  )
}
