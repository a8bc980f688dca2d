import js from '@eslint/js'
import vue from 'eslint-plugin-vue'
import a11y from 'eslint-plugin-vuejs-accessibility'
import prettier from 'eslint-config-prettier'
import ts from 'typescript-eslint'
import parser from 'vue-eslint-parser'

export default [
  { ignores: ['resources/ui/api/schema.d.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  ...a11y.configs['flat/recommended'],
  prettier,
  {
    files: ['resources/ui/**/*.{ts,vue}'],
    languageOptions: { parser, parserOptions: { parser: ts.parser, sourceType: 'module' } },
    rules: {
      'no-undef': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      eqeqeq: 'error',
      // A label either holds its control or names it; both at once is not asked for.
      'vuejs-accessibility/label-has-for': [
        'error',
        { required: { some: ['nesting', 'id'] }, controlComponents: ['HeaderField'] },
      ],
      'vuejs-accessibility/heading-has-content': ['error', { accessibleChildren: ['EditCell', 'VerdictMark'] }],
      // A dialog takes the focus when it opens and gives it back when it closes; where else is read in review.
      'vuejs-accessibility/no-autofocus': 'off',
    },
  },
]
