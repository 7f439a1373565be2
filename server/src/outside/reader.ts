import type { Request } from 'express';
import helmet from 'helmet';
import Negotiator from 'negotiator';

/** What outside pages may load: what is the house's own. */
export const POLICY = {
  useDefaults: false,
  directives: {
    defaultSrc: ["'none'"],
    styleSrc: ["'self'"],
    scriptSrc: ["'self'"],
    fontSrc: ["'self'"],
    imgSrc: ["'self'"],
    formAction: ["'self'"],
    baseUri: ["'none'"],
  },
};

/** Of pages, which stand inside no other site: only embeds do. */
export const pageHeaders = helmet({
  contentSecurityPolicy: { ...POLICY, directives: { ...POLICY.directives, frameAncestors: ["'none'"] } },
});
/** As many languages of a reader are looked at, of a length that tags can have. */
const [MOST_LANGUAGES, LONGEST_TAG] = [5, 35];

/** Returns the languages that a reader's program accepts, best first. */
export function acceptedBy(req: Request): string[] {
  const named = new Negotiator(req).languages().filter((tag) => tag !== '*' && tag.length <= LONGEST_TAG);
  return named.slice(0, MOST_LANGUAGES);
}

/** Returns a text in the query of a request, where it is there once. */
export function textIn(req: Request, name: string): string | undefined {
  const value = req.query[name];
  return typeof value === 'string' ? value : undefined;
}

/** Whether a path is one that can be read at all (RFC 3986 section 2.1). */
export function isReadable(path: string): boolean {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false;
  }
}
