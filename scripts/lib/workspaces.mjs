/**
 * Programs that are checked for types, with the configuration of each. What runs in Node is one program: every part of it uses
 * core, which would be checked again with each.
 */
export const WORKSPACES = [
  { name: 'core, without tests', config: 'core' },
  { name: 'all that runs in Node', config: 'tsconfig.node.json' },
  { name: 'web', config: 'web' },
];
