import { type Id, type IdName } from '@core/ids/id.ts'
import { bigint, double, varchar } from 'drizzle-orm/mysql-core'

/** Column kinds that many tables share: ids, instants (UTC milliseconds), quantities. */
export const idColumn = <N extends IdName>(name: string) => varchar(name, { length: 40 }).$type<Id<N>>()
export const instantMs = (name: string) => bigint(name, { mode: 'number' })
export const quantity = (name: string) => double(name)
