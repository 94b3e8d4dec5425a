import { bigint, double, varchar } from 'drizzle-orm/mysql-core'

/** Column kinds that many tables share: ids, instants (UTC milliseconds), quantities. */
export const idColumn = (name: string) => varchar(name, { length: 40 })
export const instantMs = (name: string) => bigint(name, { mode: 'number' })
export const quantity = (name: string) => double(name)
