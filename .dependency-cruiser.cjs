/** The arrows between the rooms; one drawn the wrong way fails the tests. */
const room = (name) => `^${name}/`;
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
    {
      name: 'parts-know-props-only',
      severity: 'error',
      from: { path: room('apps/web/src/parts') },
      to: { path: '^apps/web/src/(pages|stores|api)/|node_modules/(pinia|vue-router)/' },
    },
    {
      name: 'pages-are-the-top',
      severity: 'error',
      from: { path: room('apps/web/src'), pathNot: '^apps/web/src/(pages/|main\\.ts|router\\.ts|App\\.vue)' },
      to: { path: '^apps/web/src/pages/' },
    },
    {
      name: 'engraving-is-drawing',
      severity: 'error',
      from: { path: room('apps/web/src/engraving') },
      to: { path: '^apps/web/src/(?!engraving/|theme/)' },
    },
    {
      name: 'editor-is-typing',
      severity: 'error',
      from: { path: room('apps/web/src/editor') },
      to: { path: '^apps/web/src/(?!editor/)' },
    },
    {
      name: 'only-engraving-knows-vexflow',
      severity: 'error',
      from: { path: '^apps/web/src/(?!engraving/)' },
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
    extraExtensionsToScan: ['.vue'],
  },
};
