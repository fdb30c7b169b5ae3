/** Two suites: the core and contract (no server), and the server through HTTP against real PostgreSQL. */
const shared = {
  testEnvironment: 'node',
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
  projects: [
    { ...shared, displayName: 'core', roots: ['<rootDir>/packages'], testPathIgnorePatterns: ['/dist/'] },
    { ...shared, displayName: 'server', roots: ['<rootDir>/apps/server'], testPathIgnorePatterns: ['/dist/'] },
  ],
};
