// Imports run one way: web -> core, server -> core, never back and never across.
const only = (from, allowed) => ({
  name: `${from}-imports-only-what-it-may`,
  severity: 'error',
  from: { path: `^${from}/` },
  to: { path: '^(core|server|web|demo|e2e|bench)/', pathNot: `^(${[from, ...allowed].join('|')})/` },
});
// Samples for tests stand beside every floor; that only tests use them is a rule of its own.
const coreFloor = (folder, allowed) => ({
  name: `core-${folder}-stands-on-its-floor`,
  severity: 'error',
  from: { path: `^core/${folder}/` },
  to: { path: '^core/', pathNot: `^core/(${[folder, 'testing', ...allowed].join('|')})/` },
});

// In the server: api and jobs call tasks, tasks work with imaging and the store, and those two never know of each other.
const serverFloor = (folder, allowed) => ({
  name: `server-${folder}-stands-on-its-floor`,
  severity: 'error',
  from: { path: `^server/${folder}/`, pathNot: '\\.test\\.ts$' },
  to: {
    path: '^server/(api|jobs|tasks|imaging|store|standins)/',
    pathNot: `^server/(${[folder, ...allowed].join('|')})/`,
  },
});

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
    only('core', []),
    only('web', ['core']),
    only('server', ['core']),
    only('demo', ['core', 'server']),
    only('bench', ['core', 'server', 'demo']),
    // Test pictures and unzipping are shared with the server's own tests; the program itself is only met through the browser.
    only('e2e', ['core', 'server/testing', 'server/bundling']),
    serverFloor('store', []),
    serverFloor('standins', []),
    serverFloor('imaging', []),
    serverFloor('tasks', ['imaging', 'store', 'standins']),
    serverFloor('jobs', ['tasks', 'store']),
    serverFloor('api', ['tasks', 'imaging', 'store']),
    coreFloor('model', []),
    coreFloor('geometry', ['model']),
    coreFloor('naming', ['model', 'geometry']),
    coreFloor('bookkeeping', ['model', 'geometry', 'naming']),
    coreFloor('recalling', ['model']),
    coreFloor('posting', ['model', 'naming', 'geometry', 'bookkeeping']),
    coreFloor('dryRunning', ['model', 'geometry', 'planes']),
    coreFloor('surviving', ['model', 'geometry']),
    coreFloor('series', ['model', 'lettering']),
    coreFloor('carrying', ['model', 'lettering']),
    coreFloor('weighing', ['model']),
    coreFloor('planes', []),
    coreFloor('seeing', ['model', 'geometry', 'planes']),
    coreFloor('proposing', ['model', 'geometry']),
    coreFloor('splitting', ['model', 'geometry']),
    coreFloor('framing', ['model', 'geometry', 'splitting']),
    coreFloor('lettering', ['model', 'geometry', 'planes']),
    coreFloor('planning', ['model', 'geometry', 'weighing', 'framing', 'finishing', 'lettering']),
    coreFloor('checking', [
      'model',
      'geometry',
      'weighing',
      'splitting',
      'framing',
      'finishing',
      'lettering',
      'planning',
    ]),
    coreFloor('finishing', ['model', 'geometry', 'planes', 'seeing']),
    coreFloor('testing', ['model', 'planes', 'seeing']),
    {
      name: 'samples-are-for-tests',
      severity: 'error',
      from: { pathNot: '\\.test\\.ts$|/test[A-Z]\\w*\\.ts$|^core/testing/|^bench/' },
      to: { path: '^core/testing/' },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'Numbers in, numbers out: no Node, no image library, no interface.',
      from: { path: '^core/', pathNot: '\\.test\\.ts$|/testFonts\\.ts$' },
      to: {
        dependencyTypes: ['core', 'npm', 'npm-dev'],
        pathNot: 'node_modules/(zod|@noble/hashes|culori|bidi-js|linebreak|fast-deep-equal|papaparse)/',
      },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.json'],
    },
  },
};
