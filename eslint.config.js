import js from '@eslint/js'
import reactHooks from 'eslint-plugin-react-hooks'
import globals from 'globals'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['node_modules', 'build', '.cache', '.react-router', 'stand-ins/site', 'test-results'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  { files: ['**/*.{ts,tsx,js,mjs}'], languageOptions: { globals: { ...globals.node } } },
  {
    files: ['app/**/*.{ts,tsx}'],
    languageOptions: { globals: { ...globals.browser } },
    plugins: { 'react-hooks': reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      'react-hooks/incompatible-library': 'off',
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    languageOptions: { globals: {} },
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: ['react', 'react-dom', 'react-router', 'dexie', 'comlink'].map((name) => ({
            name,
            message: 'core has no interface and no store.',
          })),
          patterns: [
            {
              group: ['node:*', 'fs', 'path', 'crypto'],
              message: 'core runs in browsers and workers too: no Node API.',
            },
          ],
        },
      ],
      'no-restricted-globals': [
        'error',
        'document',
        'window',
        'navigator',
        'localStorage',
        'fetch',
        'process',
        'Buffer',
        'performance',
        'setTimeout',
        'self',
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'core has no clock: the date is an argument.',
        },
        {
          selector: "MemberExpression[object.name='Date'][property.name='now']",
          message: 'core has no clock: the date is an argument.',
        },
        {
          selector: "MemberExpression[object.name='Math'][property.name='random']",
          message: 'core has no randomness.',
        },
      ],
    },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', caughtErrors: 'none' },
      ],
      'no-control-regex': 'off',
      'no-irregular-whitespace': 'off',
      'no-misleading-character-class': 'off',
    },
  },
)
