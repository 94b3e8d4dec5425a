import { useMutation, useQueryClient } from '@tanstack/react-query'
import { correctAnswer, logAnswer, type Act, type CorrectRequest } from '@contract/logbook.ts'
import { postJson } from '@web/api/client.ts'
import { LIVE_KEYS } from '@web/live/keys.ts'
import { keepLast } from './last.ts'

const RETRIES = 3

function useRefresh() {
  const client = useQueryClient()
  return () => Promise.all(LIVE_KEYS.map((key) => client.invalidateQueries({ queryKey: [key] })))
}

/** Logs acts. The key is made once per act, so a retry after a lost answer does not log twice. */
export function useLog() {
  const refresh = useRefresh()
  return useMutation({
    mutationFn: (input: { key: string; acts: Act[] }) => postJson('/logbook', input, logAnswer),
    retry: (count, problem) => count < RETRIES && 'code' in problem && problem.code === 'no-link',
    onSuccess: (answer, input) => {
      keepLast({ acts: input.acts, logged: answer.logged })
      return refresh()
    },
  })
}
export function useUndo() {
  const refresh = useRefresh()
  return useMutation({
    mutationFn: (input: { key: string; eventIds: string[] }) => postJson('/logbook/undo', input, correctAnswer),
    onSuccess: () => {
      keepLast(null)
      return refresh()
    },
  })
}
export function useCorrect() {
  const refresh = useRefresh()
  return useMutation({
    mutationFn: (input: CorrectRequest) => postJson('/logbook/correct', input, correctAnswer),
    onSuccess: refresh,
  })
}
