import { AsyncLocalStorage } from 'node:async_hooks';

/** Servers that have not confirmed a change, and until when at the latest they serve what was before. */
export interface Unconfirmed {
  readonly servers: number;
  /** ISO 8601. */
  readonly until: string;
}

/** What is known of the call that is being answered, wherever it is worked on. */
export interface CallNotes {
  /** The id that the client gave its change, so that sending it again does it once. */
  readonly changeKey: string | null;
  readonly userId: string | null;
  /** Of what was asked, so that one id stands for one thing. */
  readonly print: string;
  unconfirmed: Unconfirmed | null;
}

export const callNotes = new AsyncLocalStorage<CallNotes>();
