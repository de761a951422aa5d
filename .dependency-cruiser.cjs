/** Floors of the web's `shared`, from the ground up: facts, words, the server's data, this device and its job, parts of screens. */
const WEB_FLOORS = [['model'], ['words'], ['data'], ['sync'], ['job'], ['ui', 'drawing', 'entry']];

/** Floors of the core, from the ground up. Each may import its own floor and those below it. */
const FLOORS = [
  ['quantities', 'rules'],
  ['battery', 'leads', 'engine'],
  ['sources', 'machine'],
  ['circuit', 'template'],
  ['crank', 'charging', 'capacitor', 'reach'],
  ['diagnosis'],
  ['belief'],
  ['plan'],
  ['hookup', 'model', 'trace'],
  ['verdict'],
  ['job'],
  ['practice'],
];

const floorRules = FLOORS.map((floor, i) => {
  const above = FLOORS.slice(i + 1).flat();
  return {
    name: `floor-${floor[0]}`,
    comment: 'core folders are floors: imports point down only',
    severity: 'error',
    from: { path: `^core/src/(${floor.join('|')})/` },
    to: { path: `^core/src/(${above.join('|') || 'nothing-above'})/` },
  };
});

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    ...floorRules,
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      comment: 'the core has no interface, no server and no Node API in it',
      severity: 'error',
      from: { path: '^core/src' },
      to: { pathNot: '^core/src' },
    },
    {
      name: 'contracts-know-only-core',
      severity: 'error',
      from: { path: '^contracts/src' },
      to: { path: '^(server|web|e2e)/' },
    },
    {
      name: 'server-and-web-apart',
      severity: 'error',
      from: { path: '^(instruments|server|web)/src' },
      to: { path: '^(instruments|server|web)/src', pathNot: '^$1/src' },
    },
    {
      name: 'core-through-its-door',
      comment: 'other packages import a floor by its entry, @voltrek/core/battery, never a file inside it',
      severity: 'error',
      from: { path: '^(contracts|instruments|server|web)/src' },
      to: { path: '^core/src/.+/(?!index\\.ts$)' },
    },
    {
      name: 'floors-through-their-doors',
      comment: 'a floor of the core imports another by its index, never a file inside it',
      severity: 'error',
      from: { path: '^core/src/([^/]+)/' },
      to: { path: '^core/src/[^/]+/(?!index\\.ts$)', pathNot: '^core/src/$1/' },
    },
    {
      name: 'web-slices-apart',
      comment: 'a page and its parts are one folder; what two of them use is in shared or workers',
      severity: 'error',
      from: { path: '^web/src/app/([^/]+)/' },
      to: { path: '^web/src/app/[^/]+/', pathNot: '^web/src/app/($1|shared|workers)/' },
    },
    {
      name: 'web-shared-stands-below',
      comment: 'what is shared leans on no page',
      severity: 'error',
      from: { path: '^web/src/app/(shared|workers)/' },
      to: { path: '^web/src/app/', pathNot: '^web/src/app/(shared|workers)/' },
    },
    ...WEB_FLOORS.slice(0, -1).map((floor, i) => ({
      name: `web-shared-floor-${i}`,
      comment: 'folders of shared are floors: imports point down only',
      severity: 'error',
      from: { path: `^web/src/app/shared/(${floor.join('|')})/`, pathNot: '\\.spec\\.ts$' },
      to: {
        path: `^web/src/app/shared/(${WEB_FLOORS.slice(i + 1)
          .flat()
          .join('|')})/`,
      },
    })),
    {
      name: 'no-orphans',
      severity: 'error',
      from: {
        orphan: true,
        pathNot: ['\\.d\\.ts$', 'src/main\\.ts$', '\\.worker\\.ts$', 'drizzle\\.config'],
      },
      to: {},
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|out)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'web/tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default'],
      extensions: ['.ts', '.js', '.mjs', '.json'],
    },
  },
};
