// Builds the server (one file) and the web app into dist/. `buildIfStale` skips it when nothing changed since.
import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import { ROOT, say, SetupError } from './lib/machine.mjs'

const SELF = fileURLToPath(import.meta.url)
const STAMP = join(ROOT, 'dist', '.built')

function fingerprint() {
  const hash = createHash('sha256')
  const add = (path) => {
    const info = statSync(path)
    if (info.isDirectory())
      readdirSync(path)
        .sort()
        .forEach((name) => add(join(path, name)))
    else if (!/\.test\.tsx?$/.test(path)) hash.update(path.slice(ROOT.length)).update(readFileSync(path))
  }
  for (const name of ['src', 'package-lock.json', 'vite.config.ts', 'tsconfig.base.json']) add(join(ROOT, name))
  return hash.digest('hex')
}

export async function buildIfStale() {
  const now = fingerprint()
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === now) return false
  say('Building …')
  // In a process of its own: the 700 MB that building takes are given back, whoever asked runs on for months.
  const code = await new Promise((done) =>
    spawn(process.execPath, [SELF], { stdio: 'inherit' }).on('close', (c) => done(c ?? 1)),
  )
  if (code !== 0) throw new SetupError('It could not be built: what is printed above says why.')
  return true
}

/** Packages of the older form ask for others by `require`. */
const REQUIRE = "import { createRequire as requireOf } from 'node:module'; const require = requireOf(import.meta.url);"

export async function buildServer() {
  const esbuild = await import('esbuild')
  mkdirSync(join(ROOT, 'dist'), { recursive: true })
  await esbuild.build({
    entryPoints: {
      main: join(ROOT, 'src/server/main.ts'),
      tool: join(ROOT, 'src/server/tools/tool.ts'),
      bench: join(ROOT, 'src/server/bench/bench.ts'),
      diagnosis: join(ROOT, 'src/server/bench/diagnosis.ts'),
      policy: join(ROOT, 'src/server/bench/policy.ts'),
      stock: join(ROOT, 'src/server/bench/stock.ts'),
      watch: join(ROOT, 'src/server/bench/watch.ts'),
      practice: join(ROOT, 'src/server/bench/practice.ts'),
      rcompare: join(ROOT, 'src/server/bench/rcompare.ts'),
      standin: join(ROOT, 'src/server/standin/main.ts'),
      settlethread: join(ROOT, 'src/server/settle/settlethread.ts'),
      lifethread: join(ROOT, 'src/server/life/lifethread.ts'),
      printthread: join(ROOT, 'src/server/print/printthread.ts'),
      recoder: join(ROOT, 'src/server/photo/recoder.ts'),
      xlsxworker: join(ROOT, 'src/server/ingest/xlsxworker.ts'),
    },
    outdir: join(ROOT, 'dist/server'),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    // What is used of the packages comes along: loading them file by file is half of a start. Left where they are: what is no script, or starts threads of its own.
    external: ['sharp', '@node-rs/argon2', 'pino', 'pdfmake', '@playwright/test'],
    mainFields: ['module', 'main'],
    banner: { js: REQUIRE },
    sourcemap: true,
    // A trace names file and line; what stands there is not carried along.
    sourcesContent: false,
    // A package that is a module here and none elsewhere is asked for both ways.
    logOverride: { 'import-is-undefined': 'silent' },
    tsconfig: join(ROOT, 'tsconfig.base.json'),
    logLevel: 'warning',
  })
}

async function build() {
  // Whoever asks for it (a test, a shell with an environment of its own), what is built is what ships.
  process.env.NODE_ENV = 'production'
  await buildServer()
  const vite = await import('vite')
  await vite.build({ configFile: join(ROOT, 'vite.config.ts'), logLevel: 'warn' })
  // Only what has its content's hash in its name: a packed copy of anything else could outlive what it is a copy of.
  pack(join(ROOT, 'dist/web/assets'))
}

/** Under this much there is nothing to gain. */
const LEAST_BYTES = 1024
/** Each file packed once, as tightly as it goes: packed as it is sent, it is a fifth larger and costs time each time. */
function pack(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) pack(path)
    else if (/\.(js|css|svg)$/.test(entry.name) && statSync(path).size > LEAST_BYTES) {
      const bytes = readFileSync(path)
      writeFileSync(`${path}.br`, brotliCompressSync(bytes))
      writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }))
    }
  }
}

if (process.argv[1] === SELF) {
  // What is changed while it is being built is built again the next time.
  const now = fingerprint()
  rmSync(STAMP, { force: true })
  await build()
  writeFileSync(STAMP, now)
}
