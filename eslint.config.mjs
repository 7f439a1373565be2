import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** What a layer may not import. Arrows point to core only. */
const layer = (files, forbidden, message) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group: forbidden, message }] }] },
});

/** The rooms of the server, from the outside in; http, jobs, db and threads are what all stand on. */
const SERVER_ROOMS = [
  'post',
  'reach',
  'outside',
  'glass',
  'inside',
  'people',
  ['http', 'jobs', 'db', 'threads'],
];
/** Those of the application. */
const WEB_ROOMS = [
  'shell',
  'outside',
  'glass',
  'inside',
  'house',
  'rehearsal',
  'workers',
  'api',
  'ui',
  'texts',
  'theme',
];

/** What lies beyond a package. */
const BEYOND = {
  server: ['@zonal/web*', '@zonal/demo*', '**/web/**', '**/demo/**'],
  web: ['node:*', '@zonal/server*', '@zonal/demo*', '**/server/**'],
};

/** In each room nothing of a higher one may be imported, nor what puts all together. */
const rooms = (folder, order, beyond) =>
  order.flatMap((room, at) =>
    [room].flat().map((name) => {
      const higher = order.slice(0, at).flat();
      const together = '\\.\\./(app|App|desk|deskThread|server|main|demoRoute)$';
      const regex = higher.length ? `^(\\.\\./)+(${higher.join('|')})/|${together}` : together;
      const message = `Arrows between rooms run one way: ${order.flat().join(', ')}.`;
      return {
        files: [`${folder}/${name}/**`],
        ignores: TESTS,
        rules: {
          'no-restricted-imports': [
            'error',
            {
              patterns: [
                { regex, message },
                { group: beyond, message: `${folder} uses core only.` },
              ],
            },
          ],
        },
      };
    }),
  );

const TESTS = ['**/*.test.ts', '**/*.test.tsx', 'core/src/testing/**'];

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.data/**', 'test-results/**'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
      '@typescript-eslint/no-invalid-void-type': 'off',
      'no-control-regex': 'off',
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  {
    ...layer(
      ['core/src/**'],
      ['node:*', '@zonal/*', 'react*', 'express*', 'sequelize*', '**/server/**', '**/web/**', '**/demo/**'],
      'core is pure: no interface, server, file or network code.',
    ),
    ignores: TESTS,
  },
  {
    files: ['core/src/**'],
    ignores: TESTS,
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector:
            "MemberExpression[object.name='Date'][property.name='now'], NewExpression[callee.name='Date']",
          message: 'core has no clock: take the time as an argument.',
        },
        {
          selector: "MemberExpression[object.name='Math'][property.name='random']",
          message: 'core makes no chance.',
        },
      ],
    },
  },
  layer(['server/src/**'], BEYOND.server, 'server uses core only.'),
  layer(
    ['standins/**'],
    ['@zonal/server*', '@zonal/web*'],
    'stand-ins meet the house over its protocols only.',
  ),
  ...rooms('server/src', SERVER_ROOMS, BEYOND.server),
  layer(['web/src/**'], BEYOND.web, 'web uses core only.'),
  ...rooms('web/src', WEB_ROOMS, BEYOND.web),
  layer(['e2e/**'], ['@zonal/server*', '@zonal/web*'], 'e2e meets the built application over HTTP only.'),
  {
    files: ['web/src/**'],
    plugins: { 'react-hooks': hooks },
    // The virtual lists are a library's own hook, which the compiler leaves alone.
    rules: { ...hooks.configs.recommended.rules, 'react-hooks/incompatible-library': 'off' },
  },
  {
    files: ['scripts/**', 'eslint.config.mjs', 'core/assets/*.js'],
    rules: { 'no-undef': 'off', 'no-console': 'off' },
  },
  {
    files: ['server/src/**/*.test.ts', 'server/src/testing.ts', 'server/src/testingMail.ts'],
    rules: { '@typescript-eslint/no-explicit-any': 'off' },
  },
);
