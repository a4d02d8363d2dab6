/** The rooms: arrows go down only (docs/architecture.md). */
const room = (name) => `^src/${name}/`;

module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'core-is-the-ground',
      severity: 'error',
      from: { path: room('core'), pathNot: '\\.test\\.ts$' },
      to: { path: '^src/(?!core/)' },
    },
    {
      name: 'nodes-see-core-only',
      severity: 'error',
      from: { path: room('nodes'), pathNot: '\\.test\\.ts$' },
      to: { path: '^src/(?!core/|nodes/)' },
    },
    {
      name: 'engine-sees-nodes-and-core',
      severity: 'error',
      from: { path: room('engine') },
      to: { path: '^src/(?!core/|nodes/|engine/)' },
    },
    {
      name: 'server-sees-core-and-nodes',
      severity: 'error',
      from: { path: room('server') },
      to: { path: '^src/(?!core/|nodes/|server/)' },
    },
    {
      name: 'app-meets-the-engine-in-one-file',
      severity: 'error',
      from: { path: room('app') },
      to: { path: '^src/(engine/(?!protocol/|worker\\.ts$)|server/)' },
    },
    {
      name: 'pure-rooms-know-no-dom-libraries',
      severity: 'error',
      from: { path: '^src/(core|nodes)/', pathNot: '\\.test\\.ts$' },
      to: { path: 'node_modules/(three|react|react-dom|@xyflow|zustand|dexie)/' },
    },
    {
      name: 'no-lost-packages',
      severity: 'error',
      from: { path: '^(src|bin)/' },
      to: { dependencyTypes: ['npm-no-pkg', 'npm-unknown'] },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.generated\\.' },
  },
};
