/** Returns a text without what no XML 1.0 document may hold, escaped or not (section 2.2). */
export function xmlSafe(text: string): string {
  return text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '');
}
