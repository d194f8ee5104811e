import js from '@eslint/js'
import hooks from 'eslint-plugin-react-hooks'
import { defineConfig, globalIgnores } from 'eslint/config'
import tseslint from 'typescript-eslint'

export default defineConfig([
  globalIgnores(['dist', 'src/api/schema.d.ts']),
  {
    files: ['src/**/*.{ts,tsx}'],
    extends: [js.configs.recommended, tseslint.configs.recommended, hooks.configs.flat.recommended],
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      // Taking a field out of an object names it on the way.
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
    },
  },
  {
    // Keys of the page go through one list, which a cook can read and switch off.
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['src/lib/keys.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.property.name='addEventListener'] > Literal[value=/^key/]",
          message: 'Use useKeys of lib/keys.ts.',
        },
      ],
    },
  },
  {
    // What is asked of the server goes through one file, which alone knows the keys.
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['src/api/ask.ts', 'src/app/App.tsx'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [
            {
              name: '@tanstack/react-query',
              allowImportNames: ['useMutation'],
              message: 'Ask through api/ask.ts.',
            },
            { name: 'openapi-react-query', message: 'Ask through api/ask.ts.' },
          ],
        },
      ],
    },
  },
])
