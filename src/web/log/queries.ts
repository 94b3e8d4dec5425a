import { useMutation, useQueryClient } from '@tanstack/react-query'
import { correctAnswer, logAnswer, type Act, type CorrectRequest, type LogAnswer } from '@contract/logbook.ts'
import { ApiError, OFFLINE, postJson } from '@web/api/client.ts'
import { donePhrase } from '@web/format/words.ts'
import { LIVE_KEYS } from '@web/live/keys.ts'
import { note } from '@web/offline/device.ts'
import { keepLast } from './last.ts'

const isNoLink = (problem: unknown) => problem instanceof ApiError && problem.code === OFFLINE

/** No link: kept on the device at its own time, under its own key, so that it is one act however often it goes. */
async function keptHere(input: { key: string; acts: Act[] }, atMs: number): Promise<LogAnswer> {
  const acts = input.acts.map((a) => ({ ...a, happenedMs: a.happenedMs ?? atMs }))
  const [first] = acts
  const says = donePhrase(first?.act ?? '', first?.position ?? null)
  await note({ kind: 'post', path: '/logbook', key: input.key, body: { acts }, atMs, says })
  return { logged: [], isRepeat: false }
}

function useRefresh() {
  const client = useQueryClient()
  return () => Promise.all(LIVE_KEYS.map((key) => client.invalidateQueries({ queryKey: [key] })))
}

/** Logs acts. The key is made once per act, so a retry after a lost answer does not log twice. */
export function useLog() {
  const refresh = useRefresh()
  return useMutation({
    mutationFn: async (input: { key: string; acts: Act[] }) => {
      const atMs = Date.now()
      try {
        return await postJson('/logbook', input, logAnswer)
      } catch (problem) {
        if (!isNoLink(problem)) throw problem
        return keptHere(input, atMs)
      }
    },
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
