import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type GuideAnswer, type GuideStep } from '@contract/guide.ts'
import { field, TextField } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useGuideNote } from './queries.ts'

/** The lead's own words at a step: beside, or in place of what it says. Cautions, gates and the order stay as they are. */
export function OwnWordsForm(props: { guide: GuideAnswer; step: string; own: GuideStep['own']; onDone: () => void }) {
  const { guide, step, own } = props
  const send = useGuideNote()
  const [words, setWords] = useState(own?.words ?? '')
  const [isInstead, setInstead] = useState(own?.isInstead ?? false)
  const [isForAll, setForAll] = useState(guide.familyId === null)
  const id = `own-${step}`
  const say = (text: string) =>
    send.mutate(
      {
        guide: guide.guide ?? 'tip',
        step,
        familyId: isForAll ? '*' : (guide.familyId ?? '*'),
        words: text,
        isInstead: step !== '*' && isInstead,
      },
      { onSuccess: props.onDone },
    )
  return (
    <form
      className="own-form"
      onSubmit={(e) => {
        e.preventDefault()
        say(words)
      }}
    >
      <TextField id={id} label="in your own words" as="textarea" rows={2} maxLength={400} {...field(words, setWords)} />
      {step === '*' ? null : (
        <Form.Check
          id={`${id}-instead`}
          label="in place of what it says (cautions and the look stay)"
          checked={isInstead}
          onChange={(e) => setInstead(e.target.checked)}
        />
      )}
      {guide.familyId ? (
        <Form.Check
          id={`${id}-all`}
          label={`for every family, not only ${guide.familyName ?? 'this one'}`}
          checked={isForAll}
          onChange={(e) => setForAll(e.target.checked)}
        />
      ) : null}
      <div className="own-keys">
        <Button type="submit" variant="chalk" disabled={send.isPending || words.trim() === ''}>
          Keep it
        </Button>
        {own ? (
          <Button variant="" disabled={send.isPending} onClick={() => say('')}>
            Take it back
          </Button>
        ) : null}
      </div>
      <Trouble problem={send.error} />
    </form>
  )
}
