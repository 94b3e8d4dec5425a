import { useCallback, useEffect, useRef, useState } from 'react'
import { newKey } from '@web/api/client.ts'
import { actOf, logStep, type LogEvent, type LogState } from './logkeys.ts'
import { useLog } from './queries.ts'

/** Drives the two-tap log: the pure steps on one side, the clock and the server on the other. */
export function useLogKeys(stationIds: readonly string[], onSent?: () => void) {
  const [state, setState] = useState<LogState>({ step: 'choosing' })
  const log = useLog()
  const at = useRef({ state, stationIds, onSent })
  at.current = { state, stationIds, onSent }
  const { mutate } = log
  const tell = useCallback(
    (event: LogEvent) => {
      const nowMs = Date.now()
      const { state: next, send } = logStep(at.current.state, event, nowMs)
      at.current.state = next
      setState(next)
      if (!send) return
      mutate(
        { key: newKey(), acts: at.current.stationIds.map((id) => actOf(id, send, nowMs)) },
        { onSuccess: () => at.current.onSent?.() },
      )
    },
    [mutate],
  )
  useEffect(() => {
    if (state.step !== 'asking') return
    const timer = setInterval(() => tell({ type: 'tick' }), 250)
    return () => clearInterval(timer)
  }, [state.step, tell])
  return { state, tell, isSending: log.isPending, problem: log.error }
}
export type LogKeysDriver = ReturnType<typeof useLogKeys>
