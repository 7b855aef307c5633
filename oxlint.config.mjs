/** Imports that a room may not make: lists <- units <- wood <- stock, shop, features, facts <- board <- recipe <- cutting, gluing <- trim <- saw <- ladders <- bodies <- finish <- steps <- schedule, money <- plan <- follow, propose, templates, bench <- machining, log <- checks <- format. */
const ORDER = [
  ['lists'],
  ['units'],
  ['wood'],
  ['stock', 'shop', 'features', 'facts'],
  ['board'],
  ['recipe'],
  ['cutting', 'gluing'],
  ['trim'],
  ['saw'],
  ['ladders'],
  ['bodies'],
  ['finish'],
  ['steps'],
  ['schedule', 'money'],
  ['plan'],
  ['follow', 'propose', 'templates', 'bench'],
  ['machining', 'log'],
  ['checks'],
  ['format'],
];

/** Tests and what only they use may look into every room. */
const TESTS = ['**/*.test.ts', '**/*.test.tsx', '**/*ForTests.ts', '**/*ForTests.tsx'];

function room(files, patterns, excludeFiles = []) {
  return { files, excludeFiles, rules: { 'no-restricted-imports': ['error', { patterns }] } };
}

const NOT_IN_CORE = {
  regex: '^(react|react-.*|@mantine/.*|@tanstack/.*|express|knex|mysql2.*|node:.*|fs|path|nanoid)$',
  message: 'The core is pure: no interface, no server, no Node.',
};

const coreRooms = ORDER.flatMap((rooms, level) =>
  rooms.map((name) => {
    const later = ORDER.slice(level + 1)
      .flat()
      .concat(rooms.filter((other) => other !== name));
    const above =
      later.length > 0
        ? [{ regex: `^\\.\\./(${later.join('|')})/`, message: `core/src/${name} may not import from later rooms.` }]
        : [];
    return room(
      [`core/src/${name}/**/*.ts`],
      [
        NOT_IN_CORE,
        {
          regex: '^(#core|#contract|\\.\\./\\.\\./)',
          message: 'The core imports itself by relative paths and nothing beside it.',
        },
        ...above,
      ],
      TESTS,
    );
  }),
);

const on = (plugin, names) => Object.fromEntries(names.map((name) => [`${plugin}/${name}`, 'error']));

export default {
  plugins: ['typescript', 'react'],
  // Each rule is named: none comes or goes with a new version of the linter.
  categories: { correctness: 'off' },
  options: { typeAware: true },
  ignorePatterns: [
    'web/dist*',
    'node_modules',
    '.data',
    'docs',
    'bin/run.mjs',
    'bin/bundled.mjs',
    'server/src/workers/worker.mjs',
    'bin/mariadb/holdForTests.mjs',
    '.scratch',
    'oxlint.config.mjs',
  ],
  rules: {
    eqeqeq: 'error',
    'no-console': ['error', { allow: ['error'] }],
    'no-var': 'error',
    'prefer-const': 'error',
    'prefer-rest-params': 'error',
    'prefer-spread': 'error',
    'no-array-constructor': 'error',
    'no-unused-expressions': 'error',
    'no-unused-vars': [
      'error',
      { argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
    ],
    ...on('typescript', [
      'await-thenable',
      'ban-ts-comment',
      'no-array-delete',
      'no-base-to-string',
      'no-duplicate-enum-values',
      'no-duplicate-type-constituents',
      'no-empty-object-type',
      'no-explicit-any',
      'no-extra-non-null-assertion',
      'no-floating-promises',
      'no-for-in-array',
      'no-implied-eval',
      'no-misused-new',
      'no-misused-promises',
      'no-namespace',
      'no-non-null-asserted-optional-chain',
      // What must be there is taken by core/src/lists/there.ts, which says so when it is not.
      'no-non-null-assertion',
      'no-redundant-type-constituents',
      'no-require-imports',
      'no-this-alias',
      'no-unnecessary-type-assertion',
      'no-unnecessary-type-constraint',
      'no-unsafe-argument',
      'no-unsafe-assignment',
      'no-unsafe-call',
      'no-unsafe-declaration-merging',
      'no-unsafe-enum-comparison',
      'no-unsafe-function-type',
      'no-unsafe-member-access',
      'no-unsafe-return',
      'no-unsafe-unary-minus',
      'no-wrapper-object-types',
      'only-throw-error',
      'prefer-as-const',
      'prefer-namespace-keyword',
      'prefer-promise-reject-errors',
      'require-await',
      'restrict-plus-operands',
      'triple-slash-reference',
    ]),
    'typescript/restrict-template-expressions': 'error',
  },
  overrides: [
    {
      files: ['web/**/*.ts', 'web/**/*.tsx'],
      excludeFiles: TESTS,
      rules: on('react', [
        'rules-of-hooks',
        'exhaustive-deps',
        'error-boundaries',
        'globals',
        'immutability',
        'incompatible-library',
        'preserve-manual-memoization',
        'purity',
        'refs',
        'set-state-in-effect',
        'set-state-in-render',
        'static-components',
        'unsupported-syntax',
        'use-memo',
      ]),
    },
    {
      // What an API answers is looked at field by field in its tests.
      files: ['server/**/*.test.ts', 'server/**/*ForTests.ts'],
      rules: Object.fromEntries(
        ['assignment', 'member-access', 'argument', 'call', 'return'].map((r) => [`typescript/no-unsafe-${r}`, 'off']),
      ),
    },
    {
      // A test that relies on what is not there fails anyway; frozen steps between versions stay as they are.
      files: [...TESTS, '**/*Arbitrary.ts', 'e2e/**', 'server/src/migrations/**', 'core/src/format/upgrades/**'],
      rules: { 'typescript/no-non-null-assertion': 'off' },
    },
    ...coreRooms,
    room(
      ['contract/*.ts'],
      [
        {
          regex: '(^|/)(server|web|bin)/',
          message: 'What server and interface agree on imports the core, and nothing beside it.',
        },
      ],
    ),
    room(
      ['server/**/*.ts'],
      [
        {
          regex: '(^|/)(web|bin)/|^(react|@mantine/.*)$',
          message: 'The server imports the core, never the interface.',
        },
      ],
      TESTS,
    ),
    room(
      ['web/src/**/*.ts', 'web/src/**/*.tsx'],
      [
        {
          regex: '(^|/)(server|bin)/src|^(express|knex|mysql2|node:.*)$',
          message: 'The interface imports the core, never the server.',
        },
      ],
    ),
  ],
};
