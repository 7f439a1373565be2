import { Problem, sentence, type ProblemDetails } from '@zonal/core/problems';
import { DEEDS, deedWords, passwordWords, whoMay, type Deed, type PasswordTrouble } from '@zonal/core/rights';
import type { InsideLanguage } from '@zonal/core/texts';
import { randomUUID } from 'node:crypto';
import type { NextFunction, Request, Response } from 'express';
import { isStorageAway } from '../db/storageAway';
import { log } from '../log';
import { requestLanguage } from './requestLanguage';

/** What every refused request is answered with. */
export interface ErrorBody {
  readonly code: string;
  readonly message: string;
  readonly details: Record<string, unknown>;
}

interface Thrown {
  readonly type?: string;
  readonly code?: string;
  readonly status?: number;
  readonly original?: { readonly code?: string };
  readonly limit?: number;
  readonly message?: string;
}

/** Turns whatever was thrown into a problem of the table. */
export function problemFrom(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const { type, original, limit, status, message = '' } = error as Thrown;
  if (type === 'entity.parse.failed') return new Problem('body-unreadable', { expected: 'JSON' });
  if (type === 'entity.too.large')
    return new Problem('too-large', { limit: `${Math.round((limit ?? 0) / 1e6)} MB` });
  if (isStorageAway(error)) return new Problem('storage-away');
  // What the store says of a value: too large for its column, or no text (class 22, data exceptions).
  if (original?.code?.startsWith('22')) return new Problem('value-out-of-range');
  const reason = message.replace(/[^\x20-\x7e]/g, '').slice(0, 100);
  if (status === 415) return new Problem('encoding-unsupported', { reason });
  if (status !== undefined && status >= 400 && status < 500)
    return new Problem('request-malformed', { reason });
  const id = randomUUID().slice(0, 8);
  log.error({ err: error, id }, 'unexpected error');
  return new Problem('unexpected', { id });
}

/** Returns what somebody may not do, and who may, in a language; nothing where no right is missing. */
function rightWords(right: unknown, language: InsideLanguage): ProblemDetails {
  if (typeof right !== 'string' || !Object.hasOwn(DEEDS, right)) return {};
  return { deed: deedWords(right as Deed, language), who: whoMay(right as Deed, language) };
}

/** Returns what is wrong with a password, in a language; nothing if a request was refused for another reason. */
function passwordReason({ code, details }: Problem, language: InsideLanguage): ProblemDetails {
  if (code !== 'password-weak') return {};
  return { reason: passwordWords(details['trouble'] as PasswordTrouble, language) };
}

/** Express's last handler: answers with the code and the sentence of the problem. */
export function answerProblem(error: unknown, req: Request, res: Response, next: NextFunction): void {
  if (res.headersSent) return next(error);
  const problem = problemFrom(error);
  const { code, details, status } = problem;
  const language = requestLanguage(req);
  const words = { ...rightWords(details['right'], language), ...passwordReason(problem, language) };
  const message = sentence(code, { ...details, ...words }, language);
  const body: ErrorBody = { code, message, details };
  res.status(status).vary('Accept-Language').json(body);
}
