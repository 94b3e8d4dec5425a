import { useMutation, useQueryClient } from '@tanstack/react-query'
import { correctAnswer, logAnswer, type Act, type CorrectRequest } from '@contract/logbook.ts'
import { postJson } from '@web/api/client.ts'
import { donePhrase } from '@web/format/words.ts'
import { LIVE_KEYS } from '@web/live/keys.ts'
import { sendOrKeep } from '@web/offline/keep.ts'
import { keepLast } from '@web/offline/last.ts'

function useRefresh() {
  const client = useQueryClient()
  return () => Promise.all(LIVE_KEYS.map((key) => client.invalidateQueries({ queryKey: [key] })))
}

/** Logs acts. The key is made once per act, so a retry after a lost answer does not log twice. */
export function useLog() {
  const refresh = useRefresh()
  return useMutation({
    mutationFn: ({ key, acts }: { key: string; acts: Act[] }) => {
      const [first] = acts
      const says = donePhrase(first?.act ?? '', first?.position ?? null)
      return sendOrKeep('/logbook', { body: { key, acts }, says }, logAnswer)
    },
    onSuccess: (answer, input) => {
      if (answer) keepLast({ acts: input.acts, logged: answer.logged })
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
