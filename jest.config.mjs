const transform = {
  '^.+\\.tsx?$': [
    '@swc/jest',
    {
      jsc: {
        parser: { syntax: 'typescript', tsx: true },
        transform: { react: { runtime: 'automatic' }, useDefineForClassFields: true },
        target: 'es2022',
      },
      module: { type: 'es6' },
    },
  ],
};

/** Database and browser tests wait for conditions; what never comes is told by them, not by this. */
const shared = { testEnvironment: 'node', extensionsToTreatAsEsm: ['.ts', '.tsx'], transform };

/** Unit and component tests stand beside what they test; server tests need the database, browser tests also Chromium. */
export default {
  testTimeout: 120_000,
  projects: [
    {
      ...shared,
      displayName: 'unit',
      testMatch: ['<rootDir>/{core,contract,web,demo,scripts}/**/*.test.ts'],
    },
    {
      ...shared,
      displayName: 'components',
      testEnvironment: 'jsdom',
      testMatch: ['<rootDir>/web/**/*.test.tsx'],
      // Style sheets have no behaviour to test.
      moduleNameMapper: { '\\.css$': '<rootDir>/web/testing/styles.ts' },
      setupFiles: ['<rootDir>/web/testing/browser.ts'],
    },
    { ...shared, displayName: 'server', testMatch: ['<rootDir>/server/**/*.test.ts'] },
    {
      ...shared,
      displayName: 'browser',
      testMatch: ['<rootDir>/e2e/**/*.test.ts'],
      testPathIgnorePatterns: ['<rootDir>/e2e/cluster/', '/node_modules/'],
    },
    // Several processes on a database of three nodes, which it starts itself.
    { ...shared, displayName: 'cluster', testMatch: ['<rootDir>/e2e/cluster/**/*.test.ts'] },
  ],
};
