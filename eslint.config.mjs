import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

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

function room(files, patterns) {
  return { files, rules: { 'no-restricted-imports': ['error', { patterns }] } };
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
      [`core/src/${name}/**/!(*.test|*ForTests).ts`],
      [
        NOT_IN_CORE,
        {
          regex: '^(#core|#contract|\\.\\./\\.\\./)',
          message: 'The core imports itself by relative paths and nothing beside it.',
        },
        ...above,
      ],
    );
  }),
);

export default tseslint.config(
  {
    ignores: [
      'web/dist*',
      'node_modules',
      '.data',
      'docs',
      '.shot.mjs',
      'bin/run.mjs',
      'bin/bundled.mjs',
      'server/src/heavy/worker.mjs',
      'bin/mariadb/holdForTests.mjs',
      '.scratch',
      'eslint.config.mjs',
    ],
  },
  ...tseslint.configs.recommendedTypeChecked,
  { languageOptions: { parserOptions: { project: './tsconfig.json' } } },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
      // What must be there is taken by core/src/lists/there.ts, which says so when it is not.
      '@typescript-eslint/no-non-null-assertion': 'error',
      // Interfaces here declare callbacks and stores in method style; none of them uses `this` unbound.
      '@typescript-eslint/unbound-method': 'off',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      eqeqeq: 'error',
      'no-console': ['error', { allow: ['error'] }],
    },
  },
  { files: ['web/**/*.{ts,tsx}'], ignores: ['**/*.test.{ts,tsx}'], ...reactHooks.configs.flat.recommended },
  {
    // What an API answers is looked at field by field in its tests.
    files: ['server/**/*.test.ts', 'server/**/*ForTests.ts'],
    rules: Object.fromEntries(
      ['assignment', 'member-access', 'argument', 'call', 'return'].map((r) => [
        `@typescript-eslint/no-unsafe-${r}`,
        'off',
      ]),
    ),
  },
  {
    // A test that relies on what is not there fails anyway; frozen steps between versions stay as they are.
    files: [
      '**/*.test.{ts,tsx}',
      '**/*Arbitrary.ts',
      '**/*ForTests.{ts,tsx}',
      'e2e/**',
      'server/src/migrations/**',
      'core/src/format/upgrades/**',
    ],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off' },
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
    ['server/**/!(*.test|*ForTests).ts'],
    [{ regex: '(^|/)(web|bin)/|^(react|@mantine/.*)$', message: 'The server imports the core, never the interface.' }],
  ),
  room(
    ['web/src/**/*.{ts,tsx}'],
    [
      {
        regex: '(^|/)(server|bin)/src|^(express|knex|mysql2|node:.*)$',
        message: 'The interface imports the core, never the server.',
      },
    ],
  ),
);
