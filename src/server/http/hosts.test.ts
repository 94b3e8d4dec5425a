import { hostname } from 'node:os'
import { expect, it } from 'vitest'
import { isOurs } from './hosts.ts'

it.each([
  ['127.0.0.1', true],
  ['[::1]', true],
  ['10.0.0.7', true],
  ['localhost', true],
  [hostname(), true],
  [`${hostname().toUpperCase()}.lan`, true],
  ['spool.shop.example', true],
  ['evil.example', false],
  [`x-${hostname()}.example`, false],
  ['127.0.0.1.evil.example', false],
  ['', false],
])('%s: %s', (host, is) => expect(isOurs(host, ['spool.shop.example'])).toBe(is))
