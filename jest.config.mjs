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

/** Looked up at every use in a test's own realm otherwise, which makes computation six times as slow. */
const globals = [
  'Math',
  'Number',
  'String',
  'Array',
  'Object',
  'Map',
  'Set',
  'WeakMap',
  'Uint8Array',
  'Uint16Array',
  'Uint32Array',
  'Int16Array',
  'Int32Array',
  'Float32Array',
  'Float64Array',
  'DataView',
  'JSON',
];

export default {
  projects: [
    {
      displayName: 'unit',
      testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/fuzz/**/*.test.ts', '<rootDir>/demo/**/*.test.ts'],
      transform,
      testEnvironment: 'node',
      sandboxInjectedGlobals: globals,
    },
    {
      displayName: 'bundled',
      testMatch: ['<rootDir>/build/unit/*.test.cjs'],
      transform: {},
      testEnvironment: 'node',
      sandboxInjectedGlobals: globals,
    },
    { displayName: 'e2e', testMatch: ['<rootDir>/e2e/**/*.test.ts'], transform, testEnvironment: 'node' },
  ],
};
