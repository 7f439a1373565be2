import { Problem, sentence } from '@zonal/core/problems';
import { LANGUAGE } from './language';

/** Returns what went wrong as a sentence in the language of the page. */
export function problemText(error: unknown): string {
  return error instanceof Problem
    ? sentence(error.code, error.details, LANGUAGE)
    : (error as { readonly message: string }).message;
}
