/** Reports why a part of the server cannot do its work now, as a sentence, or null if it can. May throw. */
export type HealthCheck = () => Promise<string | null>;

/** A part that does not report within this time counts as unable to work. */
const DEADLINE_MS = 5_000;
/** A result is reused for this time, so that asking often costs nothing. */
const REUSE_MS = 1_000;

/**
 * Returns a function that asks all parts of the server and returns one line for each part that cannot do its work now,
 * empty if the server is ready.
 */
export function healthOf(
  checks: Readonly<Record<string, HealthCheck>>,
  deadline = DEADLINE_MS,
): () => Promise<readonly string[]> {
  let last: { readonly at: number; readonly lines: Promise<readonly string[]> } | null = null;
  const ask = async () => {
    const lines = await Promise.all(
      Object.entries(checks).map(async ([part, check]) => {
        const trouble = await withDeadline(check(), deadline).catch(
          (error: unknown) => `no report (${error instanceof Error ? error.message : String(error)})`,
        );
        return trouble === null ? [] : [`${part}: ${trouble}`];
      }),
    );
    return lines.flat();
  };
  return () => {
    const now = performance.now();
    if (!last || now - last.at > REUSE_MS) last = { at: now, lines: ask() };
    return last.lines;
  };
}

function withDeadline<T>(work: Promise<T>, deadline: number): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_resolve, reject) => {
    timer = setTimeout(() => reject(new Error('no answer in time')), deadline);
  });
  return Promise.race([work, late]).finally(() => clearTimeout(timer));
}
