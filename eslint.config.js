import js from '@eslint/js'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'
import parser from 'vue-eslint-parser'

export default [
  { ignores: ['resources/ui/api/schema.d.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/essential'],
  {
    files: ['resources/ui/**/*.{ts,vue}'],
    languageOptions: { parser, parserOptions: { parser: ts.parser, sourceType: 'module' } },
    rules: { 'no-undef': 'off', '@typescript-eslint/no-explicit-any': 'error', eqeqeq: 'error' },
  },
]
