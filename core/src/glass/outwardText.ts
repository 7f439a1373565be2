/** Control characters, which no form shows, and the further line ends of Unicode, which programs read in different ways. */
const UNWANTED = /[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u2028\u2029]/;
const SURROGATE = /[\ud800-\udfff]/;

/**
 * Returns a text as it goes out, the same in every form: lines end in \n, control characters are gone, U+0085, U+2028
 * and U+2029 are spaces, and half characters are U+FFFD. What no form shows makes no difference outside.
 */
export function outwardText(text: string): string {
  let out = text;
  if (UNWANTED.test(out)) {
    out = out
      .replace(/\r\n?/g, '\n')
      .replace(/[\u0085\u2028\u2029]/g, ' ')
      .replace(/[\u0000-\u0008\u000b-\u001f\u007f-\u009f]/g, '');
  }
  return SURROGATE.test(out) ? wellFormed(out) : out;
}

function wellFormed(text: string): string {
  return text.replace(/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g, '\ufffd');
}

const SCHEMES = /^(https?|mailto|tel|webcal|sip|sips|xmpp|ftp):/i;

/** Returns an address that is safe as a URI value (RFC 3986), or null when its scheme is not one of those let out. */
export function safeUri(text: string): string | null {
  const trimmed = text.trim();
  if (!SCHEMES.test(trimmed)) return null;
  return asciiUri(trimmed.replace(/[\u0000-\u0020\u007f-\u009f"<>\\^`{|}]/g, (c) => encodeURIComponent(c)));
}

/** Letters beyond ASCII have to be written as octets (RFC 3986 section 2.5), the host's as RFC 3492 says. */
function asciiUri(uri: string): string {
  if (!/[^\u0000-\u007f]/.test(uri)) return uri;
  const whole = wellFormed(uri);
  try {
    const { href } = new URL(whole);
    if (!/[^\u0000-\u007f]/.test(href)) return href;
  } catch {
    // Not an address that can be taken apart; its letters are written as octets where they stand.
  }
  return whole.replace(/[^\u0000-\u007f]+/g, (letters) => encodeURIComponent(letters));
}
