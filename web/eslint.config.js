import js from '@eslint/js'
import globals from 'globals'
import hooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['dist', 'node_modules', 'src/api/types.d.ts', 'src/api/declared.ts'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  hooks.configs.flat.recommended,
  {
    languageOptions: { globals: globals.browser },
    rules: {
      'max-lines': ['error', { max: 320, skipBlankLines: true }],
      '@typescript-eslint/no-non-null-assertion': 'error',
      eqeqeq: 'error',
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.name=/^use(Work|Run|Saving)$/][arguments.length=0]',
          message: 'Subscribe to what is shown, not to the whole store.',
        },
      ],
    },
  },
  { files: ['public/sw.js'], languageOptions: { globals: globals.serviceworker } },
  { files: ['*.mjs', 'tests/*.mjs'], languageOptions: { globals: globals.node } },
)
