import { createHash } from 'node:crypto';
import { constants, crc32, deflateRawSync } from 'node:zlib';
import type { Written, WrittenBody, WrittenHead } from './outside';

/** The first ten bytes of a gzip file that says nothing of where or when it was made (RFC 1952 section 2.3). */
const GZIP_HEAD = Buffer.from([0x1f, 0x8b, 8, 0, 0, 0, 0, 0, 0, 255]);
/** An empty last block (RFC 1951 section 3.2.3). */
const LAST_BLOCK = 0x0300;

interface Block {
  readonly plain: Buffer;
  readonly deflated: Buffer;
  readonly hash: Buffer;
}

/** Writes the body of one form of a view again and again: blocks that stay the same are compressed once. */
export class BodyWriter {
  private blocks = new Map<string, Block>();

  /** `fill` makes of a text what is written; it has to be the same each time. */
  write(texts: readonly string[], fill: (text: string) => string = (text) => text): WrittenBody {
    const blocks = new Map<string, Block>();
    const all = texts.map((text) => {
      const block = this.blocks.get(text) ?? blockOf(fill(text));
      blocks.set(text, block);
      return block;
    });
    this.blocks = blocks;
    const hash = createHash('sha256');
    for (const block of all) hash.update(block.hash);
    return {
      plain: joined(all.map((b) => b.plain)),
      deflated: joined(all.map((b) => b.deflated)),
      print: printOf(hash),
    };
  }
}

/** Returns the parts of a document that stand around a body, and a print of all of it. */
export function writeHead(text: string, body: WrittenBody): { head: WrittenHead; print: string } {
  const plain = Buffer.from(text);
  const tail = new DataView(new ArrayBuffer(10));
  tail.setUint16(0, LAST_BLOCK);
  tail.setUint32(2, crc32(body.plain, crc32(plain)), true);
  tail.setUint32(6, (plain.length + body.plain.length) % 2 ** 32, true);
  const gzip = joined([GZIP_HEAD, deflated(plain)]);
  const head = { plain: joined([plain]), gzip, tail: new Uint8Array(tail.buffer) };
  return { head, print: printOf(createHash('sha256').update(plain).update(body.print)) };
}

/** Returns the memory of a document's bytes, which can go to another thread without being copied. */
export function buffersOf({ head, body }: Pick<Written, 'head' | 'body'>): ArrayBuffer[] {
  const bytes = [head.plain, head.gzip, head.tail, ...(body ? [body.plain, body.deflated] : [])];
  return bytes.map((b) => b.buffer as ArrayBuffer);
}

/** Returns the body of a document that has nothing in common with others. */
export function noBody(): WrittenBody {
  return { plain: new Uint8Array(), deflated: new Uint8Array(), print: '' };
}

/** Returns bytes one after the other in memory of their own, which can go to another thread. */
function joined(pieces: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const piece of pieces) {
    out.set(piece, at);
    at += piece.length;
  }
  return out;
}

function blockOf(text: string): Block {
  const plain = Buffer.from(text);
  return { plain, deflated: deflated(plain), hash: createHash('sha256').update(plain).digest() };
}

/** A full flush makes what follows look back at nothing: pieces can be put together as they are. */
function deflated(plain: Buffer): Buffer {
  return deflateRawSync(plain, { level: 6, finishFlush: constants.Z_FULL_FLUSH });
}

function printOf(hash: ReturnType<typeof createHash>): string {
  return hash.digest('base64url').slice(0, 22);
}
