/** The layers of core, in order: a folder may import those before it, never those behind it. */
const layers = [
  ['units'],
  ['records'],
  ['house-rules'],
  ['catalogue'],
  ['job'],
  ['act'],
  ['fit', 'zones', 'response', 'identity', 'premises'],
  ['proof', 'programming'],
  ['findings'],
  ['air'],
  ['formats'],
  ['wire'],
]
const behind = layers.flatMap((layer, index) =>
  layer.map((folder) => ({
    name: `core-layers-${folder}`,
    comment:
      'core imports run one way: units < house-rules < catalogue < job < act < judges < findings < plans < formats',
    severity: 'error',
    from: { path: `^core/src/${folder}/`, pathNot: '(\\.test\\.ts|/testing/)' },
    to: {
      path: `^core/src/(${
        layers
          .slice(index + 1)
          .flat()
          .join('|') || 'none'
      })/`,
    },
  })),
)
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
