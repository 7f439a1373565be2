/** A site may be named with any name before its own (CSP 3, host-source). */
const HOST =
  /^(https?:\/\/)?((\*\.)?([a-z0-9]([a-z0-9-]*[a-z0-9])?\.)*[a-z0-9]([a-z0-9-]*[a-z0-9])?(:\d{1,5})?)(\/.*)?$/i;

/** As many sites may be named for one key. */
export const MOST_HOSTS = 20;
const LONGEST = 253 + 20;

/**
 * Returns the origin of a site that may hold an embed, as Content-Security-Policy writes it: `https://town.example` for
 * `town.example` or for an address on it, `https://*.town.example` for all sites below; null for what is no site.
 */
export function hostNamed(text: string): string | null {
  const trimmed = text.trim();
  const match = trimmed.length > LONGEST ? null : HOST.exec(trimmed);
  if (!match) return null;
  const [, scheme = 'https://', host] = match;
  return `${scheme}${host}`.toLowerCase();
}
