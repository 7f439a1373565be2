import { wallToText, type Wall, utcWall, type Instant } from '../zones';

const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/g;

/** Line ends that some programs know and others do not: they would cut a line apart there. */
const ODD_LINE_ENDS = /[\u0085\u2028\u2029]/g;

/** Returns a TEXT value (RFC 5545 section 3.3.11): line ends, commas, semicolons and backslashes escaped. */
export function escapeText(text: string): string {
  if (!/[\\;,\u0000-\u001f\u007f\u0085\u2028\u2029]/.test(text)) return text;
  return text
    .replace(ODD_LINE_ENDS, ' ')
    .replace(CONTROL, '')
    .replace(/[\\;,]/g, '\\$&')
    .replace(/\r\n?|\n/g, '\\n');
}

/** Returns a quoted parameter value with the escapes of RFC 6868. */
export function quoteParameter(text: string): string {
  const safe = text
    .replace(ODD_LINE_ENDS, ' ')
    .replace(CONTROL, '')
    .replace(/\^/g, '^^')
    .replace(/"/g, "^'")
    .replace(/\r\n?|\n/g, '^n');
  return `"${safe}"`;
}

/** Returns a text without anything that could end a line. */
export function raw(text: string): string {
  return text.replace(/[\u0000-\u001f\u007f\u0085\u2028\u2029]/g, '');
}

/** The reading that was written last: all stamps of a document are often the same. */
let last = { wall: NaN, text: '' };

/** Returns `20260531T143000`. */
export function compactWall(wall: Wall): string {
  if (wall !== last.wall) last = { wall, text: compactText(wallToText(wall)) };
  return last.text;
}

/** Returns `20260531T143000Z`: what clocks in UTC show at an instant (RFC 5545 section 3.3.5). */
export function utcText(instant: Instant): string {
  return `${compactWall(utcWall(instant))}Z`;
}

/** Returns `20260531T143000` for `2026-05-31T14:30:00` or `2026-05-31T14:30`, and `20260531` for a date. */
export function compactText(text: string): string {
  const day = text.slice(0, 4) + text.slice(5, 7) + text.slice(8, 10);
  return text.length === 10
    ? day
    : `${day}T${text.slice(11, 13)}${text.slice(14, 16)}${text.slice(17) || '00'}`;
}

const encoder = new TextEncoder();

/** Returns a content line cut into pieces of at most 75 octets (RFC 5545 section 3.1); no character is split. */
export function foldLine(line: string): string {
  // The first 26 UTF-16 units can never need more than 75 octets.
  if (line.length <= 25) return `${line}\r\n`;
  if (isAscii(line)) {
    let out = line.slice(0, 75);
    for (let at = 75; at < line.length; at += 74) out += `\r\n ${line.slice(at, at + 74)}`;
    return `${out}\r\n`;
  }
  let out = '';
  let octets = 0;
  for (const char of line) {
    const size = char.length === 1 && char < '\u0080' ? 1 : encoder.encode(char).length;
    if (octets + size > 75) {
      out += '\r\n ';
      octets = 1;
    }
    out += char;
    octets += size;
  }
  return `${out}\r\n`;
}

function isAscii(text: string): boolean {
  for (let i = 0; i < text.length; i++) if (text.charCodeAt(i) > 127) return false;
  return true;
}

/** Returns content lines joined, each folded and ended by CR LF. */
export function joinLines(lines: Iterable<string>): string {
  // Joined at once: a text that grew piece by piece takes several times the memory as long as it is kept.
  return Array.from(lines, foldLine).join('');
}
