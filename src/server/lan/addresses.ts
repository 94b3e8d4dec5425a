import { hostname, networkInterfaces } from 'node:os'

/** IPv4 addresses under which others on the network reach this machine. */
export function lanAddresses(): string[] {
  const all = Object.values(networkInterfaces()).flatMap((list) => list ?? [])
  return [...new Set(all.filter((i) => i.family === 'IPv4' && !i.internal).map((i) => i.address))].sort()
}

/** Everything a certificate of this machine has to name. */
export const machineNames = (addresses: readonly string[]): string[] => [
  ...new Set(['localhost', '127.0.0.1', hostname().toLowerCase(), `${hostname().toLowerCase()}.local`, ...addresses]),
]
