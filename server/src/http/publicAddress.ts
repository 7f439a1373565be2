import { lookup, type LookupAddress } from 'node:dns';
import { Agent } from 'node:https';
import { BlockList, isIP, type LookupFunction } from 'node:net';

/** IPv4 addresses that are not public (IANA special-purpose registry, RFC 6890). */
const SPECIAL_IPV4 = [
  ...['0.0.0.0/8', '10.0.0.0/8', '100.64.0.0/10', '127.0.0.0/8', '169.254.0.0/16', '172.16.0.0/12'],
  ...['192.0.0.0/24', '192.0.2.0/24', '192.31.196.0/24', '192.52.193.0/24', '192.88.99.0/24'],
  ...['192.168.0.0/16', '192.175.48.0/24', '198.18.0.0/15', '198.51.100.0/24', '203.0.113.0/24'],
  ...['224.0.0.0/4', '240.0.0.0/4'],
];
/** The one block of IPv6 in which addresses are public (RFC 4291 section 2.4), and what in it is not. */
const PUBLIC_IPV6 = '2000::/3';
const SPECIAL_IPV6 = ['2001::/23', '2001:db8::/32', '2002::/16', '2620:4f:8000::/48', '3fff::/20'];

function listOf(family: 'ipv4' | 'ipv6', subnets: readonly string[]): BlockList {
  const list = new BlockList();
  for (const subnet of subnets) {
    const [network, prefix] = subnet.split('/') as [string, string];
    list.addSubnet(network, Number(prefix), family);
  }
  return list;
}

const special = { 4: listOf('ipv4', SPECIAL_IPV4), 6: listOf('ipv6', SPECIAL_IPV6) };
const publicIpv6 = listOf('ipv6', [PUBLIC_IPV6]);

/** Returns whether an IP address belongs to the public Internet. IPv4 written as IPv6 does not: nobody has to write it so. */
export function isPublicAddress(address: string): boolean {
  const family = isIP(address);
  if (family === 4) return !special[4].check(address, 'ipv4');
  return family === 6 && publicIpv6.check(address, 'ipv6') && !special[6].check(address, 'ipv6');
}

/** A name leads to an address that is not public. */
export class NotPublic extends Error {
  constructor(readonly address: string) {
    super(`${address} is not a public address.`);
  }
}

/**
 * Looks a name up and refuses it if one of its addresses is not public. The connection goes to what was checked here, so that
 * a name cannot lead elsewhere between check and connection.
 */
const publicLookup: LookupFunction = (hostname, options, callback) => {
  lookup(hostname, { ...options, all: true }, (error, addresses: LookupAddress[]) => {
    if (error) return callback(error, []);
    const refused = addresses.find(({ address }) => !isPublicAddress(address));
    if (refused) return callback(new NotPublic(refused.address), []);
    if (options.all) return callback(null, addresses);
    const [{ address, family }] = addresses as [LookupAddress];
    callback(null, address, family);
  });
};

/** Connects to public addresses only. A host that is written as an IP address is not looked up: check it first. */
export const publicAgent = new Agent({ lookup: publicLookup });
