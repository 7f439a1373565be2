import { outwardText } from '../../glass';
import { Problem } from '../../problems';
import type { InsideLanguage } from '../../texts/languages';
import { FileNotes } from './fileNotes';

/** Returns the text of a file with what had to be done to read it. Throws `file-empty`. */
export function decodeFile(bytes: Uint8Array, language: InsideLanguage): { text: string; notes: FileNotes } {
  const [a, b, c] = bytes;
  let text: string;
  const notes = new FileNotes(language);
  if (a === 0xef && b === 0xbb && c === 0xbf) {
    text = decodeUtf8(bytes.subarray(3), notes);
  } else if ((a === 0xff && b === 0xfe) || (a === 0xfe && b === 0xff)) {
    text = new TextDecoder(a === 0xff ? 'utf-16le' : 'utf-16be').decode(bytes.subarray(2));
    notes.add('utf16');
  } else text = decodeUtf8(bytes, notes);
  if (text.trim() === '') throw new Problem('file-empty');
  return { text: storable(text), notes };
}

/** No store takes a NUL or half a character. */
function storable(text: string): string {
  return text.includes('\0') || /[\ud800-\udfff]/.test(text) ? outwardText(text.replace(/\0/g, '')) : text;
}

function decodeUtf8(bytes: Uint8Array, notes: FileNotes): string {
  for (const attempt of [bytes, mendFolds(bytes)]) {
    try {
      return new TextDecoder('utf-8', { fatal: true }).decode(attempt);
    } catch {
      // Not UTF-8 as it stands; the next attempt may be.
    }
  }
  notes.add('notUtf8');
  return decodeWindows1252(bytes);
}

/** What Windows-1252 has at 0x80 to 0x9F, where Latin-1 has control characters; some runtimes decode it as Latin-1. */
const WINDOWS_1252 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

function decodeWindows1252(bytes: Uint8Array): string {
  return new TextDecoder('latin1')
    .decode(bytes)
    .replace(/[\u0080-\u009f]/g, (c) => WINDOWS_1252[c.charCodeAt(0) - 0x80]!);
}

/**
 * Returns the bytes with characters that a fold has split put together again before the fold. Folds are made by
 * octets (RFC 5545 section 3.1), and some programs cut inside a character. The number of lines stays the same.
 */
function mendFolds(bytes: Uint8Array): Uint8Array {
  const out = new Uint8Array(bytes.length);
  let at = 0;
  for (let i = 0; i < bytes.length; i++) {
    const fold = foldLength(bytes, i);
    const rest = i + fold;
    if (fold && isContinuation(bytes[rest]) && at > 0 && out[at - 1]! >= 0x80) {
      let end = rest;
      while (isContinuation(bytes[end])) out[at++] = bytes[end++]!;
      for (let k = i; k < rest; k++) out[at++] = bytes[k]!;
      i = end - 1;
    } else out[at++] = bytes[i]!;
  }
  return out;
}

/** Returns the number of bytes of the fold that starts here, or 0. */
function foldLength(bytes: Uint8Array, i: number): number {
  let end = i;
  if (bytes[end] === 0x0d) end++;
  if (bytes[end] === 0x0a) end++;
  return end > i && (bytes[end] === 0x20 || bytes[end] === 0x09) ? end - i + 1 : 0;
}

function isContinuation(byte: number | undefined): boolean {
  return byte !== undefined && (byte & 0xc0) === 0x80;
}
