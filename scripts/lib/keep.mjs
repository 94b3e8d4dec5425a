// Keeps a process up: started again when it ends by itself, with pauses that grow, until it ends too often to be worth it.
import { wait } from './machine.mjs'

export const PAUSES = { firstMs: 1000, mostMs: 60_000, steadyMs: 60_000, most: 6 }

/**
 * `start` answers a child process (a promise of one). It is started again after a pause that doubles each time; one that stayed up for `steadyMs` begins
 * anew. Ends itself `most` times in a row without that: `onGiveUp(code)`.
 * Answers { stop, pid, restart }: `stop(end)` ends it for good by `end(pid)`, `restart` kills it so that it is started again.
 */
export function keepUp({ start, onAgain = () => {}, onGiveUp, pauses = PAUSES }) {
  let child = null
  let isStopping = false
  let inARow = 0
  const begin = async () => {
    if (isStopping) return
    const sinceMs = Date.now()
    child = await start()
    // Stopped while it was being started.
    if (isStopping) return void child.kill('SIGTERM')
    child.once('exit', (code, signal) => void ended({ code, signal, sinceMs }))
  }
  const ended = async ({ code, signal, sinceMs }) => {
    child = null
    if (isStopping) return
    inARow = Date.now() - sinceMs >= pauses.steadyMs ? 1 : inARow + 1
    if (inARow > pauses.most) return onGiveUp(code ?? 1)
    const pauseMs = Math.min(pauses.mostMs, pauses.firstMs * 2 ** (inARow - 1))
    onAgain({ code, signal, pauseMs })
    await wait(pauseMs)
    await begin()
  }
  return {
    begin,
    pid: () => child?.pid ?? null,
    restart: () => child?.kill('SIGKILL'),
    stop: async (end) => {
      isStopping = true
      if (child?.pid) await end(child.pid)
    },
  }
}
