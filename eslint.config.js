import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import { importX } from 'eslint-plugin-import-x';
import regexp from 'eslint-plugin-regexp';
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
  // Drives the product from outside; it may speak of what crosses the wire.
  e2e: ['contract', 'core'],
  // Measures and draws the product, with the helpers of the browser tests.
  scripts: ['e2e', 'demo', 'server', 'contract', 'core'],
  cli: ['scripts', 'demo', 'server', 'contract', 'core'],
};

/** The rooms of the two large folders, from the ground up: each may use those before it. So there is no way round in a circle. */
const rooms = {
  web: [
    ...[
      'wording',
      'offline',
      'session',
      'outbox',
      'shell',
      'player',
      'transcript',
      'recorder',
      'recordings',
      'feedback',
      'ink',
      'folio',
    ],
    ...[
      'margin',
      'paper',
      'talk',
      'replies',
      'earlier',
      'remark',
      'search',
      'bank',
      'notes',
      'hand-in',
      'assignments',
      'courses',
      'gradebook',
      'charts',
      'moderation',
      'platforms',
      'sign-in',
      'joining',
      'speech',
      'returned',
    ],
    'desk',
  ],
  server: [
    ...[
      'threads',
      'db',
      'access',
      'media',
      'documents',
      'reading',
      'transcripts',
      'speech',
      'translation',
      'http',
      'nameless',
      'sessions',
    ],
    ...[
      'school',
      'mail',
      'joining',
      'roster',
      'margin-key',
      'languages',
      'recordings',
      'assignments',
      'handouts',
      'submissions',
      'remarks',
      'annotations',
      'bank',
      'bank-file',
      'notes',
      'greetings',
      'courses',
    ],
    ...[
      'grading',
      'gradebook',
      'oneroster',
      'platforms',
      'charts',
      'class',
      'earlier',
      'feedback',
      'moderation',
      'returning',
      'hand-in',
      'own-work',
      'marked',
      'own-data',
      'notices',
      'replies',
      'search',
      'stamps',
      'waiting',
    ],
  ],
};

const forbidden = (folder) =>
  folders
    .filter((other) => other !== folder && !arrows[folder].includes(other))
    .map((other) => ({
      regex: `^(#|(\\.\\./)+)${other}/`,
      message: `${folder}/ must not import from ${other}/: arrows go down only (README, "How it is built").`,
    }));

const above = (folder, room) =>
  rooms[folder].slice(rooms[folder].indexOf(room) + 1).map((other) => ({
    regex: `^(#${folder}/|(\\.\\./)+)${other}/`,
    message: `${folder}/${room} must not import from ${folder}/${other}, which stands on it (eslint.config.js, "rooms").`,
  }));

const packagesForbidden = {
  core: {
    regex:
      '^(?!\\.|#|(vitest|fast-check|fraction\\.js|d3-array|simple-statistics|snowball-stemmers|stopword|fastest-levenshtein|minisearch|papaparse|perfect-freehand|fflate|@cantoo/pdf-lib)$)',
    message: 'core/ stands on the language and on libraries that compute, without a face or a machine.',
  },
  contract: { regex: '^(node:|vue|express|pinia|vuetify)', message: 'contract/ holds schemas only.' },
  server: { regex: '^(vue|pinia|vuetify)', message: 'The server knows no interface code.' },
  web: { regex: '^(node:|express$|pg$)', message: 'The interface knows no server code.' },
};

const restricted = (files, folder, more = []) => ({
  files,
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: [...forbidden(folder), ...(packagesForbidden[folder] ? [packagesForbidden[folder]] : []), ...more] },
    ],
  },
});

const arrowRule = (folder) => restricted([`${folder}/**/*.{ts,vue,mjs}`], folder);
const roomRules = Object.keys(rooms).flatMap((folder) =>
  rooms[folder].map((room) => restricted([`${folder}/${room}/**/*.{ts,vue}`], folder, above(folder, room))),
);

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
  {
    // Text from outside must not make a pattern take longer than the text is long.
    files: ['{core,contract,server,web,cli}/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts'],
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': 'error',
    },
  },
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  { files: ['web/**'], languageOptions: { globals: { ...globals.browser } } },
  {
    files: ['web/**'],
    ignores: ['web/**/*.test.ts', 'web/testing/**'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...Object.keys(globals.nodeBuiltin).filter((name) => !(name in globals.browser)),
      ],
    },
  },
  { files: ['web/**/*.vue'], rules: { 'vue/no-v-html': 'error', 'vue/multi-word-component-names': 'off' } },
  ...Object.keys(arrows).map(arrowRule),
  ...roomRules,
  {
    files: ['**/*.{ts,vue}'],
    // For the plugin, which reads components by itself.
    languageOptions: { parserOptions: { parser: '@typescript-eslint/parser' } },
    plugins: { 'import-x': importX },
    settings: {
      'import-x/extensions': ['.ts', '.vue'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'], 'vue-eslint-parser': ['.vue'] },
      'import-x/resolver-next': [createTypeScriptImportResolver({ project: 'tsconfig/node.json' })],
    },
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] },
  },
  {
    files: ['**/*.ts'],
    languageOptions: {
      parserOptions: {
        project: 'tsconfig/lint.json',
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: { '@typescript-eslint/no-floating-promises': 'error' },
  },
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
  {
    files: ['web/**/*.test.ts', 'web/testing/**', 'server/**/*.test.ts', 'server/testing/**'],
    rules: { 'no-restricted-imports': 'off' },
  },
  { files: ['cli/**', 'scripts/**', 'demo/make/**'], rules: { 'no-console': 'off' } },
  prettier,
);
