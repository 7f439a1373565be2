import { Problem } from '@zonal/core/problems';
import { rateLimit, type RateLimitRequestHandler } from 'express-rate-limit';

const MINUTE = 60_000;

function limiter(limit: number, minutes: number, skipSuccessfulRequests: boolean): RateLimitRequestHandler {
  return rateLimit({
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

/** Addresses tried that lead nowhere, from one client. */
export const unknownKeyLimit = () => limiter(120, 5, true);
