import { eq, inArray, sql, type SQL } from 'drizzle-orm'
import { type MySql2Database } from 'drizzle-orm/mysql2'
import { factOfToday } from '@core/ledger/oldsentence.ts'
import { type LedgerEvent } from '@core/ledger/event.ts'
import { ledgerEvent } from './tables/ledgerevent.ts'
import { type Tx } from './db.ts'

/**
 * Lines of the ledger written before an act was a thing of its own, taken over once: when a database of an older version is opened, and when an
 * export of one is taken in. Then what an act was stood in its key: a word before it ("chg/…") and the number of the line after it ("…#2"). Both are
 * read here one last time, and changes of set-up get their fields. Lines still to be taken over have no kind of act.
 *
 * 1. All of it in one transaction: cut off half-way, it begins anew.
 * 2. Which lines there are, and what was said in them, stays as it is: only where they belong is written.
 */
type Carrier = Tx | MySql2Database

/** Words before a key, and the kind of act they meant. */
const WORDS: readonly (readonly [word: string, kind: string])[] = [
  ['chg/', 'change'],
  ['job/', 'job'],
  ['look/', 'look'],
  ['fol/', 'followed'],
  ['read/', 'read'],
  ['why/', 'explained'],
  ['tune/', 'tuned'],
  ['walk/', 'walked'],
]
const OPEN = sql`e.act_kind = ''`
const KEY = sql`e.idempotency_key`

/** Numbered lines of one act: `…#0`, `…#1`, …; the first is found by its number. */
const numbered = (kind: string, where: SQL, mark = '#'): SQL => sql`
  update ledger_event e join ledger_event f
    on f.idempotency_key = concat(left(${KEY}, char_length(${KEY}) - char_length(substring_index(${KEY}, ${mark}, -1))), '0')
  set e.act_kind = ${kind}, e.act_id = f.id, e.line_no = cast(substring_index(${KEY}, ${mark}, -1) as unsigned)
  where ${OPEN} and ${where}`
/** Lines that stand alone. */
const alone = (kind: string, where: SQL): SQL =>
  sql`update ledger_event e set e.act_kind = ${kind} where ${OPEN} and ${where}`

const NUMBERED = sql`${KEY} regexp '#[0-9]+$'`
const SPOOL_KINDS = sql`('spoolIn', 'wireOff', 'spoolRead', 'spoolGone', 'wireLost')`

/** Which act each line belongs to, the narrower sign first. */
const BELONGS: readonly SQL[] = [
  numbered('correct', sql`e.kind = 'corrected' and ${NUMBERED}`),
  alone('correct', sql`e.kind = 'corrected'`),
  ...WORDS.map(([word, kind]) => numbered(kind, sql`${KEY} like ${`${word}%`} and ${NUMBERED}`)),
  // "All looked at": a line for the place, and one each for feeder and gun, marked behind the first one's key.
  sql`update ledger_event e join ledger_event f on f.idempotency_key = left(${KEY}, char_length(${KEY}) - 2)
    set e.act_kind = 'seen', e.act_id = f.id, e.line_no = cast(right(${KEY}, 1) as unsigned)
    where ${OPEN} and e.kind = 'confirmed' and ${KEY} regexp '/[12]$'`,
  sql`update ledger_event e join ledger_event f on f.act_id = e.id and f.act_kind = 'seen' and f.line_no > 0
    set e.act_kind = 'seen' where ${OPEN}`,
  alone('hang', sql`${KEY} like 'mount/%'`),
  alone('sheet', sql`${KEY} like 'sheet/%'`),
  alone('shop', sql`e.kind = 'shopChanged'`),
  alone('usage', sql`e.kind = 'usageEntered'`),
  sql`update ledger_event e join ledger_event f
      on f.idempotency_key = concat(substring_index(${KEY}, '#', 1), '#0') and f.kind = 'mounted'
    set e.act_kind = 'swap', e.act_id = f.id, e.line_no = cast(substring_index(${KEY}, '#', -1) as unsigned)
    where ${OPEN} and e.kind in ('mounted', 'gunStatus') and ${NUMBERED}`,
  numbered('move', sql`e.kind = 'mounted' and ${KEY} regexp '/[01]$'`, '/'),
  alone('gun', sql`e.kind = 'gunStatus'`),
  numbered(
    'spool',
    sql`(e.kind in ${SPOOL_KINDS} or (e.kind = 'wireLoaded' and e.spool_id is not null)) and ${NUMBERED}`,
  ),
  sql`update ledger_event e join ledger_event f
      on f.idempotency_key = concat(substring_index(${KEY}, '/part', 1), '/part0')
    set e.act_kind = 'supply', e.act_id = f.id, e.line_no = cast(substring_index(${KEY}, '/part', -1) as unsigned)
    where ${OPEN} and ${KEY} regexp '/part[0-9]+$'`,
  alone('supply', sql`${KEY} like '%/count' and e.kind = 'counted'`),
  numbered('followed', sql`e.kind = 'followedUp' and ${KEY} regexp '[.]done#[0-9]+$'`),
  alone('log', sql`true`),
]

