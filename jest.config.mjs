/** One configuration for all unit tests, native ES modules, every processor at work; types are checked by tsc. */
export default {
  testEnvironment: '<rootDir>/tools/jest-environment.mjs',
  maxWorkers: '100%',
  roots: ['<rootDir>/core', '<rootDir>/cli', '<rootDir>/studio/src', '<rootDir>/server', '<rootDir>/tools'],
  testMatch: ['**/*.test.ts'],
  extensionsToTreatAsEsm: ['.ts'],
  moduleNameMapper: {
    '^@kaizen/core$': '<rootDir>/core/src/index.ts',
    '\\.wasm$': '<rootDir>/tools/wasm-bytes.mjs',
  },
  transform: {
    '^.+\\.ts$': [
      '@swc/jest',
      {
        swcrc: false,
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', decorators: true },
          transform: { useDefineForClassFields: true },
        },
        module: { type: 'es6' },
      },
    ],
  },
  testTimeout: 120000,
};
