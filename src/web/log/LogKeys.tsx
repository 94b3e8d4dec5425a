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
          <button
            type="button"
            key={`${c.act} ${c.position}`}
            className="key"
            disabled={driver.isSending}
            onClick={() => driver.tell({ type: 'chose', choice: c })}
          >
            {donePhrase(c.act, c.position)}
          </button>
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
        <button type="button" key={reason} className="key" onClick={() => tell({ type: 'reason', reason })}>
          {capital(REASON_WORD[reason])}
        </button>
      ))}
      <button type="button" className="key" onClick={() => tell({ type: 'reason', reason: 'notSaid' })}>
        Not said
      </button>
      <div className="log-more">
        {[2, 3].map((n) => (
          <button
            type="button"
            key={n}
            className={state.count === n ? 'key key-low is-on' : 'key key-low'}
            aria-pressed={state.count === n}
            onClick={() => tell({ type: 'times', count: n })}
          >
            ×{n}
          </button>
        ))}
        <button
          type="button"
          className={state.isEarlier ? 'key key-low is-on' : 'key key-low'}
          aria-pressed={state.isEarlier}
          onClick={() => tell({ type: 'earlier' })}
        >
          earlier today
        </button>
        <button type="button" className="key key-low" onClick={() => tell({ type: 'back' })}>
          back
        </button>
      </div>
    </>
  )
}
