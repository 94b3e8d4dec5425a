import { PICTURES, type Cause, type Symptom } from '@core/diagnose/knowledge.ts'
import { useState } from 'react'
import { type Picture } from '@core/diagnose/knowledge.ts'
import { type Touched } from '@core/diagnose/touched.ts'
import { capital } from '@web/format/words.ts'
import { SymptomPicture } from './Pictures.tsx'
import { PICTURE_WORD, TOUCHED_WORD } from './downwords.ts'

/** What is seen: six drawings, then words where one of them is several things. */
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
        <div className="down-list">
          {of(picture).map((s) => (
            <button key={s.key} type="button" className="key" onClick={() => onPick(s.key)}>
              {capital(s.says)}
            </button>
          ))}
        </div>
        <button type="button" className="key key-low" onClick={() => setPicture(null)}>
          none of these
        </button>
      </>
    )
  return (
    <>
      <p className="step-do">What is seen?</p>
      <div className="down-pictures">
        {PICTURES.filter((p) => of(p).length > 0).map((p) => (
          <button key={p} type="button" className={p === 'else' ? 'key is-else' : 'key'} onClick={() => choose(p)}>
            <SymptomPicture of={p} />
            {capital(PICTURE_WORD[p])}
          </button>
        ))}
      </div>
    </>
  )
}

const FIRST: readonly Touched[] = ['tip', 'spool', 'moved', 'setting', 'nothing', 'unknown']
const MORE: readonly Touched[] = ['front', 'size', 'rolls', 'liner', 'gun']
/** It narrows most, and is asked before any check. */
export function PickTouched({ onPick }: { onPick: (touched: Touched) => void }) {
  const [isMore, setMore] = useState(false)
  return (
    <>
      <p className="step-do">What was touched last?</p>
      <p className="step-look">Before it went wrong. It narrows most.</p>
      <div className="down-list is-two">
        {(isMore ? MORE : FIRST).map((t) => (
          <button key={t} type="button" className="key" onClick={() => onPick(t)}>
            {capital(TOUCHED_WORD[t])}
          </button>
        ))}
      </div>
      <button type="button" className="key key-low" onClick={() => setMore(!isMore)}>
        {isMore ? 'the others' : 'something else'}
      </button>
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
          <button key={c.key} type="button" className="key" onClick={() => onPick(c.key)}>
            {capital(c.says)}
          </button>
        ))}
        {causes.length === 0 ? <p className="step-look">Nothing of this trouble lies there.</p> : null}
      </div>
      <button type="button" className="key key-low" onClick={onBack}>
        go on searching
      </button>
    </>
  )
}
