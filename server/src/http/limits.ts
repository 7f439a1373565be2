import { Problem } from '@zonal/core/problems';
import type { Request } from 'express';
import { rateLimit, type RateLimitRequestHandler } from 'express-rate-limit';

const MINUTE = 60_000;

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
export const accountLimit = () =>
  limiter(20, 15, true, (req) => String((req.body as { email?: unknown } | undefined)?.email).toLowerCase());

/** Addresses tried that lead nowhere, from one client. */
export const unknownKeyLimit = () => limiter(120, 5, true);
