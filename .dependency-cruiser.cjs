/** One direction: core <- contract <- server, web. Core and its tests import only core. */
module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-alone',
      severity: 'error',
      from: { path: '^src/core', pathNot: '\\.test\\.ts$' },
      to: { pathNot: '^src/core' },
    },
    {
      name: 'core-tests',
      severity: 'error',
      from: { path: '^src/core.*\\.test\\.ts$' },
      to: { pathNot: '^src/core|node_modules/(vitest|fast-check)|^node:|^(fs|path|url)$' },
    },
    { name: 'contract-on-core', severity: 'error', from: { path: '^src/contract' }, to: { path: '^src/(server|web)' } },
    { name: 'server-not-web', severity: 'error', from: { path: '^src/server' }, to: { path: '^src/web' } },
    {
      name: 'only-the-writer-writes',
      comment: 'The ledger is appended to by server/write alone; what is projected by it, by a rebuild and by the clocks.',
      severity: 'error',
      from: { path: '^src/server', pathNot: '^src/server/(write/act|projection/(rebuild|project)|ingest/settle)\\.ts$' },
      to: { path: '^src/server/(ledger/append|projection/project)\\.ts$', dependencyTypesNot: ['type-only'] },
    },
    { name: 'web-not-server', severity: 'error', from: { path: '^src/web' }, to: { path: '^src/server' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.js', '.json'] },
  },
}
