import { Key } from '@web/kit/Keys.tsx'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { GUIDE_KEYS, type GuideKey } from '@core/guide/keys.ts'
import { type GuideAnswer } from '@contract/guide.ts'
import { useShop } from '@web/shopmodel/queries.ts'
import { PickOne } from '@web/kit/Field.tsx'
import { Waiting } from '@web/kit/Waiting.tsx'
import { useAddress } from '@web/kit/useAddress.ts'
import { GuideEnd } from './GuideEnd.tsx'
import { GuideSheet } from './GuideSheet.tsx'
import { guideTitle, minutesSentence } from './guidewords.ts'
import { useGuide } from './queries.ts'
import { StepWalk } from './StepWalk.tsx'

/** How a piece of work is done on this gun: as a sheet on a desk, step by step at the booth, on one page of paper. */
export function GuidePage() {
  const { get, put } = useAddress()
  const wanted = get('do')
  const asked = {
    stationId: get('gun') || null,
    familyId: get('family') || null,
    guide: GUIDE_KEYS.find((k) => k === wanted) ?? null,
  }
  const guide = useGuide(asked)
  const set = (change: Record<string, string | null>) => put(change, { isStep: true })
  if (!guide.data)
    return (
      <main className="guide" aria-busy={guide.isPending}>
        <Waiting says="Opening the guide" problem={guide.error} />
      </main>
    )
  if (guide.data.guide && get('at') === 'walk') return <Walked guide={guide.data} onLeave={() => set({ at: null })} />
  return (
    <main className="guide">
      {guide.data.guide ? (
        <OneGuide guide={guide.data} onWalk={() => set({ at: 'walk' })} />
      ) : (
        <h1 className="sentence">How it is done, {guide.data.name}.</h1>
      )}
      {guide.data.stationId === null ? (
        <WhichFamily familyId={guide.data.familyId} onPick={(f) => set({ family: f })} />
      ) : null}
      <Others guide={guide.data} onPick={(key) => set({ do: key })} />
    </main>
  )
}

function OneGuide({ guide, onWalk }: { guide: GuideAnswer; onWalk: () => void }) {
  const of = guide.stationId ? `stationId=${guide.stationId}` : `familyId=${guide.familyId ?? ''}`
  return (
    <>
      <div className="guide-head">
        <div>
          <h1 className="sentence">{guideTitle(guide)}.</h1>
          {guide.minutes ? <p className="dim">{minutesSentence(guide.minutes)}</p> : null}
        </div>
        <div className="guide-keys">
          {guide.guide === 'liner' && guide.stationId ? (
            <Link className="key key-low key-chalk" to={`/liner?gun=${guide.stationId}`}>
              Do the liner job
            </Link>
          ) : (
            <Key size="low" tone="chalk" onClick={onWalk}>
              Step by step
            </Key>
          )}
          <a
            className="key key-low"
            href={`/api/print/guide.pdf?${of}&guide=${guide.guide ?? ''}`}
            target="_blank"
            rel="noreferrer"
          >
            On one page
          </a>
        </div>
      </div>
      <GuideSheet guide={guide} />
    </>
  )
}

function WhichFamily({ familyId, onPick }: { familyId: string | null; onPick: (familyId: string) => void }) {
  const shop = useShop()
  return (
    <div className="built-form">
      <PickOne
        id="guide-family"
        label="for guns of"
        value={familyId ?? ''}
        options={(shop.data?.families ?? []).map((f) => [f.id, f.name])}
        onPick={onPick}
      />
    </div>
  )
}

function Others({ guide, onPick }: { guide: GuideAnswer; onPick: (key: GuideKey) => void }) {
  return (
    <section className="guide-others" aria-label="Other work on it">
      {guide.guide ? <h2>Other work on it</h2> : null}
      <div className="guide-list">
        {guide.guides
          .filter((g) => g.key !== guide.guide)
          .map((g) => (
            <Key key={g.key} size="low" onClick={() => onPick(g.key)}>
              {g.name} <span className="dim">{Math.max(1, Math.round(g.minutes))} min</span>
            </Key>
          ))}
      </div>
    </section>
  )
}

function Walked({ guide, onLeave }: { guide: GuideAnswer; onLeave: () => void }) {
  const go = useNavigate()
  const [beginMs] = useState(() => Date.now())
  return (
    <StepWalk
      name={guide.name}
      title={guide.title}
      steps={guide.steps}
      stationId={guide.stationId}
      onLeave={onLeave}
      ended={(state) => (
        <GuideEnd
          guide={guide}
          state={state}
          beginMs={beginMs}
          onDone={() => go(guide.stationId ? `/gun/${guide.stationId}` : '/guide')}
        />
      )}
    />
  )
}
