import { dav, type Name } from './names';

/** Why a request is refused: the condition that it does not meet (RFC 4918 section 16), and the status that says so. */
export class Refused extends Error {
  constructor(
    readonly condition: Name | null,
    readonly status: 400 | 403 | 404 | 405 | 507 = 403,
  ) {
    super(condition ?? 'malformed');
  }
}

/** It asks for more than is sent at once (RFC 4791 section 7.8). */
export function tooMany(): Refused {
  return new Refused(dav('number-of-matches-within-limits'), 507);
}
