import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import { createNodeResolver, flatConfigs, importX } from 'eslint-plugin-import-x'
import vue from 'eslint-plugin-vue'
import globals from 'globals'
import ts from 'typescript-eslint'

const noInterface = ['vue', 'vue-router', 'pinia', 'vuetify*', 'nuxt*', '#imports', '#app', '~/*', '@/*']

/** The folders of the core, the lowest first. */
const FLOORS = [
  ...[
    'kernels',
    'curves',
    'outline',
    'values',
    'paint',
    'type',
    'brushes',
    'steps',
    'coats',
    'finishes',
    'pieces',
    'masks',
    'documents',
    'card',
  ],
  ...['time', 'frame', 'judge', 'edit', 'stage', 'formats', 'seals', 'rosters'],
]

export default ts.config(
  {
    ignores: [
      ...['.nuxt/**', '.output/**', '.wax/**', 'node_modules/**', 'test-results/**'],
      ...['server/database/migrations/**', 'core/kernels/assembly/**', 'core/kernels/generated/**'],
    ],
  },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  flatConfigs.typescript,
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  { languageOptions: { globals: { ...globals.browser, ...globals.node } } },
  {
    plugins: { 'import-x': importX },
    settings: {
      'import-x/ignore': ['node_modules'],
      'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts', '.mjs', '.js'] })],
    },
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] },
  },
  // TypeScript knows Nuxt's auto-imports; no-undef does not.
  { files: ['**/*.{ts,vue}'], rules: { 'no-undef': 'off', 'vue/multi-word-component-names': 'off' } },
  {
    files: ['core/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [...noInterface, 'node:*', '#server/*', '**/server/**', '**/app/**'] },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'localStorage', 'navigator', 'performance'],
      // Implementation-defined results would make frames differ between hosts: use core/kernels/exact.ts.
      'no-restricted-properties': [
        'error',
        ...['sin', 'cos', 'tan', 'exp', 'pow', 'log', 'atan2', 'hypot', 'cbrt'].map((property) => ({
          object: 'Math',
          property,
          message: 'Not the same bits on every host: use core/kernels/exact.ts.',
        })),
      ],
    },
  },
  // Inside the core the arrows run one way, types included: each folder knows those before it in the list.
  {
    files: ['core/**/*.ts'],
    rules: {
      'import-x/no-restricted-paths': [
        'error',
        {
          zones: FLOORS.slice(0, -1).map((folder, i) => ({
            target: `./core/${folder}`,
            from: FLOORS.slice(i + 1).map((above) => `./core/${above}`),
            message: `Folders of the core are in a row, see eslint.config: ${folder} stands below.`,
          })),
        },
      ],
    },
  },
  prettier,
)
