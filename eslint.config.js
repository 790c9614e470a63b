import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import vue from 'eslint-plugin-vue';
import globals from 'globals';
import ts from 'typescript-eslint';

const folders = ['core', 'contract', 'server', 'cli', 'web', 'demo', 'scripts', 'e2e'];

/** What each folder may import from; DESIGN: arrows go down only. */
const arrows = {
  core: [],
  contract: ['core'],
  server: ['contract', 'core'],
  web: ['contract', 'core'],
  demo: ['server', 'contract', 'core'],
  // `vivid bench` measures with the browser's helpers.
  cli: ['scripts', 'demo', 'server', 'contract', 'core'],
};

const forbidden = (folder) =>
  folders
    .filter((other) => other !== folder && !arrows[folder].includes(other))
    .map((other) => ({
      regex: `^(#|(\\.\\./)+)${other}/`,
      message: `${folder}/ must not import from ${other}/: arrows go down only (README, "How it is built").`,
    }));

const packagesForbidden = {
  core: { regex: '^(?!\\.|#|vitest$|fast-check$|fraction\\.js$)', message: 'core/ stands on the language alone.' },
  contract: { regex: '^(node:|vue|express|pinia|vuetify)', message: 'contract/ holds schemas only.' },
  server: { regex: '^(vue|pinia|vuetify)', message: 'The server knows no interface code.' },
  web: { regex: '^(node:|express$|pg$)', message: 'The interface knows no server code.' },
};

const arrowRule = (folder) => ({
  files: [`${folder}/**/*.{ts,vue}`],
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: [...forbidden(folder), ...(packagesForbidden[folder] ? [packagesForbidden[folder]] : [])] },
    ],
  },
});

export default ts.config(
  { ignores: ['dist', 'data', 'node_modules', 'test-results', '.cache'] },
  js.configs.recommended,
  ...ts.configs.strict,
  ...ts.configs.stylistic,
  ...vue.configs['flat/recommended'],
  {
    languageOptions: { globals: { ...globals.node } },
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  { files: ['web/**'], languageOptions: { globals: { ...globals.browser } } },
  { files: ['web/**/*.vue'], rules: { 'vue/no-v-html': 'error', 'vue/multi-word-component-names': 'off' } },
  ...Object.keys(arrows).map(arrowRule),
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'navigator',
        'process',
        'Buffer',
        'fetch',
        'performance',
        'crypto',
        'setTimeout',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'core/ has no randomness.' },
        { object: 'Date', property: 'now', message: 'core/ has no clock.' },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'core/ has no clock.' },
      ],
    },
  },
  // Tests of the interface read real documents with the server's readers.
  { files: ['web/**/*.test.ts', 'web/testing/**'], rules: { 'no-restricted-imports': 'off' } },
  { files: ['cli/**', 'scripts/**', 'demo/make/**'], rules: { 'no-console': 'off' } },
  prettier,
);
