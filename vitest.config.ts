import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const at = (folder: string) => fileURLToPath(new URL(`./src/${folder}`, import.meta.url))

const alias = { '@core': at('core'), '@contract': at('contract'), '@server': at('server'), '@web': at('web') }

/**
 * Core and server keep their modules from one file to the next (nothing of theirs is left over: each server test has a database of its own), which
 * spares loading them a hundred times; pages get a fresh document a file.
 */
export default defineConfig({
  resolve: { alias },
  test: {
    maxWorkers: 2,
    testTimeout: 30_000,
    hookTimeout: 300_000,
    projects: [
      {
        extends: true,
        test: { name: 'core', include: ['src/{core,contract}/**/*.test.ts'], isolate: false },
      },
      {
        extends: true,
        test: { name: 'server', include: ['src/server/**/*.test.ts'], isolate: false },
      },
      {
        extends: true,
        test: { name: 'web', include: ['src/web/**/*.test.{ts,tsx}'] },
      },
    ],
  },
})
