// Scripts of the pages: plain browser scripts, each in a function of its own.
const js = require('@eslint/js');
const globals = require('globals');

module.exports = [
  js.configs.recommended,
  {
    files: ['web/assets/js/*.js'],
    languageOptions: {
      sourceType: 'script',
      globals: {
        ...globals.browser,
        L: 'readonly',
        htmx: 'readonly',
        geodesic: 'readonly',
        idb: 'readonly',
        Keep: 'readonly',
        Pocket: 'readonly',
        importScripts: 'readonly',
        module: 'readonly',
      },
    },
    rules: {
      eqeqeq: 'error',
      'no-var': 'error',
      'prefer-const': 'error',
      'no-shadow': 'error',
      'no-restricted-globals': ['error', 'model', 'name', 'event', 'status', 'length'],
      'no-unused-vars': ['error', { args: 'after-used' }],
    },
  },
  { files: ['test/js/*.mjs'], languageOptions: { sourceType: 'module', globals: globals.node } },
  { files: ['test/js/*.js', 'eslint.config.js'], languageOptions: { sourceType: 'commonjs', globals: globals.node } },
];
