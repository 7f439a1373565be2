/** All parts that are checked for types, with the configuration of each. */
export const WORKSPACES = [
  { name: 'core', config: 'core' },
  { name: 'core’s tests', config: 'core/tsconfig.test.json' },
  { name: 'server', config: 'server' },
  { name: 'demo', config: 'demo' },
  { name: 'standins', config: 'standins' },
  { name: 'web', config: 'web' },
  { name: 'e2e', config: 'e2e' },
  { name: 'bench', config: 'bench' },
  { name: 'reports', config: 'reports' },
];
