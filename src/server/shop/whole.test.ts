import { getTableName, is } from 'drizzle-orm'
import { MySqlTable } from 'drizzle-orm/mysql-core'
import { describe, expect, it } from 'vitest'
import * as schema from '@server/db/schema.ts'
import { MADE, TRUTH } from './whole.ts'

describe('everything as one file', () => {
  const tables = Object.values(schema).filter((t) => is(t, MySqlTable))
  it.each(tables.map((t) => [getTableName(t), t] as const))('%s goes along, or is made anew', (_, table) => {
    expect([...TRUTH, ...MADE].filter((t) => t === table)).toHaveLength(1)
  })
})
