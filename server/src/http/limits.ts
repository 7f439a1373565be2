import { Problem } from '@zonal/core/problems';
import type { Request } from 'express';
import { rateLimit, type RateLimitRequestHandler } from 'express-rate-limit';

const MINUTE = 60_000;

const emailOf = (req: Request) =>
  String((req.body as { email?: unknown } | undefined)?.email)
    .trim()
    .toLowerCase();

function limiter(
  limit: number,
  minutes: number,
  skipSuccessfulRequests: boolean,
  keyOf?: (req: Request) => string,
): RateLimitRequestHandler {
  return rateLimit({
    ...(keyOf ? { keyGenerator: keyOf } : {}),
    windowMs: minutes * MINUTE,
    limit,
    skipSuccessfulRequests,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_req, _res, next) => next(new Problem('too-many-tries', { seconds: minutes * 60 })),
  });
}

/** Failed sign-ins from one address. */
export const signInLimit = () => limiter(20, 5, true);

/** Failed sign-ins to one account, from wherever. */
export const accountLimit = () => limiter(20, 15, true, emailOf);

/** Addresses tried that lead nowhere, from one client. */
export const unknownKeyLimit = () => limiter(120, 5, true);

/** Addresses that work once and are none, from one client. */
export const passLimit = () => limiter(30, 5, true);

/** Mails that are asked for by people who are not signed in: from one client, and to one address from wherever. */
export const forgottenLimit = () => [limiter(20, 15, false), limiter(5, 60, false, emailOf)];

/** Passwords that somebody who is signed in writes wrong. */
export const ownPasswordLimit = () => limiter(20, 15, true);
