import {
  EMPTY_SHELF,
  NO_MEMORY,
  memoryOf,
  nextLook,
  remember,
  rememberDifference,
  shelved,
  shownBy,
  syncRequest,
  type Memory,
  type Program,
} from '@zonal/core/followers';
import { request } from 'node:http';
import { addressOf, type Member } from './cast';

/** Where a window is to be had with one key. */
export interface Addresses {
  readonly feed: string;
  readonly dav: string;
}

interface Reply {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | string[] | undefined>>;
  readonly text: string;
}

/** So long, in milliseconds, an answer is waited for. */
const PATIENCE = 10_000;

/** One program outside, with what it holds. It asks over HTTP as any program does. */
export class Follower {
  /** When it looks next, by its own clock; null for never. */
  next: number | null;
  stopped = false;
  flaky = false;
  lastLook: number | null = null;
  /** What it was answered last, in a few words. */
  told = 'has not looked yet';
  private memory: Memory = NO_MEMORY;
  private tag = '';
  private token = '';
  private shelf = EMPTY_SHELF;

  constructor(
    readonly member: Member,
    private readonly addresses: Addresses,
    now: number,
    private readonly random: () => number,
  ) {
    // Those of before have looked at some time; nobody knows any more when exactly.
    this.next = member.until === null && !member.program.once ? now + random() * member.program.every : null;
  }

  /** What it shows to its reader: a line for each time, as it keeps entries. */
  get shows(): string[] {
    const { way, keeping } = this.member;
    return shownBy(keeping, way === 'dav' ? memoryOf(this.shelf) : this.memory);
  }

  /** What it does about looking: more trouble where somebody made it flaky. */
  private get program(): Program {
    const { program } = this.member;
    return this.flaky ? { ...program, misses: 0.6, jitter: 0.5, restarts: 4 } : program;
  }

  /** Looks, unless it misses this look, and says when it will look again. One that is due for long has had other chances. */
  async look(now: number): Promise<void> {
    const { next } = this;
    const chances = next === null || next > now ? Infinity : 1 + (now - next) / this.program.every;
    this.next = nextLook(this.program, now, this.random);
    if (this.random() < this.program.misses ** chances) {
      this.told = 'missed a look: its network was away';
      return;
    }
    this.lastLook = now;
    try {
      await this.ask();
    } catch (error) {
      this.told = `found nobody: ${(error as Error).message}`;
    }
  }

  private async ask(): Promise<void> {
    const { way, keeping, tags } = this.member;
    if (way === 'dav') return this.sync();
    const asked = {
      ...(tags && this.tag && way === 'feed' ? { 'if-none-match': this.tag } : {}),
      ...(way === 'difference' ? { prefer: 'subscribe-enhanced-get' } : {}),
      ...(way === 'difference' && this.token ? { 'sync-token': this.token } : {}),
    };
    const { status, headers, text } = await this.fetch('GET', this.addresses.feed, asked);
    if (status === 409) {
      this.token = '';
      this.told = 'is told to ask for everything again';
      return;
    }
    this.told = WORDS[status] ?? `was answered ${status}`;
    if (status !== 200) return;
    this.memory =
      way === 'difference' && this.token
        ? rememberDifference(this.memory, text)
        : remember(keeping, this.memory, text);
    this.tag = String(headers['etag'] ?? '');
    this.token = String(headers['sync-token'] ?? '');
  }

  private async sync(): Promise<void> {
    const body = syncRequest(this.shelf);
    const { status, text } = await this.fetch('REPORT', this.addresses.dav, { depth: '0' }, body);
    const next = status === 207 ? shelved(this.shelf, text) : null;
    if (!next) this.shelf = EMPTY_SHELF;
    else {
      this.told = next.token === this.shelf.token ? 'found nothing new' : 'got what is new';
      this.shelf = next;
      return;
    }
    this.told = WORDS[status] ?? `was answered ${status}`;
  }

  private fetch(
    method: string,
    address: string,
    headers: Readonly<Record<string, string>>,
    body = '',
  ): Promise<Reply> {
    return new Promise((resolve, reject) => {
      const asked = request(
        address,
        {
          method,
          localAddress: addressOf(this.member),
          headers: { ...headers, 'user-agent': this.member.agent, 'content-length': Buffer.byteLength(body) },
          timeout: PATIENCE,
        },
        (res) => {
          const chunks: Buffer[] = [];
          res.on('data', (chunk: Buffer) => chunks.push(chunk));
          res.on('error', reject);
          res.on('end', () =>
            resolve({
              status: res.statusCode!,
              headers: res.headers,
              text: Buffer.concat(chunks).toString('utf8'),
            }),
          );
        },
      );
      asked.on('error', reject);
      asked.on('timeout', () => asked.destroy(new Error('no answer came')));
      asked.end(body);
    });
  }
}

const WORDS: Readonly<Record<number, string>> = {
  200: 'got what is new',
  304: 'found nothing new',
  403: 'is told to ask for everything again',
  404: 'found no such address',
  410: 'found its address closed',
  429: 'was told to ask less',
  503: 'was told to wait',
};
