/**
 * The floors of server and web, from the ground up: a folder imports from those before it in its list and from itself, types included. A new folder is
 * put in its place here; one that stands in no list may not be imported by those that do. In core, types may be named from above.
 */
const FLOORS = {
  server: [
    // Ground: the database, wall time, refusals, minutes learnt.
    ...['db', 'time', 'problem', 'thread', 'changes', 'minutes'],
    // The shop as it is set up; who calls, and what a service is handed.
    ...['shopmodel', 'call'],
    // The ledger, what is projected from it, what a gun is like now, and the one way to write.
    ...['ledger', 'projection', 'settle', 'gunnow', 'write'],
    // Capabilities, those that others ask first.
    ...[
      'parts',
      'knowledge',
      'lifekept',
      'logbook',
      'print',
      'followup',
      'clock',
      'drag',
      'floor',
      'guide',
      'people',
      'shop',
    ],
    ...[
      'rightparts',
      'reading',
      'liner',
      'down',
      'payback',
      'classuse',
      'changeover',
      'spools',
      'photo',
      'houserule',
      'stock',
      'life',
      'buying',
      'gun',
      'cell',
      'calendar',
      'classes',
      'practice',
    ],
    ...['ingest', 'walk', 'cleaning', 'reference'],
    // Roof: everything put together and served.
    ...['health', 'http', 'lan', 'demo', 'wiring', 'tools', 'standin', 'bench'],
  ],
  web: [
    // Ground: the line to the server, the kit of parts, who is signed in, words and numbers, what waits on the device.
    ...['api', 'kit', 'people', 'format', 'offline', 'live', 'places', 'path', 'sections', 'chart'],
    // What many pages ask for, and what many show.
    ...['shopmodel', 'log', 'parts', 'houserule', 'photo', 'guide', 'gunnow', 'rightparts', 'liner', 'photomeasure'],
    ...['reading', 'logbook', 'down', 'changeover', 'drag', 'followup'],
    // Pages.
    ...[
      'firsthour',
      'shop',
      'floor',
      'life',
      'gun',
      'cell',
      'classes',
      'practice',
      'payback',
      'buying',
      'spools',
      'walk',
      'device',
      'scan',
    ],
    // Roof: the frame of every page.
    ...['frame'],
  ],
  core: [
    ...[
      'units',
      'stats',
      'ids',
      'random',
      'path',
      'clock',
      'trend',
      'rightparts',
      'drag',
      'reading',
      'drawings',
      'diagnose',
    ],
    ...[
      'liner',
      'houserule',
      'guide',
      'cleaning',
      'followup',
      'ledger',
      'spools',
      'changeover',
      'floor',
      'ingest',
      'life',
      'stock',
      'cell',
      'classes',
      'practice',
    ],
    ...[
      'catalogue',
      'firsthour',
      'minutes',
      'parts',
      'payback',
      'photo',
      'photomeasure',
      'shop',
      'logbook',
      'simulator',
      'walk',
      'reference',
    ],
  ],
}
const escaped = (folders) => folders.join('|')
/** For each folder: nothing above it. */
const floorRules = (layer) =>
  FLOORS[layer].map((folder, i) => ({
    name: `${layer}-floor-${folder}`,
    comment: `src/${layer}/${folder} imports from floors below it only; the order stands in FLOORS.`,
    severity: 'error',
    from: { path: `^src/${layer}/${folder}/`, pathNot: '[.]test[.]tsx?$' },
    to: {
      path: `^src/${layer}/`,
      pathNot: `^src/${layer}/(${escaped(FLOORS[layer].slice(0, i + 1))})/`,
      ...(layer === 'core' ? { dependencyTypesNot: ['type-only'] } : {}),
    },
  }))

/** One direction: core <- contract <- server, web. Core and its tests import only core. */
module.exports = {
  forbidden: [
    ...floorRules('core'),
    ...floorRules('server'),
    ...floorRules('web'),
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      // An import of types alone is kept as an import for its effects by the bundler: a cycle of them leaves a constant undefined in the build.
      name: 'core-no-cycles-of-types-either',
      severity: 'error',
      from: { path: '^src/core' },
      to: { circular: true },
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
      to: { pathNot: '^src/core|node_modules/(vitest|fast-check)|^node:|^(fs|path|url|util)$' },
    },
    { name: 'contract-on-core', severity: 'error', from: { path: '^src/contract' }, to: { path: '^src/(server|web)' } },
    { name: 'server-not-web', severity: 'error', from: { path: '^src/server' }, to: { path: '^src/web' } },
    {
      name: 'only-the-writer-writes',
      comment:
        'The ledger is appended to by server/write alone; what is projected by it, by a rebuild or a recount and by the clocks.',
      severity: 'error',
      from: {
        path: '^src/server',
        pathNot: '^src/server/(write/act|projection/(rebuild|recount|project)|settle/settle)\\.ts$',
      },
      to: { path: '^src/server/(ledger/append|projection/project)\\.ts$', dependencyTypesNot: ['type-only'] },
    },
    { name: 'web-not-server', severity: 'error', from: { path: '^src/web' }, to: { path: '^src/server' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.js', '.json'] },
  },
}
