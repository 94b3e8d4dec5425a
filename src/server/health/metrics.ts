import { type NextFunction, type Request, type Response } from 'express'
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client'

/** What of this server can be counted, in the usual text form: no names, no values of the shop. */
export class Metrics {
  readonly registry = new Registry()
  private readonly took: Histogram
  private readonly faults: Counter

  constructor(of: { isDatabaseThere: () => boolean; listeners: () => number; clockAheadMs: () => number }) {
    collectDefaultMetrics({ register: this.registry })
    this.took = new Histogram({
      name: 'idle_http_seconds',
      help: 'Time to answer, by route',
      labelNames: ['method', 'route', 'status'],
      buckets: [0.01, 0.03, 0.1, 0.2, 0.5, 1, 3, 10, 30],
      registers: [this.registry],
    })
    this.faults = new Counter({ name: 'idle_faults_total', help: 'Faults written down', registers: [this.registry] })
    const gauge = (name: string, help: string, value: () => number) =>
      new Gauge({
        name,
        help,
        registers: [this.registry],
        collect() {
          this.set(value())
        },
      })
    gauge('idle_database_there', '1 while the database answers', () => Number(of.isDatabaseThere()))
    gauge('idle_clock_ahead_seconds', 'How far the machine’s clock was set back', () => of.clockAheadMs() / 1000)
    gauge('idle_live_listeners', 'Pages that wait for changes', of.listeners)
  }

  fault = (): void => this.faults.inc()

  /** Times each request by the route's pattern, never by its address: that would be one row a gun. */
  count = (req: Request, res: Response, next: NextFunction): void => {
    const end = this.took.startTimer()
    res.once('finish', () => {
      const pattern = (req as { route?: { path?: unknown } }).route?.path
      const route = typeof pattern === 'string' ? `${req.baseUrl}${pattern}` : 'other'
      end({ method: req.method, route, status: String(res.statusCode) })
    })
    next()
  }
}
