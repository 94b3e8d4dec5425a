import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const at = (folder: string) => fileURLToPath(new URL(`./src/${folder}`, import.meta.url))

export default defineConfig({
  resolve: { alias: { '@core': at('core'), '@contract': at('contract'), '@server': at('server'), '@web': at('web') } },
  test: { include: ['src/**/*.test.{ts,tsx}'], testTimeout: 30_000, hookTimeout: 60_000, maxWorkers: 2 },
})
