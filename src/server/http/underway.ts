import { type NextFunction, type Request, type Response } from 'express'
import { DomainError } from '@server/problem/problem.ts'

/** Requests under way, so that a server that stops lets them end first; lines that never end are not counted. */
export class Underway {
  private n = 0
  private isStopping = false
  private waiting: (() => void)[] = []

  count = (req: Request, res: Response, next: NextFunction): void => {
    if (this.isStopping)
      throw new DomainError('busy', 'The server is being stopped.', ['Try again in a moment: nothing was written.'])
    if (req.path.endsWith('/changes')) return next()
    this.n++
    res.once('close', () => {
      this.n--
      if (this.n === 0) this.waiting.forEach((done) => done())
    })
    next()
  }

  isEnding = (): boolean => this.isStopping

  /** No new ones from now on; answers when those under way have ended, or after so long. */
  stop(withinMs: number): Promise<void> {
    this.isStopping = true
    if (this.n === 0) return Promise.resolve()
    return new Promise((done) => {
      const timer = setTimeout(done, withinMs)
      this.waiting.push(() => {
        clearTimeout(timer)
        done()
      })
    })
  }
}
