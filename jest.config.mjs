/** @type {import('jest').Config} */
export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/tests/core', '<rootDir>/tests/reference', '<rootDir>/tests/server', '<rootDir>/tests/app'],
  testMatch: ['**/*.test.ts'],
  extensionsToTreatAsEsm: ['.ts'],
  transform: {
    '^.+\\.ts$': '<rootDir>/tests/support/jest-transform.mjs',
    'clipper2-ts/.+\\.js$': '<rootDir>/tests/support/jest-transform.mjs',
  },
  transformIgnorePatterns: ['/node_modules/(?!clipper2-ts/)'],
  moduleNameMapper: {
    '^#core/(.*)$': '<rootDir>/core/$1',
    '^#server/(.*)$': '<rootDir>/server/$1',
    '^~/(.*)$': '<rootDir>/app/$1',
  },
  modulePathIgnorePatterns: ['<rootDir>/.nuxt', '<rootDir>/.output'],
  setupFilesAfterEnv: ['<rootDir>/tests/support/same-bytes.ts'],
  maxWorkers: 2,
  // Modules and engines of files that are done stay in a worker's memory: 9 GB after a hundred files, and all grows slow.
  workerIdleMemoryLimit: '700MB',
  testSequencer: '<rootDir>/tests/support/long-first.mjs',
  // Whole frames and encoders take their time on a busy machine; a test that hangs still ends.
  testTimeout: 60_000,
}
