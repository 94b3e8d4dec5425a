import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { judgeCase, type CaseResult, type ReferenceCase } from '@core/reference/case.ts'
import { solverFor } from '@core/reference/solvers.ts'

/** Cases of a file or folder against the core: a line each, then the total. Without an argument, the project's own copies. */
function filesUnder(path: string): string[] {
  if (!statSync(path).isDirectory()) return [path]
  return readdirSync(path)
    .sort()
    .flatMap((name) =>
      name.endsWith('.json') || statSync(join(path, name)).isDirectory() ? filesUnder(join(path, name)) : [],
    )
}

const OWN = ['cell', 'drag', 'diagnose', 'life', 'liner', 'spools', 'stock', 'trend'].map(
  (room) => `src/core/${room}/reference`,
)

function judge(set: string, one: ReferenceCase): CaseResult {
  const solve = solverFor(set, one.kind)
  if (!solve) return { verdict: 'not built' }
  try {
    return judgeCase(one, solve)
  } catch (problem) {
    return {
      verdict: 'off',
      largestRelativeError: Infinity,
      where: problem instanceof Error ? problem.message : 'threw',
    }
  }
}

let ok = 0
let off = 0
for (const file of (process.argv.slice(2).length > 0 ? process.argv.slice(2) : OWN).flatMap(filesUnder)) {
  const { set, cases } = JSON.parse(readFileSync(file, 'utf8')) as { set?: string; cases?: ReferenceCase[] }
  if (!set || !cases) {
    console.log(`off        ${file}: not a set of cases`)
    off++
    continue
  }
  for (const one of cases) {
    const result = judge(set, one)
    if (result.verdict === 'ok') ok++
    else off++
    const error =
      result.verdict === 'not built'
        ? ''
        : `${result.largestRelativeError.toExponential(1)}${result.where ? ` at ${result.where}` : ''}`
    console.log(`${result.verdict.padEnd(10)} ${set} ${one.id} ${error}`)
  }
}
console.log(`${ok} ok, ${off} off`)
process.exitCode = off === 0 && ok > 0 ? 0 : 1
