import { createNodeResolver, importX } from 'eslint-plugin-import-x';
import reactHooks from 'eslint-plugin-react-hooks';
import * as regexp from 'eslint-plugin-regexp';
import tseslint from 'typescript-eslint';

/** What each house may import; the folders it must not reach are named by pattern. */
const forbid = (message, ...group) => ({ group, message });

/** Core's ladder, lowest first: a folder may use those below it. */
const ladder = ['geometry', 'colour', 'time', 'access', 'job', 'document', 'words', 'motif', 'artwork', 'brand', 'write', 'network', 'text', 'crop', 'scene', 'template', 'piece', 'compose', 'video', 'cut', 'wording', 'export', 'post', 'results', 'replies', 'plan', 'preflight', 'care', 'ideas'];

const coreRule = (folder, index) => ({
  files: [`src/core/${folder}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          forbid('core knows no server, interface, worker or contract', '**/server/**', '**/islands/**', '**/workers/**', '**/pages/**', '**/contract/**', '**/standin/**'),
          forbid('core is pure: no Node, database, interface or image program', 'node:*', 'fs', 'path', 'knex', 'better-sqlite3', 'sharp', '@napi-rs/*', 'react', 'react-*', 'astro', 'astro:*'),
          ...(index < ladder.length - 1 ? [forbid(`core/${folder} stands below these on the ladder`, ...ladder.slice(index + 1).map((upper) => `../${upper}/*`))] : []),
        ],
      },
    ],
    'no-restricted-globals': ['error', 'document', 'window', 'fetch', 'process', 'localStorage', 'setTimeout', 'setInterval'],
    'no-restricted-properties': ['error', { object: 'Date', property: 'now' }, { object: 'Math', property: 'random' }, { object: 'performance', property: 'now' }],
  },
});

const houseRule = (files, patterns) => ({ files, ignores: ['**/*.test.ts'], rules: { 'no-restricted-imports': ['error', { patterns }] } });

export default tseslint.config(
  { ignores: ['dist/**', 'node_modules/**', '.astro/**', '.data/**', 'test-results/**', '.cache/**'] },
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports', disallowTypeAnnotations: false }],
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
      // Taking a key out of a draft is how a slot or a cell becomes empty.
      '@typescript-eslint/no-dynamic-delete': 'off',
      'no-console': 'error',
      eqeqeq: 'error',
    },
  },
  { files: ['**/*.tsx', 'src/islands/**/*.ts'], plugins: { 'react-hooks': reactHooks }, rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' } },
  {
    files: ['src/**/*.{ts,tsx}', 'standin/**/*.ts'],
    plugins: { 'import-x': importX },
    settings: { 'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts', '.tsx'] })], 'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] }, 'import-x/extensions': ['.ts', '.tsx'] },
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] },
  },
  // A pattern that is worse than linear freezes the process with a short text from outside.
  { files: ['src/**/*.{ts,tsx}', 'standin/**/*.ts'], ignores: ['**/*.test.ts'], plugins: { regexp }, rules: { 'regexp/no-super-linear-backtracking': ['error', { report: 'certain' }], 'regexp/no-super-linear-move': ['error', { report: 'potential', ignoreSticky: true }] } },
  // `outline-none` takes the style of every later outline away as well: what has the focus would look like what has not.
  { files: ['src/**/*.tsx'], rules: { 'no-restricted-syntax': ['error', ...['Literal[value=/outline-none.*outline-2|outline-2.*outline-none/]', 'TemplateElement[value.raw=/outline-none.*outline-2|outline-2.*outline-none/]'].map((selector) => ({ selector, message: 'Write outline-0: outline-none hides the outline of the focus too.' }))] } },
  ...ladder.map(coreRule),
  houseRule(['src/server/**/*.ts'], [forbid('server knows no interface', '**/islands/**', '**/workers/**', '**/pages/**', '**/standin/**', 'react', 'react-*')]),
  houseRule(['src/islands/**/*.{ts,tsx}'], [forbid('islands reach the server over HTTP only', '**/server/**', '**/pages/**', '**/standin/**', 'node:*')]),
  houseRule(['src/workers/**/*.ts'], [forbid('workers call core only', '**/server/**', '**/islands/**', '**/pages/**', '**/standin/**', 'node:*', 'react')]),
  houseRule(['src/contract/**/*.ts'], [forbid('the contract is shared by both sides and knows neither', '**/server/**', '**/islands/**', '**/workers/**', '**/pages/**', 'node:*', 'react')]),
  houseRule(['standin/**/*.ts'], [forbid('the stand-ins are a service of their own', '**/src/**')]),
);
