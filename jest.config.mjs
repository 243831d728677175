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

/** Unit tests stand beside what they test; server tests need the database, browser tests also Chromium. */
export default {
  testTimeout: 120_000,
  projects: [
    { ...shared, displayName: 'unit', testMatch: ['<rootDir>/{core,contract,web,demo}/**/*.test.ts?(x)'] },
    { ...shared, displayName: 'server', testMatch: ['<rootDir>/server/**/*.test.ts'] },
    { ...shared, displayName: 'browser', testMatch: ['<rootDir>/e2e/**/*.test.ts'] },
  ],
};
