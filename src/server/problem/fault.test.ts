import { describe, expect, it } from 'vitest'
import { faultWriter, plainFault, type Fault } from './fault.ts'

const PICTURE = 'x'.repeat(1_000_000)
/** As the mapper throws it: the statement and all its values in the message, and the driver's error with them again. */
function queryFault() {
  const driver = Object.assign(new Error(`Duplicate entry '${PICTURE}' for key 'photo.once'`), {
    code: 'ER_DUP_ENTRY',
    errno: 1062,
    sqlState: '23000',
    sql: `insert into \`photo\` values ('${PICTURE}')`,
  })
  return Object.assign(
    new Error(`Failed query: insert into \`photo\` values (?)\nparams: ${PICTURE}`, { cause: driver }),
    {
      query: 'insert into `photo` (`id`, `jpeg`) values (?, ?)',
      params: [PICTURE, '$argon2id$v=19$secret'],
    },
  )
}

describe('a fault as it is written down', () => {
  it('says which statement to which table and which number, and nothing of what was in it', () => {
    const fault = plainFault(queryFault())
    expect(fault).toMatchObject({ message: 'the database: ER_DUP_ENTRY', errno: 1062, statement: 'insert photo' })
    const line = JSON.stringify(fault)
    expect(line.length).toBeLessThan(4000)
    for (const secret of ['xxxxxx', 'argon2', 'Duplicate entry']) expect(line).not.toContain(secret)
    expect(fault.stack[0]).toMatch(/fault\.test\.ts/)
  })
  it.each([
    ['select `a`.`b` from `station` where `id` = ?', 'select station'],
    ['update `meta` set `value` = ?', 'update meta'],
    ['delete from `session` where 1', 'delete session'],
    ['begin', 'begin'],
  ])('%s is told as %s', (query, told) =>
    expect(plainFault(Object.assign(new Error('x'), { query })).statement).toBe(told),
  )
  it('of any other error keeps its words, cut short; of what is no error only its type', () => {
    expect(plainFault(new RangeError(`expected more ${PICTURE}`)).message).toHaveLength(500)
    expect(plainFault('a password')).toEqual({ name: 'thrown', message: 'string', stack: [] })
    expect(plainFault(new Error('the page', { cause: new Error('where it began') })).message).toBe('where it began')
  })
  it('the same is written once a second, with how often it came', () => {
    const written: Fault[] = []
    let nowMs = 0
    const write = faultWriter(
      (fault) => written.push(fault),
      () => nowMs,
    )
    const fault = queryFault()
    for (let i = 0; i < 50; i++) write(fault)
    write(new Error('another'))
    expect(written.map((f) => f.message)).toEqual(['the database: ER_DUP_ENTRY', 'another'])
    nowMs = 1001
    write(fault)
    expect(written[2]).toMatchObject({ swallowed: 49 })
    // A clock that was set back swallows nothing for ever.
    nowMs = -5_000_000
    write(fault)
    expect(written).toHaveLength(4)
  })
})
