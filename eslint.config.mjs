import js from '@eslint/js';
import angular from 'angular-eslint';
import regexp from 'eslint-plugin-regexp';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['**/dist/**', '**/.angular/**', '**/node_modules/**', 'demo/**', 'data/**', '**/*.cjs'] },
  js.configs.recommended,
  {
    // Foreign text never meets an expression that can go quadratic: neither by backtracking nor by starting anew at every place.
    files: ['core', 'server', 'web', 'contract', 'snapshot', 'browser'].map((name) => `${name}/src/**/*.ts`),
    ignores: ['**/*.spec.ts'],
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential', ignoreSticky: true }],
    },
  },
  {
    files: ['**/*.ts'],
    extends: [...tseslint.configs.recommended, ...tseslint.configs.stylistic],
    rules: {
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-extraneous-class': 'off',
      '@typescript-eslint/consistent-type-definitions': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      // Specs left out, or run alone, are for the working tree only.
      'no-restricted-globals': ['error', 'fit', 'fdescribe', 'xit', 'xdescribe', 'pending'],
    },
  },
  {
    // What starts a browser does not wait for the core to be read: it takes types alone.
    files: ['browser/src/**/*.ts'],
    ignores: ['browser/src/{index,run-plan,site-paths}.ts', '**/*.spec.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        { paths: [{ name: '@upper-veneer/core', allowTypeImports: true }] },
      ],
    },
  },
  {
    files: ['web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'uv', style: 'kebab-case' }],
      '@angular-eslint/component-class-suffix': 'off',
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
    },
  },
  // What opens over the page says where the focus goes, as HTML asks of dialogs.
  {
    files: ['web/src/app/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    rules: {
      '@angular-eslint/template/no-autofocus': 'off',
      // Attributes that are read out are told by the crawl over every screen in English between marks.
      '@angular-eslint/template/i18n': [
        'error',
        {
          checkId: false,
          checkText: true,
          checkAttributes: false,
          ignoreTags: ['code', 'pre', 'kbd'],
          allowMarkupInContent: true,
        },
      ],
    },
  },
  {
    files: ['**/*.mjs'],
    languageOptions: {
      globals: {
        fetch: 'readonly',
        FormData: 'readonly',
        Blob: 'readonly',
        process: 'readonly',
        URL: 'readonly',
        console: 'readonly',
        performance: 'readonly',
        setTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        Buffer: 'readonly',
        document: 'readonly',
        CSSStyleSheet: 'readonly',
        getComputedStyle: 'readonly',
      },
    },
  },
);