/** Keys as they are sent: without the word before them, and only on the first line. */
const KEYS: readonly SQL[] = [
  sql`update ledger_event set idempotency_key = null
    where line_no > 0 or act_kind = 'hang' or act_kind = 'supply' or (act_kind = 'gun' and idempotency_key like '%/status')`,
  sql`update ledger_event set idempotency_key = regexp_replace(idempotency_key, '^chg/(.*)/([0-9]+)#0$', '\\\\1#\\\\2')
    where act_kind = 'change'`,
  ...WORDS.filter(([word]) => word !== 'chg/').map(
    ([word, kind]) =>
      sql`update ledger_event set idempotency_key = substring(idempotency_key, ${word.length + 1})
        where act_kind = ${kind} and idempotency_key like ${`${word}%`}`,
  ),
  sql`update ledger_event set idempotency_key = substring(idempotency_key, 7) where act_kind = 'sheet' and idempotency_key like 'sheet/%'`,
  sql`update ledger_event set idempotency_key = concat(substring_index(idempotency_key, '/0', 1), '#0') where act_kind = 'move'`,
  sql`update ledger_event set idempotency_key = concat(idempotency_key, '#0')
    where act_kind in ('shop', 'usage', 'gun') and idempotency_key is not null and idempotency_key not regexp '#[0-9]+$'`,
]

const isOld = async (db: Carrier): Promise<boolean> =>
  (
    await db
      .select({ id: ledgerEvent.id })
      .from(ledgerEvent)
      .where(eq(ledgerEvent.actKind, '' as never))
      .limit(1)
  ).length > 0

/** Takes over what an older version wrote, where there is any. */
export async function carryOver(db: Carrier): Promise<void> {
  if (!(await isOld(db))) return
  await takingOver(db, async () => {
    await sentences(db)
    for (const statement of [...BELONGS, ...KEYS]) await db.execute(statement)
  })
}

/** The database lets no line of the ledger be changed or taken away but here. */
export async function takingOver(db: Carrier, work: () => Promise<void>): Promise<void> {
  await db.execute(sql`set @taking_over = 1`)
  try {
    await work()
  } finally {
    await db.execute(sql`set @taking_over = null`)
  }
}

/** Changes of set-up were a sentence; so were those that a correction put in a line's place. */
async function sentences(db: Carrier): Promise<void> {
  const rows = await db
    .select({ id: ledgerEvent.id, body: ledgerEvent.body })
    .from(ledgerEvent)
    .where(inArray(ledgerEvent.kind, ['shopChanged', 'corrected']))
  for (const { id, body } of rows) {
    const today = bodyOfToday(body)
    if (JSON.stringify(today) !== JSON.stringify(body))
      await db.update(ledgerEvent).set({ body: today }).where(eq(ledgerEvent.id, id))
  }
}

function bodyOfToday(body: LedgerEvent['body']): LedgerEvent['body'] {
  if (body.type === 'fact') return { ...body, fact: factOfToday(body.fact) }
  const { replacement } = body
  return replacement ? { ...body, replacement: { ...replacement, fact: factOfToday(replacement.fact) } } : body
}
