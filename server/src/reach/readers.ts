import { programOf, readersBehind } from '@zonal/core/reach';
import { DAY } from '@zonal/core/zones';
import ipaddr from 'ipaddr.js';
import { LRUCache } from 'lru-cache';
import { createHmac, randomBytes } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import proxyAddr from 'proxy-addr';
import { QueryTypes, type Sequelize } from 'sequelize';
import { weekOf } from '../db/readers';

/** Returns the range of addresses that a reader's is in: a /24 of IPv4, a /48 of IPv6; empty for none. */
export function rangeOf(address: string): string {
  if (!ipaddr.isValid(address)) return '';
  const parsed = ipaddr.process(address);
  const bytes = parsed.toByteArray().slice(0, parsed.kind() === 'ipv4' ? 3 : 6);
  return `${parsed.kind()} ${bytes.join('.')}`;
}

/** One reader of a key, as it is stored in a week. */
export interface KnownReader {
  readonly week: string;
  readonly hash: Buffer;
  /** Under what it was stored the week before; null where that week's salt is not known. */
  readonly before: Buffer | null;
  /** For how many readers its program says that it looks. */
  readonly readers: number;
}

/** Where a request comes from and of which program, without what tells one person from another. */
interface Source {
  readonly said: string;
  readonly readers: number;
}

/** As many are remembered, so that who looks again and again is made out once. */
const REMEMBERED = 20_000;

/**
 * Tells the readers of each key apart. A reader is a range of addresses and a program, known as a hash with a salt that is
 * drawn anew each week and forgotten two weeks later; nothing else of them is kept.
 */
export class Readers {
  private readonly salts = new Map<string, string | null>();
  private readonly sources = new LRUCache<string, Source>({ max: REMEMBERED });

  constructor(
    private readonly sequelize: Sequelize,
    private readonly proxies: number,
  ) {}

  /** Returns a reader of a key; the trace is that of `traceOf`. */
  async known(keyId: string, trace: string, at: number): Promise<KnownReader> {
    const week = weekOf(at);
    const [salt, old] = [await this.saltOf(week, true), await this.saltOf(weekOf(at - 7 * DAY), false)];
    const { said, readers } = this.sourceOf(trace);
    const under = (key: string) =>
      createHmac('sha256', key).update(`${keyId}\n${said}`).digest().subarray(0, 12);
    return { week, hash: under(salt!), before: old === null ? null : under(old), readers };
  }

  private sourceOf(trace: string): Source {
    let source = this.sources.get(trace);
    if (!source) {
      const [remoteAddress = '', forwarded = '', program = ''] = trace.split('\n');
      const from = { socket: { remoteAddress }, headers: { 'x-forwarded-for': forwarded } };
      const address = proxyAddr(from as unknown as IncomingMessage, (_, i) => i < this.proxies);
      source = { said: `${rangeOf(address)}\n${programOf(program)}`, readers: readersBehind(program) };
      this.sources.set(trace, source);
    }
    return source;
  }

  /** The salt of a week, the same in all processes; null for one that is over and has none. */
  private async saltOf(week: string, draw: boolean): Promise<string | null> {
    const known = this.salts.get(week);
    if (known !== undefined && !(draw && known === null)) return known;
    const drawn = randomBytes(32).toString('base64');
    const [row] = await this.sequelize.query<{ salt: string }>(
      draw
        ? `INSERT INTO reader_salts (week, salt) VALUES (:week, :drawn)
           ON CONFLICT (week) DO UPDATE SET salt = reader_salts.salt RETURNING salt`
        : 'SELECT salt FROM reader_salts WHERE week = :week',
      { replacements: { week, drawn }, type: QueryTypes.SELECT },
    );
    const salt = row?.salt ?? null;
    // Only of this week and the last one.
    for (const old of this.salts.keys()) if (this.salts.size > 1 && old < week) this.salts.delete(old);
    this.salts.set(week, salt);
    return salt;
  }
}
