const shared = {
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true } }, module: { type: 'es6' } },
    ],
  },
};

export default {
  // A machine may be busy with something else: what hangs is found all the same, only later.
  testTimeout: 60000,
  projects: [
    {
      ...shared,
      displayName: 'unit',
      testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/bin/**/*.test.ts', '<rootDir>/demo/**/*.test.ts'],
    },
    { ...shared, displayName: 'browser', testMatch: ['<rootDir>/test/**/*.test.ts'] },
  ],
};
