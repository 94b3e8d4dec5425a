// For commands that work on the shop's database: the machine made ready, the database started or taken up, and left as it was found.
import { join } from 'node:path'
import { DATA, ensureModules, ensurePackages, SetupError } from './machine.mjs'

/** Runs a command; what a person can do something about is said in words, anything else whole, and either ends with code 1. */
export async function command(work) {
  try {
    ensurePackages(['database'])
    ensureModules()
    await work()
  } catch (problem) {
    console.error(problem instanceof SetupError ? problem.message : problem)
    process.exitCode = 1
  }
}

/** The database of the shop while `work` goes on; the last who uses it stops it. */
export async function withDatabase(work) {
  const { startDatabase } = await import('./mariadb.mjs')
  const database = await startDatabase({ folder: join(DATA, 'db') })
  try {
    return await work(database)
  } finally {
    await database.stop()
  }
}
