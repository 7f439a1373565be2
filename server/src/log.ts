import { pino } from 'pino';

/** The process's structured log: one JSON object a line. LOG_LEVEL sets how much is told. */
export const log = pino({
  level: process.env['LOG_LEVEL'] ?? 'info',
  redact: ['req.headers.cookie', 'req.headers["x-csrf-token"]'],
});
