/** Sheets say the same thing a thousand times: each wording is read once. */
export function eachOnce<T>(read: (text: string) => T): (text: string) => T {
  const known = new Map<string, T>()
  return (text) => {
    const kept = known.get(text)
    if (kept !== undefined || known.has(text)) return kept as T
    const value = read(text)
    known.set(text, value)
    return value
  }
}
