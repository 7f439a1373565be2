import { hmac } from '@noble/hashes/hmac.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** The state of the function after the key: windows are worked out one after the other. */
let keyed: { secret: string; mac: ReturnType<typeof hmac.create> } | undefined;

/**
 * Returns a stable identifier (UUID version 8, RFC 9562) of a thing within one window. Without the window's secret
 * it tells nothing of the thing, and the same thing has unrelated identifiers in two windows.
 */
export function pseudonym(secret: string, thing: string): string {
  if (keyed?.secret !== secret) keyed = { secret, mac: hmac.create(sha256, utf8ToBytes(secret)) };
  const hex = bytesToHex(keyed.mac.clone().update(utf8ToBytes(thing)).digest());
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/** Returns a short fingerprint (96 bits, hexadecimal) of a text or of bytes. */
export function fingerprint(content: string | Uint8Array): string {
  const bytes = typeof content === 'string' ? utf8ToBytes(content) : content;
  return bytesToHex(sha256(bytes)).slice(0, 24);
}
