import type { InsideLanguage } from '../texts/languages';
import { PROBLEMS_DE } from './de';
import { PROBLEMS, type ProblemCode } from './table';

export type ProblemDetails = Record<string, unknown>;

/** An error that a user can cause. `message` is the table's sentence with its blanks filled. */
export class Problem extends Error {
  readonly code: ProblemCode;
  readonly details: ProblemDetails;

  constructor(code: ProblemCode, details: ProblemDetails = {}) {
    super(sentence(code, details));
    this.name = 'Problem';
    this.code = code;
    this.details = details;
  }

  /** The HTTP status that the table gives this code. */
  get status(): number {
    return PROBLEMS[this.code].status;
  }
}

/** Returns the sentence of a code, with its blanks filled from `details`. */
export function sentence(
  code: ProblemCode,
  details: ProblemDetails,
  language: InsideLanguage = 'en',
): string {
  const text = language === 'de' ? PROBLEMS_DE[code] : PROBLEMS[code].say;
  return text.replace(/\{(\w+)\}/g, (_, name: string) => String(details[name] ?? '…'));
}
