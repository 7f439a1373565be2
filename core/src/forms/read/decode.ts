import { Problem } from '../../problems';

/** Returns the text of a file with what had to be done to read it. Throws `file-empty`. */
export function decodeFile(bytes: Uint8Array): { text: string; notes: string[] } {
  const [a, b, c] = bytes;
  let text: string;
  const notes: string[] = [];
  if (a === 0xef && b === 0xbb && c === 0xbf) {
    text = decodeUtf8(bytes.subarray(3), notes);
  } else if ((a === 0xff && b === 0xfe) || (a === 0xfe && b === 0xff)) {
    text = new TextDecoder(a === 0xff ? 'utf-16le' : 'utf-16be').decode(bytes.subarray(2));
    notes.push('The file is in UTF-16; it was read as such.');
  } else text = decodeUtf8(bytes, notes);
  if (text.trim() === '') throw new Problem('file-empty');
  return { text, notes };
}

function decodeUtf8(bytes: Uint8Array, notes: string[]): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    notes.push('The file is not in UTF-8; it was read as Latin-1 (Windows-1252). Check letters with accents.');
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
