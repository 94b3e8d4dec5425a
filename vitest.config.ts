import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const at = (folder: string) => fileURLToPath(new URL(`./src/${folder}`, import.meta.url))

const alias = { '@core': at('core'), '@contract': at('contract'), '@server': at('server'), '@web': at('web') }

const LEFT_AS_FOUND = at('web/testing/leftasfound.ts')

/**
 * Files of a project keep their modules from one to the next, which spares loading them a hundred times: a server test has a database of its own, and
 * one of the web leaves its browser as it found it. Web tests that end in `.tsx` have a document.
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
        test: {
          name: 'server',
          include: ['src/server/**/*.test.ts'],
          isolate: false,
          // A hundred servers that come and go: what they leave is swept sooner than a big machine would by itself. A yard being built needs a gigabyte.
          execArgv: ['--max-old-space-size=1500'],
        },
      },
      {
        extends: true,
        test: { name: 'web', include: ['src/web/**/*.test.ts'], isolate: false, setupFiles: LEFT_AS_FOUND },
      },
      {
        extends: true,
        test: {
          name: 'page',
          include: ['src/web/**/*.test.tsx'],
          environment: 'jsdom',
          isolate: false,
          setupFiles: LEFT_AS_FOUND,
        },
      },
    ],
  },
})
