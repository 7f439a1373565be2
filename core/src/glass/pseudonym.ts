import { hmac } from '@noble/hashes/hmac.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { utf8ToBytes } from '@noble/hashes/utils.js';

/**
 * The state of the function after the key, one to work in, and what was worked out so far: windows are worked out one
 * after the other, and often again.
 */
let keyed: { secret: string; mac: Mac; scratch: Mac; known: Map<string, string> } | undefined;
const MOST_KNOWN = 50_000;
type Mac = ReturnType<typeof hmac.create>;
const digest = new Uint8Array(32);

/**
 * Returns a stable identifier (UUID version 8, RFC 9562) of a thing within one window. Without the window's secret
 * it tells nothing of the thing, and the same thing has unrelated identifiers in two windows.
 */
export function pseudonym(secret: string, thing: string): string {
  if (keyed?.secret !== secret) {
    const mac = hmac.create(sha256, utf8ToBytes(secret));
    keyed = { secret, mac, scratch: mac.clone() as Mac, known: new Map() };
  }
  const before = keyed.known.get(thing);
  if (before !== undefined) return before;
  keyed.mac._cloneInto(keyed.scratch).update(utf8ToBytes(thing)).digestInto(digest);
  const made = uuidOf(digest);
  if (keyed.known.size >= MOST_KNOWN) keyed.known.clear();
  keyed.known.set(thing, made);
  return made;
}

const HEX = [...'0123456789abcdef'].map((digit) => digit.charCodeAt(0));
/** The places of a UUID's hexadecimal digits; a hyphen stands at all others. */
const PLACES = [...'xxxxxxxx-xxxx-xxxx-xxxx-xxxxxxxxxxxx'].flatMap((c, at) => (c === 'x' ? [at] : []));
const letters = new Array<number>(36).fill('-'.charCodeAt(0));

/** Returns the first 16 bytes as a UUID of version 8 with the variant of RFC 9562, written at once: it is done often. */
function uuidOf(bytes: Uint8Array): string {
  for (let i = 0; i < 32; i++) {
    const byte = bytes[i >> 1]!;
    letters[PLACES[i]!] = HEX[i % 2 ? byte & 15 : byte >> 4]!;
  }
  letters[14] = HEX[8]!;
  letters[19] = HEX[10]!;
  return String.fromCharCode(...letters);
}

/**
 * Returns 128 bits (hexadecimal) that tell two texts apart which nobody has made on purpose to look alike: for asking
 * whether something has changed, many thousand times in a row. It never goes out.
 */
export function quickPrint(text: string): string {
  let [a, b, c, d] = [0x243f6a88, 0x85a308d3, 0x13198a2e, 0x03707344 ^ text.length];
  for (let i = 0; i < text.length; i += 2) {
    // Two letters at a time; behind the last one charCodeAt gives NaN, which counts as 0 here.
    const unit = text.charCodeAt(i) | (text.charCodeAt(i + 1) << 16);
    a = Math.imul(a ^ unit, 0x9e3779b1);
    b = Math.imul(b ^ unit, 0x85ebca77);
    c = Math.imul(c ^ (unit + a), 0xc2b2ae3d);
    d = Math.imul(d ^ (unit + b), 0x27d4eb2f);
    a = (a << 13) | (a >>> 19);
    b = (b << 17) | (b >>> 15);
  }
  write32(a, 0);
  write32(b, 8);
  write32(c, 16);
  write32(d, 24);
  return String.fromCharCode(...printed);
}

const printed = new Array<number>(32).fill(0);

/** Writes 32 bits, stirred once more, as eight hexadecimal digits. */
function write32(bits: number, at: number): void {
  const stirred = Math.imul(bits ^ (bits >>> 15), 0x2c1b3c6d);
  for (let i = 0; i < 8; i++) printed[at + i] = HEX[(stirred >>> (28 - 4 * i)) & 15]!;
}
