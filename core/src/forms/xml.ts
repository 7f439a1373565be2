import { utcWall, wallToText, type Instant } from '../zones';

/** What an XML document begins with (XML 1.0 section 2.8). */
export const XML_HEAD = '<?xml version="1.0" encoding="utf-8"?>\n';

/** Returns an instant in UTC to the second, `2026-05-31T14:30:00Z` (RFC 3339). */
export function momentOf(at: Instant): string {
  return `${wallToText(utcWall(at)).slice(0, 19)}Z`;
}

/** Returns a text without what no XML 1.0 document may hold, escaped or not (section 2.2). */
export function xmlSafe(text: string): string {
  return text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '');
}
