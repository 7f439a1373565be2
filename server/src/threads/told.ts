import { Problem, type ProblemCode, type ProblemDetails } from '@zonal/core/problems';

/** What a call came to, in a form that goes from thread to thread: errors lose their class on the way. */
export type Told<T> =
  { readonly value: T } | { readonly problem: ProblemCode; readonly details: ProblemDetails };

/** Returns what a call comes to; errors that are not of the table are thrown. */
export async function told<T>(call: () => Promise<T>): Promise<Told<T>> {
  try {
    return { value: await call() };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { problem: error.code, details: error.details };
  }
}

/** Returns the value that was told, or throws the problem. */
export function valueOf<T>(result: Told<T>): T {
  if ('problem' in result) throw new Problem(result.problem, result.details);
  return result.value;
}
