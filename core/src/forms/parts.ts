/**
 * A document in parts: what differs from key to key stands in its head alone, all else is the same for every key of a view.
 * Where a block ends follows from the document's own text, so that a change leaves the blocks of all that did not change.
 */
export interface Parts {
  readonly head: string;
  readonly blocks: readonly string[];
}

/** One item in so many starts a block. */
const ITEMS = 128;

/** Returns whether an item starts a block, by its outward identifier: about every hundredth does. */
export function startsBlock(uid: string): boolean {
  return parseInt(uid.slice(0, 6), 16) % ITEMS === 0;
}
