import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { type GuideKey } from '@core/guide/keys.ts'
import { type GuideAnswer, type GuideStep } from '@contract/guide.ts'
import { field, PickOne, TextField, type Option } from '@web/kit/Field.tsx'
import { Trouble } from '@web/kit/Trouble.tsx'
import { useGuideNote } from './queries.ts'

type Whose = Parameters<ReturnType<typeof useGuideNote>['mutate']>[0]['familyId']
/** Guides whose hand is on the feeder or the machine: what differs there differs by feeder type, and not by the gun that hangs on it. */
const AT_FEEDER: ReadonlySet<string> = new Set<GuideKey>([
  ...(['rolls', 'guides', 'wire', 'tail', 'nest', 'plug', 'cylinder', 'machine'] as const),
])
const whoseOf = ({ familyId, familyName, feederType }: GuideAnswer): Option<Whose>[] => [
  ...(familyId ? [[familyId, `family ${familyName ?? ''}`] as const] : []),
  ...(feederType ? [[feederType.id, `feeder ${feederType.name}`] as const] : []),
  ['*', 'every gun'],
]
const usualWhose = (guide: GuideAnswer): Whose =>
  (AT_FEEDER.has(guide.guide ?? '') ? guide.feederType?.id : undefined) ?? guide.familyId ?? '*'

/** The lead's own words at a step: beside, or in place of what it says. Cautions, gates and the order stay as they are. */
export function OwnWordsForm(props: { guide: GuideAnswer; step: string; own: GuideStep['own']; onDone: () => void }) {
  const { guide, step, own } = props
  const send = useGuideNote()
  const [words, setWords] = useState(own?.words ?? '')
  const [isInstead, setInstead] = useState(own?.isInstead ?? false)
  const [whose, setWhose] = useState<Whose>(usualWhose(guide))
  const id = `own-${step}`
  const say = (text: string) =>
    send.mutate(
      {
        guide: guide.guide ?? 'tip',
        step,
        familyId: whose,
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
      <PickOne id={`${id}-whose`} label="for which guns" value={whose} options={whoseOf(guide)} onPick={setWhose} />
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
