// npm run supply: what this program is made of: licences, install scripts and a bill of materials (dist/bom.json, CycloneDX). Ends with 1 where one is new.
// With --list every package by name.
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { ROOT } from './lib/machine.mjs'

/** Licences that this program may be given on with; each asks at most that its text goes along. */
const ALLOWED = new Set([
  ...['MIT', 'ISC', 'Apache-2.0', 'BSD-2-Clause', 'BSD-3-Clause', '0BSD', 'BlueOak-1.0.0', 'CC0-1.0', 'Unlicense'],
  ...['OFL-1.1', 'Python-2.0', 'CC-BY-4.0', 'MPL-2.0', 'LGPL-3.0-or-later', 'WTFPL', 'Zlib', 'MIT-0'],
])
/** Packages that run something when they are installed, and what it is: anything else is looked at by somebody first. */
const RUNS = {
  esbuild: 'puts its own program for this machine in its place',
  fsevents: 'is for another system and is not installed here',
  '@parcel/watcher': 'builds itself where no library for this machine is there',
}
/** Whose package does not say it, but whose licence file does. */
const TOLD = { 'png-js': 'MIT' }

/** Every package of the lock file, with its licence and whether it runs something when installed. */
export function packagesIn(lock) {
  return Object.entries(lock.packages)
    .filter(([path]) => path !== '')
    .map(([path, { version, license, hasInstallScript, dev }]) => {
      const name = path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length)
      const licence = license ?? licenceOf(path) ?? TOLD[name] ?? null
      return { name, version, licence, runs: hasInstallScript === true, isForWork: dev === true }
    })
}

/** The lock file knows most; what it does not, the package says itself. */
function licenceOf(path) {
  const file = join(ROOT, path, 'package.json')
  if (!existsSync(file)) return null
  const { license, licenses } = JSON.parse(readFileSync(file, 'utf8'))
  return typeof license === 'string' ? license : (license?.type ?? licenses?.[0]?.type ?? null)
}

/** One of what it offers is enough; all of what it asks together is needed. */
export const isAllowed = (licence) =>
  licence !== null &&
  licence
    .replace(/[()]/g, '')
    .split(/ OR /i)
    .some((one) => one.split(/ AND /i).every((l) => ALLOWED.has(l.trim())))

/** What somebody has to look at before it goes on. */
export function objections(packages) {
  return [
    ...packages
      .filter((p) => !isAllowed(p.licence))
      .map((p) => `${p.name} ${p.version}: licence ${p.licence ?? 'not told'}`),
    ...packages
      .filter((p) => p.runs && !(p.name in RUNS))
      .map((p) => `${p.name} ${p.version}: runs something when it is installed`),
  ]
}

function main() {
  const packages = packagesIn(JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8')))
  const shipped = packages.filter((p) => !p.isForWork)
  const counts = new Map()
  for (const { licence } of shipped) counts.set(licence, (counts.get(licence) ?? 0) + 1)
  console.log(`${shipped.length} packages go along, ${packages.length - shipped.length} are for work on it.`)
  for (const [licence, n] of [...counts].sort((a, b) => b[1] - a[1]))
    console.log(`  ${String(n).padStart(4)}  ${licence}`)
  if (process.argv.includes('--list')) for (const p of shipped) console.log(`  ${p.name} ${p.version}: ${p.licence}`)
  for (const p of packages.filter(({ runs }) => runs))
    console.log(`  ${p.name} runs something when it is installed: ${RUNS[p.name] ?? 'nobody has looked at it'}`)
  const bom = spawnSync('npm', ['sbom', '--sbom-format', 'cyclonedx', '--omit', 'dev'], {
    cwd: ROOT,
    encoding: 'utf8',
    maxBuffer: 64e6,
  })
  if (bom.status !== 0) throw new Error(bom.stderr)
  mkdirSync(join(ROOT, 'dist'), { recursive: true })
  writeFileSync(join(ROOT, 'dist/bom.json'), bom.stdout)
  console.log(`Bill of materials: dist/bom.json (${JSON.parse(bom.stdout).components.length} components)`)
  const against = objections(packages)
  for (const line of against) console.error(`Look at this first: ${line}`)
  process.exitCode = against.length > 0 ? 1 : 0
}

if (process.argv[1] === fileURLToPath(import.meta.url)) main()
