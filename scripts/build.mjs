// Builds the server (one file) and the web app into dist/. `buildIfStale` skips it when nothing changed since.
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import { ROOT, say } from './lib/machine.mjs'

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
  rmSync(STAMP, { force: true })
  await build()
  writeFileSync(STAMP, now)
  return true
}

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
    packages: 'external',
    sourcemap: true,
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

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  await build()
  writeFileSync(STAMP, fingerprint())
}
