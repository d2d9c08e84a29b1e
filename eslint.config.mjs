import js from '@eslint/js';
import importX, { createNodeResolver } from 'eslint-plugin-import-x';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Imports run one way: core ← cli, server, web; features never import each other's insides. */
const noImports = (patterns, message) => ({ 'no-restricted-imports': ['error', { patterns: [{ group: patterns, message }] }] });

/** Of Math only what is the same to the last bit everywhere; nothing ambient; nothing whose order is not ours. */
const engineDiscipline = [
  {
    selector: "MemberExpression[object.name='Math'][property.name!=/^(abs|min|max|floor|ceil|trunc|sqrt|imul|clz32)$/]",
    message: 'of Math the engine uses only abs, min, max, floor, ceil, trunc, sqrt, imul and clz32: others differ between machines',
  },
  { selector: "BinaryExpression[operator='**']", message: '** differs between machines' },
  { selector: "AssignmentExpression[operator='**=']", message: '** differs between machines' },
  { selector: "Identifier[name='Date']", message: 'the engine has no clock' },
  { selector: "Identifier[name='performance']", message: 'the engine has no clock' },
  { selector: "Identifier[name='localeCompare']", message: 'localeCompare depends on the place' },
  { selector: 'ForInStatement', message: 'the order of an object’s fields is not ours' },
];

/** What is done while a fight goes on: an object made by spreading another is ten times as slow to make, and to read. */
const whileFighting = {
  selector: ':function ObjectExpression > SpreadElement',
  message: 'name its fields: an object made by spreading is slow to make and to read',
};

/** The folders of the core, each with those it may use the code of (types may come from anywhere): no two know each other. */
const LAYERS = {
  record: [],
  measures: ['record'],
  model: ['record', 'measures'],
  engine: ['record', 'model'],
  trace: ['record', 'measures', 'model', 'engine'],
  analysis: ['record', 'measures', 'model', 'engine'],
  tuning: ['record', 'measures', 'model', 'engine', 'analysis'],
  telling: ['record', 'measures', 'model', 'analysis'],
  exchange: ['record', 'measures', 'model', 'engine', 'analysis', 'telling', 'tuning'],
};
const STANDS_ALONE = {
  group: ['@insidia/*', '**/apps/**', 'node:*', 'react*', '@nestjs/*'],
  message: 'the core stands alone: no interface, no I/O',
};
const layers = Object.entries(LAYERS).map(([folder, uses]) => ({
  files: [`packages/core/src/${folder}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': 'off',
    '@typescript-eslint/no-restricted-imports': [
      'error',
      {
        patterns: [
          STANDS_ALONE,
          ...Object.keys(LAYERS)
            .filter((other) => other !== folder && !uses.includes(other))
            .map((other) => ({ group: [`**/${other}/**`], message: `${folder}/ uses no code of ${other}/`, allowTypeImports: true })),
        ],
      },
    ],
  },
}));

export default tseslint.config(
  { ignores: ['**/dist/', '**/node_modules/', '.insidia/', 'scripts/.shot.mjs'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/prefer-as-const': 'off',
    },
  },
  // Tests break documents on purpose and read whatever comes back.
  { files: ['**/*.test.ts', 'e2e/**/*.ts'], rules: { '@typescript-eslint/no-explicit-any': 'off' } },
  { files: ['apps/server/src/**/*.ts'], rules: { '@typescript-eslint/consistent-type-imports': 'off' } },
  {
    files: ['packages/core/src/**/*.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: [STANDS_ALONE] }] },
  },
  ...layers,
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts'] })],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'] },
    },
    rules: { 'import-x/no-cycle': 'error' },
  },
  { files: ['packages/core/src/**/*.test.ts', 'packages/core/src/testing/*.ts'], rules: { 'no-restricted-imports': 'off' } },
  {
    files: ['packages/core/src/{engine,record}/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'no-restricted-syntax': ['error', ...engineDiscipline] },
  },
  {
    files: ['packages/core/src/engine/{body,harm,mind,player,rounds,time,waves}/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'no-restricted-syntax': ['error', ...engineDiscipline, whileFighting] },
  },
  {
    files: ['apps/cli/src/**/*.ts'],
    rules: noImports(['@insidia/server', '@insidia/web', '**/server/**', '**/web/**'], 'the command line knows the core only'),
  },
  { files: ['apps/server/src/**/*.ts'], rules: noImports(['@insidia/cli', '@insidia/web', '**/cli/**'], 'the server knows the core only') },
  {
    files: ['apps/server/src/**/*.ts'],
    ignores: ['apps/server/src/threads/pool.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          paths: [
            { name: 'piscina', message: 'threads come from threads/pool.ts, whose test looks at what they load', allowTypeImports: true },
          ],
        },
      ],
    },
  },
  {
    files: ['apps/web/src/{features,fields,app}/**/*.{ts,tsx}'],
    rules: {
      // A name written out has nothing for the next step of a drag to go on from.
      'no-restricted-syntax': [
        'error',
        { selector: 'TemplateElement[value.raw=/→ $/]', message: 'from one number to another: hand over a `Moved`, or use `movedWords`' },
      ],
    },
  },
  {
    files: ['apps/web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      ...noImports(['@insidia/cli', '@insidia/server', '**/packages/**'], 'the page knows the core only, by its name'),
    },
  },
  {
    files: ['apps/web/src/features/**/*.{ts,tsx}'],
    rules: noImports(
      ['../../features/*', '../*/!(ReadoutPanel)'],
      'a feature does not reach into another: share through fields, visuals or store',
    ),
  },
  {
    files: ['e2e/**/*.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          // The hands of `acts.ts` go by these; the mouse itself goes where it is sent.
          selector:
            "AwaitExpression > CallExpression[callee.property.name='click']:not([callee.object.name=/^(acts|keys)$/]):not([callee.object.type='ThisExpression']):not([callee.object.property.name='mouse'])",
          message: 'what comes in may move it from under the mouse: pressAt, pressOn or press',
        },
        { selector: "Property[key.name='timeout']", message: 'a wait ends with what it waits for, however slow the machine is' },
        {
          selector: 'CallExpression > ArrowFunctionExpression + Literal[raw=/^[0-9_]+$/]',
          message: 'a test ends with what it waits for: the suite has one long limit for all',
        },
      ],
    },
  },
  {
    files: ['**/*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        SharedArrayBuffer: 'readonly',
        Atomics: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        structuredClone: 'readonly',
        document: 'readonly',
        performance: 'readonly',
        localStorage: 'readonly',
        location: 'readonly',
        requestAnimationFrame: 'readonly',
        KeyboardEvent: 'readonly',
        window: 'readonly',
      },
    },
  },
  {
    files: ['apps/cli/bin/*.js', '**/*.cjs'],
    languageOptions: {
      sourceType: 'commonjs',
      globals: { require: 'readonly', process: 'readonly', module: 'writable', exports: 'writable' },
    },
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
);
