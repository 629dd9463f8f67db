/** @type {import('jest').Config} */
export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/tests/core', '<rootDir>/tests/reference', '<rootDir>/tests/server', '<rootDir>/tests/app'],
  testMatch: ['**/*.test.ts'],
  extensionsToTreatAsEsm: ['.ts'],
  transform: {
    '^.+\\.ts$': [
      '@swc/jest',
      {
        jsc: { target: 'es2022', parser: { syntax: 'typescript' } },
        module: { type: 'es6' },
        sourceMaps: 'inline',
      },
    ],
  },
  moduleNameMapper: {
    '^#core/(.*)$': '<rootDir>/core/$1',
    '^#server/(.*)$': '<rootDir>/server/$1',
    '^~/(.*)$': '<rootDir>/app/$1',
  },
  modulePathIgnorePatterns: ['<rootDir>/.nuxt', '<rootDir>/.output'],
  maxWorkers: 2,
  // Whole frames and encoders take their time on a busy machine; a test that hangs still ends.
  testTimeout: 60_000,
}
