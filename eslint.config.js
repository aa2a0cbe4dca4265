import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['dist/', 'node_modules/', '.data/', 'test-results/', 'playwright-report/', '.mutants/'] },
  ...tseslint.configs.strict,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser } } },
  {
    rules: {
      'max-lines': ['error', { max: 500 }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      'vue/multi-word-component-names': 'off',
      // A component that is not imported would be left out without a word.
      'vue/no-undef-components': ['error', { ignorePatterns: ['^v-', '^router-'] }],
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/testing/**'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...[
          'window',
          'document',
          'fetch',
          'console',
          'process',
          'setTimeout',
          'setInterval',
          'crypto',
          'Buffer',
        ].map((name) => ({
          name,
          message: 'core is pure: take it as an argument.',
        })),
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'core has no clock: take the time as an argument.' },
        {
          object: 'Math',
          property: 'random',
          message: 'core has no randomness: take a Random as an argument.',
        },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'core has no clock: take the time as an argument.',
        },
      ],
      'max-depth': ['error', 3],
      // A switch over a union counts as one: its branches are held by the compiler.
      complexity: ['error', { max: 15, variant: 'modified' }],
      // What belongs together goes in together, by name.
      'max-params': ['error', 3],
    },
  },
  {
    // The set of records that kernelOf() binds comes before what a caller says.
    files: ['core/src/records/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'max-params': ['error', 4] },
  },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  prettier,
)
