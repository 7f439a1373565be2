import type { FormName } from '@zonal/core/forms';

/** Something that was fetched, or found unchanged, with a key. */
export interface Fetched {
  readonly keyId: string;
  readonly viewId: string;
  /** Of the revision that is held now. */
  readonly number: number;
  readonly form: FormName | 'difference' | 'dav' | 'page' | 'entry';
  /** What the reader said that it holds (If-None-Match, RFC 9110 section 13.1.2), or empty. */
  readonly held: string;
  readonly at: number;
  /** Set where the reader learned only whether something has changed: it holds what it held before. */
  readonly looked?: true;
  /** See traceOf. */
  readonly trace: string;
}

/** Counts what is fetched. It never fails, and takes no time worth naming. */
export interface Counting {
  note(fetched: Fetched): void;
}
