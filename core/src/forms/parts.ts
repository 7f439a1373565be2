import type { EntryImage } from '../entries';
import type { OutwardItem } from '../glass';

/**
 * A document in parts: what differs from key to key stands in its head, all else is the same for every key of a view but for the addresses
 * that are filled in.
 * Where a block ends follows from the document's own text, so that a change leaves the blocks of all that did not change.
 */
export interface Parts {
  readonly head: string;
  readonly blocks: readonly string[];
  /**
   * Returns a block as those with one address get it, whose entries lead back to pages below that address. Left out where
   * blocks name no address.
   */
  readonly fill?: (block: string) => string;
}

/** Returns the whole document. */
export function wholeOf({ head, blocks, fill = (block) => block }: Parts): string {
  return head + blocks.map(fill).join('');
}

/** Stands in a block for the address below which the pages of its entries are; no outward text can hold it. */
export const BELOW = '\u0001';

/** Returns where the image of an entry is, below the address of the window's page. */
export function imagePath({ name }: Pick<EntryImage, 'name'>): string {
  return `image/${name}.webp`;
}

/** Items that follow each other. As long as they stay the same objects, so does their block. */
export type Block = readonly OutwardItem[];

/** By its first item. */
const known = new WeakMap<OutwardItem, Block>();
const blocks = new WeakMap<readonly OutwardItem[], readonly Block[]>();

/** Returns the items of a view in blocks; about every hundredth item, by its outward identifier, starts one. */
export function blocksOf(items: readonly OutwardItem[]): readonly Block[] {
  let out = blocks.get(items);
  if (!out) blocks.set(items, (out = cut(items)));
  return out;
}

function cut(items: readonly OutwardItem[]): Block[] {
  const out: Block[] = [];
  let from = 0;
  for (let at = 1; at <= items.length; at++) {
    if (at < items.length && !startsBlock(items[at]!.uid)) continue;
    out.push(blockAt(items, from, at));
    from = at;
  }
  return out;
}

/** Of 256 identifiers, which begin with two hexadecimal digits, two. */
function startsBlock(uid: string): boolean {
  return uid.startsWith('00') || uid.startsWith('01');
}

function blockAt(items: readonly OutwardItem[], from: number, to: number): Block {
  const before = known.get(items[from]!);
  if (before?.length === to - from && before.every((item, i) => item === items[from + i])) return before;
  const block = items.slice(from, to);
  known.set(items[from]!, block);
  return block;
}
