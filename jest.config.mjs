/** Native ESM; TypeScript through SWC; node_modules untouched. */
const shared = {
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  setupFiles: ['<rootDir>/jest.setup.ts'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'es6' },
      },
    ],
  },
};
const config = {
  // Whole pages go through other programs: a machine under load takes its time.
  testTimeout: 60_000,
  projects: [
    {
      ...shared,
      displayName: 'core',
      moduleNameMapper: {
        ...shared.moduleNameMapper,
        // What combines outlines sets up a make-believe page, a second for each file of tests.
        '^\\./node/self\\.js$': '<rootDir>/jest.noPage.cjs',
      },
      testEnvironment: '<rootDir>/jest.node-env.mjs',
      testMatch: ['<rootDir>/tests/**/*.test.ts'],
    },
    {
      ...shared,
      displayName: 'interface',
      testEnvironment: '<rootDir>/jest.jsdom-env.mjs',
      testMatch: ['<rootDir>/tests/**/*.test.tsx'],
    },
  ],
};
export default config;
