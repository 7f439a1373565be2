import { Problem } from '@zonal/core/problems';
import type { NextFunction, Request, Response } from 'express';
import { rateLimit, type RateLimitRequestHandler } from 'express-rate-limit';

const MINUTE = 60_000;

const lower = (req: Request, field: string) =>
  String((req.body as Readonly<Record<string, unknown>> | undefined)?.[field])
    .trim()
    .toLowerCase();
const emailOf = (req: Request) => lower(req, 'email');

type Refuse = (req: Request, res: Response, next: NextFunction) => void;

function limiter(
  limit: number,
  minutes: number,
  skipSuccessfulRequests: boolean,
  keyOf?: (req: Request) => string,
  refuse: Refuse = (_req, _res, next) => next(new Problem('too-many-tries', { seconds: minutes * 60 })),
): RateLimitRequestHandler {
  return rateLimit({
    ...(keyOf ? { keyGenerator: keyOf } : {}),
    windowMs: minutes * MINUTE,
    limit,
    skipSuccessfulRequests,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: refuse,
  });
}

/** Failed sign-ins from one address. */
export const signInLimit = () => limiter(20, 5, true);

/** Addresses tried that lead nowhere, from one client. */
export const unknownKeyLimit = () => limiter(120, 5, true);

/** Addresses that work once and are none, from one client. */
export const passLimit = () => limiter(30, 5, true);

/** Mails that are asked for by people who are not signed in: from one client, and to one address from wherever. */
export const forgottenLimit = () => [limiter(20, 15, false), limiter(5, 60, false, emailOf)];

/** Mails to an address that a reader leaves on a page: from one client, and to one address from wherever. */
export const mailAskedLimit = (field: string, many: Refuse) => [
  limiter(20, 15, false, undefined, many),
  limiter(10, 60, false, (req) => lower(req, field), many),
];

/** Tests of one push, and tests that come from one client. */
export const pushTestLimit = () => [
  limiter(10, 10, false, (req) => String(req.params['id'])),
  limiter(60, 10, false),
];

/** Passwords that somebody who is signed in writes wrong. */
export const ownPasswordLimit = () => limiter(20, 15, true);
