import { Problem } from '@zonal/core/problems';
import { randomUUID } from 'node:crypto';
import type { NextFunction, Request, Response } from 'express';
import { ConnectionError } from 'sequelize';
import { log } from '../log';

/** What every refused request is answered with. */
export interface ErrorBody {
  readonly code: string;
  readonly message: string;
  readonly details: Record<string, unknown>;
}

const AWAY = new Set(['ECONNREFUSED', 'ECONNRESET', 'ENOENT', '57P01', '57P02', '57P03', '08006', '08001']);

/** Turns whatever was thrown into a problem of the table. */
export function problemFrom(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const { type, code, original, limit } = error as {
    type?: string;
    code?: string;
    original?: { code?: string };
    limit?: number;
  };
  if (type === 'entity.parse.failed') return new Problem('body-unreadable', { expected: 'JSON' });
  if (type === 'entity.too.large')
    return new Problem('too-large', { limit: `${Math.round((limit ?? 0) / 1e6)} MB` });
  const storage = error instanceof ConnectionError || AWAY.has(code ?? '') || AWAY.has(original?.code ?? '');
  if (storage || /Connection terminated|timeout exceeded when trying to connect/.test(String(error))) {
    return new Problem('storage-away');
  }
  const id = randomUUID().slice(0, 8);
  log.error({ err: error, id }, 'unexpected error');
  return new Problem('unexpected', { id });
}

/** Express's last handler: answers with the code and the sentence of the problem. */
export function answerProblem(error: unknown, _req: Request, res: Response, next: NextFunction): void {
  if (res.headersSent) return next(error);
  const problem = problemFrom(error);
  const body: ErrorBody = { code: problem.code, message: problem.message, details: problem.details };
  res.status(problem.status).json(body);
}
