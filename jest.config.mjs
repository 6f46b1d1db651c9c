const transform = {
  '^.+\\.tsx?$': [
    '@swc/jest',
    {
      jsc: {
        target: 'es2022',
        parser: { syntax: 'typescript', tsx: true },
        transform: { react: { runtime: 'automatic' } },
      },
    },
  ],
};

export default {
  projects: [
    {
      displayName: 'unit',
      testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/fuzz/**/*.test.ts', '<rootDir>/demo/**/*.test.ts'],
      transform,
      testEnvironment: 'node',
    },
    { displayName: 'e2e', testMatch: ['<rootDir>/e2e/**/*.test.ts'], transform, testEnvironment: 'node' },
  ],
};
