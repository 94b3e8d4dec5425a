import { Key } from '@web/kit/Keys.tsx'
import { PICTURES, type Cause, type Symptom } from '@core/diagnose/knowledge.ts'
import { useState } from 'react'
import { type Picture } from '@core/diagnose/knowledge.ts'
import { type Touched } from '@core/diagnose/touched.ts'
import { capital } from '@web/format/words.ts'
import { DrawnAnswer } from '@web/guide/Drawing.tsx'
import { SymptomPicture } from './Pictures.tsx'
import { PICTURE_WORD, TOUCHED_WORD } from './downwords.ts'

/** What is seen: a drawing each, then which of several, drawn where they are told apart by eye. */
export function PickSymptom({ symptoms, onPick }: { symptoms: readonly Symptom[]; onPick: (key: string) => void }) {
  const [picture, setPicture] = useState<Picture | null>(null)
  const of = (p: Picture) => symptoms.filter((s) => s.picture === p)
  const choose = (p: Picture) => {
    const [one, ...more] = of(p)
    if (one && more.length === 0) onPick(one.key)
    else setPicture(p)
  }
  if (picture)
    return (
      <>
        <p className="step-do">{capital(PICTURE_WORD[picture])}: which?</p>
        <div className={of(picture).some((s) => s.drawn) ? 'down-list is-two is-drawn' : 'down-list'}>
          {of(picture).map((s) => (
            <Key key={s.key} onClick={() => onPick(s.key)}>
              {s.drawn ? <DrawnAnswer of={s.drawn[0]} panel={s.drawn[1]} /> : null}
              <span>{capital(s.says)}</span>
            </Key>
          ))}
        </div>
        <Key size="low" onClick={() => setPicture(null)}>
          none of these
        </Key>
      </>
    )
  return (
    <>
      <p className="step-do">What is seen?</p>
      <div className="down-pictures">
        {PICTURES.filter((p) => of(p).length > 0).map((p) => (
          <Key key={p} className={p === 'else' ? 'is-else' : undefined} onClick={() => choose(p)}>
            <SymptomPicture of={p} />
            {capital(PICTURE_WORD[p])}
          </Key>
        ))}
      </div>
    </>
  )
}

const FIRST: readonly Touched[] = [
  'tip',
  'front',
  'spool',
  'size',
  'rolls',
  'liner',
  'gun',
  'moved',
  'hit',
  'setting',
  'nothing',
  'unknown',
]
/** Which setting: a pressure raised to keep going speaks of what holds the wire, not of too little. */
const SETTINGS: readonly Touched[] = ['pressureUp', 'pressureDown', 'setting']
/** It narrows most, and is asked before any check. */
export function PickTouched({ onPick }: { onPick: (touched: Touched) => void }) {
  const [isSetting, setSetting] = useState(false)
  return (
    <>
      <p className="step-do">{isSetting ? 'Which setting?' : 'What was touched last?'}</p>
      <p className="step-look">Before it went wrong. The fault is often where hands were last.</p>
      <div className="down-list is-two">
        {(isSetting ? SETTINGS : FIRST).map((t) => (
          <Key key={t} onClick={() => (t === 'setting' && !isSetting ? setSetting(true) : onPick(t))}>
            {capital(t === 'setting' && !isSetting ? 'a setting' : TOUCHED_WORD[t])}
          </Key>
        ))}
      </div>
      {isSetting ? (
        <Key size="low" onClick={() => setSetting(false)}>
          the others
        </Key>
      ) : null}
    </>
  )
}

/** Said by somebody who knows: a place on the path, then the cause. */
export function PickKnown(props: {
  place: string
  causes: readonly Cause[]
  onPick: (cause: string) => void
  onBack: () => void
}) {
  const { place, causes, onPick, onBack } = props
  return (
    <>
      <p className="step-do">{capital(place)}: what is it?</p>
      <div className="down-list">
        {causes.map((c) => (
          <Key key={c.key} onClick={() => onPick(c.key)}>
            {capital(c.says)}
          </Key>
        ))}
        {causes.length === 0 ? <p className="step-look">Nothing of this trouble lies there.</p> : null}
      </div>
      <Key size="low" onClick={onBack}>
        go on searching
      </Key>
    </>
  )
}
