import { get } from 'node:https';
import { expect, it } from 'vitest';
import { NotPublic, isPublicAddress, publicAgent } from './publicAddress';

it.each([
  ...['0.0.0.0', '10.1.2.3', '100.64.0.1', '127.0.0.1', '127.255.255.254', '169.254.169.254', '172.31.0.1'],
  ...['192.0.0.1', '192.0.2.1', '192.168.1.1', '198.18.0.1', '198.19.255.255', '198.51.100.1', '203.0.113.9'],
  ...['224.0.0.1', '239.255.255.250', '240.0.0.1', '255.255.255.255'],
  ...['::', '::1', '::7f00:1', '::ffff:127.0.0.1', '::ffff:8.8.8.8', '64:ff9b::7f00:1', '64:ff9b:1::a00:1'],
  ...['100::1', '2001::1', '2001:db8::1', '2002:7f00:1::', '3fff::1', '5f00::1', 'fc00::1', 'fd12::1'],
  ...['fe80::1', 'fec0::1', 'ff02::1', 'not an address', ''],
])('%s is not public', (address) => {
  expect(isPublicAddress(address)).toBe(false);
});

it.each(['1.1.1.1', '8.8.8.8', '93.184.216.34', '2606:2800:220:1::1', '2a00:1450:4001::1'])(
  '%s is public',
  (address) => {
    expect(isPublicAddress(address)).toBe(true);
  },
);

it('a name that leads into this machine is refused when it is looked up', async () => {
  const error = await new Promise((resolve) =>
    get({ host: 'localhost', port: 443, agent: publicAgent }).once('error', resolve),
  );
  expect(error).toBeInstanceOf(NotPublic);
});
