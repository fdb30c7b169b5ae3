/**
 * Four suites: the core and contract (no server), the web application without a browser, the server through HTTP against real PostgreSQL, and the
 * built application in a real browser.
 */
const shared = {
  testEnvironment: 'node',
  setupFiles: ['<rootDir>/tools/propertySeed.mjs'],
  extensionsToTreatAsEsm: ['.ts'],
  moduleFileExtensions: ['ts', 'js', 'mjs', 'cjs', 'json', 'node'],
  transform: {
    '^.+\\.ts$': [
      '@swc/jest',
      { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'es6' } },
    ],
  },
  testEnvironmentOptions: { customExportConditions: ['studio-src', 'node', 'node-addons'] },
};

export default {
  testTimeout: 240_000,
  // Suites share nothing but the cluster, each with a database, port and folder of its own.
  maxWorkers: 2,
  projects: [
    { ...shared, displayName: 'core', roots: ['<rootDir>/packages'], testPathIgnorePatterns: ['/dist/'] },
    {
      ...shared,
      displayName: 'web',
      roots: ['<rootDir>/apps/web/test'],
      extensionsToTreatAsEsm: ['.ts', '.vue'],
      moduleFileExtensions: [...shared.moduleFileExtensions, 'vue'],
      moduleNameMapper: { '\\.(woff2|css)(\\?\\w+)?$|jam-music\\.woff$': '<rootDir>/tools/assetStub.mjs' },
      transform: { ...shared.transform, '^.+\\.vue$': '<rootDir>/tools/vueTransform.mjs' },
    },
    {
      ...shared,
      displayName: 'e2e',
      roots: ['<rootDir>/e2e'],
      testEnvironment: '<rootDir>/e2e/tellingEnvironment.mjs',
    },
    { ...shared, displayName: 'server', roots: ['<rootDir>/apps/server'], testPathIgnorePatterns: ['/dist/'] },
  ],
};
