import { type StationId } from '@core/ids/id.ts'

/** Whoever asks a server: nothing of the server itself is loaded for it, so that journeys can use it as well. */

export interface Answer<T> {
  status: number
  body: T
}
/** A browser's worth of cookies. */
export class Client {
  private readonly cookies: Map<string, string>
  /** Set: what is written was noted then, on a device without a link. */
  notedMs: number | string | null = null
  constructor(
    readonly url: string,
    cookies: Record<string, string> = {},
  ) {
    this.cookies = new Map(Object.entries(cookies))
  }

  async ask<T>(method: 'GET' | 'POST', path: string, body?: unknown): Promise<Answer<T>> {
    const response = await fetch(`${this.url}/api${path}`, {
      method,
      headers: {
        cookie: this.cookie(),
        ...(method === 'POST' ? { 'content-type': 'application/json', ...this.writing() } : {}),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    for (const cookie of response.headers.getSetCookie()) {
      const [pair = ''] = cookie.split(';')
      const [name = '', value = ''] = pair.split('=')
      this.cookies.set(name, value)
    }
    const text = await response.text()
    return {
      status: response.status,
      body: (response.headers.get('content-type')?.startsWith('application/json;') ? JSON.parse(text) : text) as T,
    }
  }
  private writing = () => ({
    'x-idle-spool': '1',
    ...(this.notedMs === null ? {} : { 'x-happened': String(this.notedMs) }),
  })
  private cookie = () => [...this.cookies].map(([k, v]) => `${k}=${v}`).join('; ')
  /** A file, as it is. */
  async send<T>(path: string, bytes: Uint8Array): Promise<Answer<T>> {
    const response = await fetch(`${this.url}/api${path}`, {
      method: 'POST',
      headers: { cookie: this.cookie(), 'content-type': 'application/octet-stream', ...this.writing() },
      body: new Uint8Array(bytes),
    })
    return { status: response.status, body: (await response.json()) as T }
  }
  bytes = async (path: string): Promise<Buffer> =>
    Buffer.from(await (await fetch(`${this.url}/api${path}`, { headers: { cookie: this.cookie() } })).arrayBuffer())
  /** The same person before another server. */
  at = (url: string): Client => new Client(url, Object.fromEntries(this.cookies))
  get = <T>(path: string) => this.ask<T>('GET', path)
  post = <T>(path: string, body: unknown) => this.ask<T>('POST', path, body)
}

export const LEAD = { name: 'Lead', password: 'a long password' }

let key = 0
export const nextKey = () => `test-key-${key++}`

/** Places by number, as their ids by name. */
export async function makePlaces(
  lead: Pick<Client, 'post'>,
  names: string,
  over: Record<string, unknown> = {},
): Promise<Map<string, StationId>> {
  const { body } = await lead.post<{ made: { stationId: StationId; name: string }[] }>('/shop/places', {
    key: nextKey(),
    names,
    areaName: 'Bay A',
    ...over,
  })
  return new Map(body.made.map((m) => [m.name, m.stationId]))
}
