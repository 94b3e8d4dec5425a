import { DomainError } from '@server/problem/problem.ts'
import { openThread } from '@server/thread/open.ts'
import { type Printed, type Sheet } from './pdf.ts'

/**
 * Paper is set in a thread of its own: nobody who asks for Floor waits for two hundred cards.
 *
 * 1. Every sheet is answered once, with paper or a refusal; one that takes over five minutes ends the thread and is refused.
 * 2. The thread is started by the first sheet, and anew after it fell over.
 * 3. Nothing asked for a while, it is ended: what hundreds of cards took of memory is given back.
 */
type Said = { id: number; pdf: Uint8Array; pages: number } | { id: number; problem: string }
/** Five hundred cards on an old machine that has other things to do. */
const LONGEST_MS = 5 * 60_000
const IDLE_MS = 15_000

let thread: ReturnType<typeof openThread> | null = null
let idle: NodeJS.Timeout | undefined
let last = 0
const waiting = new Map<number, (said: Said) => void>()

function opened(): ReturnType<typeof openThread> {
  if (thread) return thread
  const made = openThread(new URL('./printthread.js', import.meta.url), {})
  made.on('message', (said: Said) => waiting.get(said.id)?.(said))
  const fallen = () => {
    if (thread === made) thread = null
    for (const [id, tell] of waiting) tell({ id, problem: 'the thread fell over' })
  }
  made.once('error', fallen).once('exit', fallen)
  // It keeps nobody from stopping.
  made.unref()
  thread = made
  return made
}

export function pdfOf(sheet: Sheet): Promise<Printed> {
  clearTimeout(idle)
  return new Promise((done, fail) => {
    const id = ++last
    const timer = setTimeout(() => void thread?.terminate(), LONGEST_MS)
    waiting.set(id, (said) => {
      clearTimeout(timer)
      waiting.delete(id)
      endWhenIdle()
      if ('pdf' in said) return done({ pdf: Buffer.from(said.pdf), pages: said.pages })
      fail(
        Object.assign(
          new DomainError('busy', 'That could not be put on paper now.', ['Try again, or fewer at once.']),
          { cause: new Error(said.problem) },
        ),
      )
    })
    opened().postMessage({ id, sheet })
  })
}

function endWhenIdle(): void {
  clearTimeout(idle)
  if (waiting.size > 0) return
  idle = setTimeout(() => void thread?.terminate(), IDLE_MS)
  idle.unref()
}
