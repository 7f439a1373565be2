import { hmac } from '@noble/hashes/hmac.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** The state of the function after the key, and one to work in: windows are worked out one after the other. */
let keyed: { secret: string; mac: Mac; scratch: Mac } | undefined;
type Mac = ReturnType<typeof hmac.create>;
const digest = new Uint8Array(32);

/**
 * Returns a stable identifier (UUID version 8, RFC 9562) of a thing within one window. Without the window's secret
 * it tells nothing of the thing, and the same thing has unrelated identifiers in two windows.
 */
export function pseudonym(secret: string, thing: string): string {
  if (keyed?.secret !== secret) {
    const mac = hmac.create(sha256, utf8ToBytes(secret));
    keyed = { secret, mac, scratch: mac.clone() as Mac };
  }
  keyed.mac._cloneInto(keyed.scratch).update(utf8ToBytes(thing)).digestInto(digest);
  const hex = bytesToHex(digest);
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/**
 * Returns 128 bits (hexadecimal) that tell two texts apart which nobody has made on purpose to look alike: for asking
 * whether something has changed, many thousand times in a row. Where it goes out, {@link fingerprint} is taken.
 */
export function quickPrint(text: string): string {
  let [a, b, c, d] = [0x243f6a88, 0x85a308d3, 0x13198a2e, 0x03707344];
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i);
    a = Math.imul(a ^ unit, 0x9e3779b1);
    b = Math.imul(b ^ unit, 0x85ebca77);
    c = Math.imul(c ^ (unit + a), 0xc2b2ae3d);
    d = Math.imul(d ^ (unit + b), 0x27d4eb2f);
    a = (a << 13) | (a >>> 19);
    b = (b << 17) | (b >>> 15);
  }
  return [a, b, c, d]
    .map((n) => (Math.imul(n ^ (n >>> 15), 0x2c1b3c6d) >>> 0).toString(16).padStart(8, '0'))
    .join('');
}

/** Returns a short fingerprint (96 bits, hexadecimal) of a text or of bytes. */
export function fingerprint(content: string | Uint8Array): string {
  const bytes = typeof content === 'string' ? utf8ToBytes(content) : content;
  return bytesToHex(sha256(bytes)).slice(0, 24);
}
