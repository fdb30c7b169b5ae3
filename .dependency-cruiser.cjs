/** The arrows between the rooms; one drawn the wrong way fails the tests. */
const room = (name) => `^${name}/`;

/** The rooms of the web application, the roof first; arrows fall. */
const FLOORS = [
  ['app'],
  ['pieces', 'handouts'],
  ['songs', 'practice', 'lessons', 'series'],
  ['ledger', 'desk', 'licks', 'people', 'requests', 'book', 'help'],
  ['playing'],
  ['files', 'copies', 'struck', 'takes', 'recordings'],
  ['tab', 'session', 'schools'],
  ['sound'],
  ['ui'],
  ['api', 'theme'],
];

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: room('packages/core') },
      to: { path: '^(packages/contract|apps)/|node_modules/(vue|express|sequelize|joi)/' },
    },
    {
      name: 'core-has-no-node',
      severity: 'error',
      from: { path: room('packages/core') },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'pitch-stands-on-nothing',
      severity: 'error',
      from: { path: room('packages/core/src/pitch') },
      to: { path: '^packages/core/src/(?!pitch/)' },
    },
    {
      name: 'notation-stands-on-pitch',
      severity: 'error',
      from: { path: room('packages/core/src/notation') },
      to: { path: '^packages/core/src/(?!pitch/|notation/)' },
    },
    {
      name: 'subjects-by-their-door',
      severity: 'error',
      from: { path: '^packages/core/src/([^/]+)/' },
      to: { path: '^packages/core/src/([^/]+)/(?!index\\.ts$)', pathNot: '^packages/core/src/$1/' },
    },
    {
      name: 'core-by-its-door',
      severity: 'error',
      from: { path: '^(packages/contract|apps)/' },
      to: { path: '^packages/core/src/[^/]+/(?!index\\.ts$)' },
    },
    {
      name: 'contract-by-its-door',
      severity: 'error',
      from: { path: '^apps/' },
      to: { path: '^packages/contract/src/(?!(index|schemas)\\.ts$)' },
    },
    {
      name: 'paths-and-types-without-joi',
      comment: 'The first chunk of the web has the paths and types of the contract, and no checker.',
      severity: 'error',
      from: { path: '^packages/contract/src/', pathNot: '(\\.(schema|answers)|/schemas|/typed)\\.ts$' },
      to: {
        path: '^packages/contract/src/.*\\.(schema|answers)\\.ts$|^packages/contract/src/(schemas|typed)\\.ts$|node_modules/joi/',
      },
    },
    {
      name: 'contract-knows-core-only',
      severity: 'error',
      from: { path: room('packages/contract') },
      to: { path: '^apps/' },
    },
    {
      name: 'web-and-server-apart',
      severity: 'error',
      from: { path: room('apps/web') },
      to: { path: room('apps/server') },
    },
    {
      name: 'server-and-web-apart',
      severity: 'error',
      from: { path: room('apps/server') },
      to: { path: room('apps/web') },
    },
    {
      name: 'store-knows-no-studio',
      severity: 'error',
      from: { path: room('apps/server/src/store') },
      to: { path: '^apps/server/src/(studio|http|demo)/' },
    },
    {
      name: 'studio-knows-no-http',
      severity: 'error',
      from: { path: room('apps/server/src/studio') },
      to: { path: '^apps/server/src/(http|demo)/' },
    },
    {
      name: 'server-rooms-by-their-door',
      severity: 'error',
      from: { path: '^apps/server/src/([^/]+)/' },
      to: {
        path: '^apps/server/src/(studio|store|http|migrations|demo)/(?!index\\.ts$)',
        pathNot: '^apps/server/src/$1/',
      },
    },
    {
      name: 'only-store-knows-sequelize',
      severity: 'error',
      from: { path: room('apps/server'), pathNot: '^apps/server/src/store/' },
      to: { path: 'node_modules/(sequelize|pg|connect-pg-simple)/' },
    },
    ...FLOORS.slice(1).map((rooms, index) => ({
      name: `web-arrows-fall-from-floor-${index + 1}`,
      comment: 'A room of the web knows those on lower floors; of its own floor, none.',
      severity: 'error',
      from: { path: `^apps/web/src/(${rooms.join('|')})/` },
      to: {
        path: `^apps/web/src/(${FLOORS.slice(0, index + 1)
          .flat()
          .join('|')})/`,
      },
    })),
    ...FLOORS.map((rooms, index) => ({
      name: `web-floor-${index}-side-by-side`,
      severity: 'error',
      from: { path: `^apps/web/src/(${rooms.join('|')})/` },
      to: { path: `^apps/web/src/(${rooms.join('|')})/`, pathNot: '^apps/web/src/$1/' },
    })),
    {
      name: 'web-rooms-by-their-door',
      severity: 'error',
      from: { path: '^apps/web/src/([^/]+)/', pathNot: '^apps/web/src/app/' },
      to: { path: '^apps/web/src/[^/]+/(?!index\\.ts$)', pathNot: '^apps/web/src/($1|theme)/' },
    },
    {
      name: 'pages-talk-to-stores',
      comment: 'Who is shown something asks a store, and the store asks the server.',
      severity: 'error',
      from: { path: '^apps/web/src/.*\\.vue$' },
      to: { path: '^apps/web/src/api/' },
    },
    {
      name: 'engraving-is-drawing',
      severity: 'error',
      from: { path: room('apps/web/src/tab/engraving') },
      to: { path: '^apps/web/src/(?!tab/engraving/|theme/)' },
    },
    {
      name: 'editor-is-typing',
      severity: 'error',
      from: { path: room('apps/web/src/tab/editor') },
      to: { path: '^apps/web/src/(?!tab/editor/)' },
    },
    {
      name: 'only-engraving-knows-vexflow',
      severity: 'error',
      from: { path: '^apps/web/src/(?!tab/engraving/)' },
      to: { path: 'node_modules/vexflow/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['studio-src', 'import', 'browser', 'default'],
      extensions: ['.ts', '.vue', '.js', '.mjs'],
    },
  },
};
