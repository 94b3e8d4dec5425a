import { Bare } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { newlyHeld } from '@core/guide/cautions.ts'
import { type GuideAnswer, type GuideStep } from '@contract/guide.ts'
import { when } from '@web/format/times.ts'
import { useIsLead } from '@web/people/queries.ts'
import { Photos } from '@web/photo/Photos.tsx'
import { Drawing } from './Drawing.tsx'
import { byPower } from './guidewords.ts'
import { OwnWordsForm } from './OwnWords.tsx'

/** The whole guide on a desk: what to take along, every step with its caution and drawing, the shop's own words beside. */
export function GuideSheet({ guide }: { guide: GuideAnswer }) {
  const isLead = useIsLead()
  const [isOwn, setOwn] = useState(false)
  return (
    <>
      <TakeAlong guide={guide} />
      {guide.own ? <p className="step-own">{guide.own.words}</p> : null}
      <div className="guide-steps">
        {byPower(guide.steps).map((group) => (
          <section key={group.from} aria-label={`${group.word}, from step ${group.from}`}>
            <h2 className={group.isLive ? 'step-power is-live' : 'step-power'}>{group.word}</h2>
            <ol start={group.from}>
              {group.steps.map((step) => (
                <SheetStep
                  key={step.key}
                  step={step}
                  guide={guide}
                  cautions={newCautions(guide.steps, step)}
                  isOwn={isOwn}
                />
              ))}
            </ol>
          </section>
        ))}
      </div>
      {guide.follows.length > 0 ? (
        <p className="said">
          Follows from it, and stands on the gun till it is said: {guide.follows.join('; ').toLowerCase()}.
        </p>
      ) : null}
      <p className="small-print">
        The steps follow from how the shop says its guns are built and from its house rules; tightness and minutes
        marked as a guess are the trade’s. The maker’s manual and the site’s lock-out practice come first.
      </p>
      <WholeNote guide={guide} isOwn={isOwn} />
      {isLead ? (
        <Bare aria-pressed={isOwn} onClick={() => setOwn(!isOwn)}>
          {isOwn ? 'done with our own words' : 'say steps in our own words …'}
        </Bare>
      ) : null}
    </>
  )
}

function TakeAlong({ guide }: { guide: GuideAnswer }) {
  const { put, tools } = guide
  if (!put && tools.length === 0) return null
  return (
    <p className="said">
      Take along:{' '}
      {put ? (
        <>
          <strong>
            {put.name} ({put.code})
          </strong>
          {put.onHand === null ? '' : put.onHand > 0 ? `, ${put.onHand} on the shelf` : ', none on the shelf'}
          {tools.length > 0 ? '; ' : '.'}
        </>
      ) : null}
      {tools.length > 0 ? `${tools.join(', ')}.` : ''}
    </p>
  )
}

/** On a sheet a caution stands where it first holds; step by step it stands at every step. */
export function newCautions(steps: readonly GuideStep[], step: GuideStep): GuideStep['cautions'] {
  return newlyHeld(step.cautions, steps[steps.indexOf(step) - 1]?.cautions)
}

function SheetStep(props: { step: GuideStep; guide: GuideAnswer; cautions: GuideStep['cautions']; isOwn: boolean }) {
  const { step, guide } = props
  const [isOpen, setOpen] = useState(false)
  const isInstead = step.own?.isInstead
  return (
    <li>
      <strong>{isInstead ? step.own?.words : step.do}</strong>
      {step.look ? <span> {step.look}</span> : null}
      {step.own && !isInstead ? <p className="step-own">{step.own.words}</p> : null}
      {props.cautions.map((c) => (
        <p key={c.hazard} className="step-hazard">
          {c.words}
        </p>
      ))}
      {step.own ? (
        <p className="small-print">
          The shop’s words{step.own.by ? `, ${step.own.by}` : ''}, {when(step.own.atMs, Date.now(), guide.zone)}.
        </p>
      ) : null}
      {step.drawing ? <Drawing of={step.drawing} /> : null}
      {step.byRule && step.school ? <p className="small-print">House rule here: {step.school}.</p> : null}
      {props.isOwn ? (
        <Bare className="small-print" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {step.own ? 'our words here …' : 'in our own words …'}
        </Bare>
      ) : null}
      {isOpen && props.isOwn ? (
        <OwnWordsForm guide={guide} step={step.key} own={step.own} onDone={() => setOpen(false)} />
      ) : null}
    </li>
  )
}

/** Words and photos for the guide as a whole: what one remembers it by. */
function WholeNote({ guide, isOwn }: { guide: GuideAnswer; isOwn: boolean }) {
  const [isOpen, setOpen] = useState(false)
  return (
    <section className="guide-own" aria-label="Our own photos and words">
      <h2>Our own</h2>
      <Photos of={{ type: 'guide', key: `${guide.guide ?? ''} ${guide.familyId ?? '*'}` }} word="a photo of ours" />
      {isOwn ? (
        <Bare aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {guide.own ? 'our own words …' : 'a word of ours to remember it by …'}
        </Bare>
      ) : null}
      {isOpen && isOwn ? <OwnWordsForm guide={guide} step="*" own={guide.own} onDone={() => setOpen(false)} /> : null}
    </section>
  )
}
