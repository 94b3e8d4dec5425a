import { Key } from '@web/kit/Keys.tsx'
import { type OutReason, type Position } from '@core/path/columns.ts'
import { capital, donePhrase, REASON_WORD } from '@web/format/words.ts'
import { Trouble } from '@web/kit/Trouble.tsx'
import { type Choice } from './logkeys.ts'
import { type LogKeysDriver } from './useLogKeys.ts'

/** Big keys: what did you do, then why it came out. Both taps land in the same place. */
export function LogKeys(props: {
  driver: LogKeysDriver
  choices: readonly Choice[]
  reasonsOf: (position: Position) => readonly OutReason[]
}) {
  const { driver, choices } = props
  return (
    <section className="log-keys" aria-label="Log">
      <Trouble problem={driver.problem} />
      {driver.state.step === 'asking' ? (
        <Reasons
          driver={driver}
          reasons={driver.state.choice.position ? props.reasonsOf(driver.state.choice.position) : []}
        />
      ) : (
        choices.map((c) => (
          <Key
            key={`${c.act} ${c.position}`}
            disabled={driver.isSending}
            onClick={() => driver.tell({ type: 'chose', choice: c })}
          >
            {donePhrase(c.act, c.position)}
          </Key>
        ))
      )}
    </section>
  )
}

function Reasons({ driver, reasons }: { driver: LogKeysDriver; reasons: readonly OutReason[] }) {
  const { state, tell } = driver
  if (state.step !== 'asking') return null
  return (
    <>
      <p className="log-ask">
        <strong>{donePhrase(state.choice.act, state.choice.position)}.</strong> Why did the old one come out?
      </p>
      {reasons.map((reason) => (
        <Key key={reason} onClick={() => tell({ type: 'reason', reason })}>
          {capital(REASON_WORD[reason])}
        </Key>
      ))}
      <Key onClick={() => tell({ type: 'reason', reason: 'notSaid' })}>Not said</Key>
      <div className="log-more">
        {[2, 3].map((n) => (
          <Key
            key={n}
            size="low"
            className={state.count === n ? 'is-on' : undefined}
            aria-pressed={state.count === n}
            onClick={() => tell({ type: 'times', count: n })}
          >
            ×{n}
          </Key>
        ))}
        <Key
          size="low"
          className={state.isEarlier ? 'is-on' : undefined}
          aria-pressed={state.isEarlier}
          onClick={() => tell({ type: 'earlier' })}
        >
          earlier today
        </Key>
        <Key size="low" onClick={() => tell({ type: 'back' })}>
          back
        </Key>
      </div>
    </>
  )
}
