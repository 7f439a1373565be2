import { programOf, readersBehind } from '@zonal/core/reach';
import ipaddr from 'ipaddr.js';
import { createHmac, randomBytes } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { setImmediate } from 'node:timers/promises';
import proxyAddr from 'proxy-addr';
import { QueryTypes, type Sequelize } from 'sequelize';
import { weekOf } from '../db/readers';
import { log } from '../log';

/** Letters of each part of a trace: longer ones come from nobody's calendar program. */
const LONGEST = 300;
/** As many are remembered until they are stored; polls are counted beyond that, but not their readers. */
const MOST = 20_000;
/** As many are hashed in one go, so that nobody waits for it. */
const AT_ONCE = 200;

/** Returns where a request comes from, and of which program: put together cheaply, as it is done at each poll. */
export function traceOf({ socket, headers }: IncomingMessage): string {
  const forwarded = headers['x-forwarded-for'];
  const program = headers['user-agent'];
  return `${socket.remoteAddress ?? ''}\n${cut(forwarded)}\n${cut(program)}`;
}

function cut(header: string | string[] | undefined): string {
  return typeof header === 'string' ? header.slice(0, LONGEST) : '';
}

/** Returns the range of addresses that a reader's is in: a /24 of IPv4, a /48 of IPv6; empty for none. */
export function rangeOf(address: string): string {
  if (!ipaddr.isValid(address)) return '';
  const parsed = ipaddr.process(address);
  const bytes = parsed.toByteArray().slice(0, parsed.kind() === 'ipv4' ? 3 : 6);
  return `${parsed.kind()} ${bytes.join('.')}`;
}

/** One reader of a key in a week. */
interface Row {
  readonly id: string;
  readonly hash: string;
  readonly many: number;
}

/**
 * Tells the readers of each key apart, to see whether it was passed on. A reader is a range of addresses and a program,
 * stored as a hash with a salt that is drawn anew each week and forgotten two weeks later; nothing else of them is kept.
 */
export class ReaderBook {
  private traces = new Map<string, Set<string>>();
  private size = 0;
  private salt: { readonly week: string; readonly text: string } | null = null;

  constructor(
    private readonly sequelize: Sequelize,
    private readonly proxies: number,
    private readonly clock: () => number = Date.now,
  ) {}

  note(keyId: string, trace: string): void {
    const own = this.traces.get(keyId);
    if (own?.has(trace) || this.size >= MOST) return;
    this.size++;
    if (own) own.add(trace);
    else this.traces.set(keyId, new Set([trace]));
  }

  /** Stores who was there since it was asked last; what cannot be stored now is left out. */
  async store(): Promise<void> {
    if (!this.size) return;
    const { traces } = this;
    this.traces = new Map();
    this.size = 0;
    try {
      const week = weekOf(this.clock());
      const salt = await this.saltOf(week);
      const rows = await this.rowsOf(traces, salt);
      await this.sequelize.query(
        `INSERT INTO key_readers (key_id, week, reader, many)
         SELECT k.id, :week, decode(r.hash, 'base64'), r.many FROM jsonb_to_recordset(:rows) AS r(id uuid, hash text, many int)
         JOIN keys k ON k.id = r.id
         ON CONFLICT (key_id, week, reader) DO UPDATE SET many = excluded.many WHERE key_readers.many <> excluded.many`,
        { replacements: { week, rows: JSON.stringify(rows) } },
      );
    } catch (error) {
      log.warn({ err: error }, 'readers of keys could not be stored');
    }
  }

  private async rowsOf(traces: ReadonlyMap<string, ReadonlySet<string>>, salt: string): Promise<Row[]> {
    const rows = new Map<string, Row>();
    let done = 0;
    for (const [id, own] of traces)
      for (const trace of own) {
        if (++done % AT_ONCE === 0) await setImmediate();
        const [remoteAddress = '', forwarded = '', program = ''] = trace.split('\n');
        const from = { socket: { remoteAddress }, headers: { 'x-forwarded-for': forwarded } };
        const address = proxyAddr(from as unknown as IncomingMessage, (_, i) => i < this.proxies);
        const said = `${id}\n${rangeOf(address)}\n${programOf(program)}`;
        const hash = createHmac('sha256', salt).update(said).digest().subarray(0, 12).toString('base64');
        const many = Math.max(readersBehind(program), rows.get(id + hash)?.many ?? 1);
        rows.set(id + hash, { id, hash, many });
      }
    return [...rows.values()];
  }

  /** The salt of a week, the same in all processes. */
  private async saltOf(week: string): Promise<string> {
    if (this.salt?.week === week) return this.salt.text;
    const drawn = randomBytes(32).toString('base64');
    const [row] = await this.sequelize.query<{ salt: string }>(
      `INSERT INTO reader_salts (week, salt) VALUES (:week, :drawn)
       ON CONFLICT (week) DO UPDATE SET salt = reader_salts.salt RETURNING salt`,
      { replacements: { week, drawn }, type: QueryTypes.SELECT },
    );
    this.salt = { week, text: row!.salt };
    return row!.salt;
  }
}
