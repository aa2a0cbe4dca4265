/** The layers of core, in order: a folder may import those before it, never those behind it. */
const layers = [
  'units',
  'records',
  'house-rules',
  'catalogue',
  'job',
  'act',
  'system',
  'premises',
  'response',
  'identity',
  'fit',
  'zones',
  'memory',
  'panel',
  'programming',
  'proof',
  'findings',
  'draft',
  'air',
  'formats',
  'wire',
]
/** The same for client and server. */
const clientLayers = [
  'line',
  'store',
  'shared',
  'job',
  'jobs',
  'stages',
  'account',
  'catalogue',
  'house-rules',
  'app',
]
const serverLayers = ['errors', 'db', 'auth', 'documents', 'workers', 'service', 'jobs', 'http', 'launch']
const oneWay = (part, folders) =>
  folders.map((folder, index) => ({
    name: `${part}-layers-${folder}`,
    comment: `imports of ${part} run one way, so that no two folders need each other: ${folders.join(' < ')}`,
    severity: 'error',
    from: { path: `^${part}/src/${folder}/`, pathNot: '(\\.test\\.ts|/testing/)' },
    to: { path: `^${part}/src/(${folders.slice(index + 1).join('|') || 'none'})/` },
  }))
const behind = [...oneWay('core', layers), ...oneWay('web', clientLayers), ...oneWay('server', serverLayers)]
module.exports = {
  forbidden: [
    ...behind,
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-is-pure',
      comment: 'core takes and returns plain data: no Node, DOM, server or client code',
      severity: 'error',
      from: { path: '^core/src/', pathNot: '\\.test\\.ts$' },
      to: {
        path: '^(server|web)/|node_modules/(vue|express|typeorm|pinia|vuetify)',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'core-without-node',
      severity: 'error',
      from: { path: '^core/src/', pathNot: '\\.test\\.ts$|/testing/' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'one-face-of-core',
      comment: 'server and web import core only through its public face',
      severity: 'error',
      from: { path: '^(server|web)/', pathNot: '\\.test\\.ts$|/testing/' },
      to: { path: '^core/src/(?!index\\.ts$|wire/wire\\.ts$)' },
    },
    {
      name: 'database-stays-in-db',
      comment: 'only db/ opens and holds the data source',
      severity: 'error',
      from: { path: '^server/src/(?!db/|testing/|server\\.ts|launch/)', pathNot: '\\.test\\.ts$' },
      to: { path: '^server/src/db/(source|entities)\\.ts$|node_modules/typeorm' },
    },
    {
      name: 'services-know-no-requests',
      comment:
        'what works for a request is called with plain values; only http/ and what starts it know requests',
      severity: 'error',
      from: { path: '^server/src/(?!http/|testing/|server\\.ts|launch/)', pathNot: '\\.test\\.ts$' },
      to: { path: '^server/src/http/' },
    },
    { name: 'web-and-server-apart', severity: 'error', from: { path: '^web/' }, to: { path: '^server/' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'default'],
      extensions: ['.ts', '.vue', '.js', '.json'],
    },
  },
}
