declare global {
  interface Window {
    /** Asked for by the page itself (`frame/first.js`), by path. */
    idleEarly?: Record<string, Promise<Response>>
  }
}

/** What the page itself asked for before this script was there; each is taken once, and null then. */
export function earlyAnswer(path: string): Promise<Response> | null {
  const early = globalThis.window?.idleEarly
  const answer = early?.[path]
  if (!early || !answer) return null
  delete early[path]
  return answer
}
