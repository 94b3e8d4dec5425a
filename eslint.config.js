import js from '@eslint/js'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['dist', '.data', 'node_modules', 'coverage', 'test-results', '**/*.cjs'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      'max-params': ['error', 3],
      'max-lines-per-function': ['error', { max: 40, skipBlankLines: true, skipComments: true }],
      complexity: ['error', 40],
      eqeqeq: ['error', 'smart'],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-console': 'error',
    },
  },
  {
    files: ['src/web/**/*.tsx'],
    rules: {
      'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }],
      // One kit: what can be tapped, typed in or picked from comes from react-bootstrap, in this project's theme.
      'no-restricted-syntax': [
        'error',
        {
          selector: 'JSXOpeningElement[name.name=/^(button|select|textarea|dialog|table)$/]',
          message: 'Use Key, Bare or Plain (web/kit/Keys.tsx), or the component of react-bootstrap.',
        },
        {
          // A slider and a file's chooser have no look of their own there.
          selector:
            'JSXOpeningElement[name.name="input"]:not(:has(JSXAttribute[name.name="type"] > Literal[value=/^(range|file)$/]))',
          message: 'Use Tick (web/kit/Tick.tsx), a field of web/kit, or Form.Control.',
        },
      ],
    },
  },
  {
    files: [
      '**/*.test.{ts,tsx}',
      'e2e/**',
      'bench/**',
      'src/server/tools/**',
      'src/server/bench/**',
      'src/server/demo/**',
      'src/server/reference/**',
    ],
    rules: { 'max-lines-per-function': 'off', 'no-console': 'off', complexity: 'off', 'max-params': 'off' },
  },
  {
    files: ['src/web/frame/first.js'],
    languageOptions: {
      globals: {
        localStorage: 'readonly',
        matchMedia: 'readonly',
        document: 'readonly',
        location: 'readonly',
        fetch: 'readonly',
        window: 'readonly',
      },
    },
  },
  {
    files: ['scripts/**/*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        Buffer: 'readonly',
        AbortSignal: 'readonly',
        AbortController: 'readonly',
        performance: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
      },
    },
    rules: { 'no-console': 'off' },
  },
)
