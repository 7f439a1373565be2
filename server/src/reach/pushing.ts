import type { PushEvent } from '@zonal/core/forms';
import { Problem } from '@zonal/core/problems';
import { lookup } from 'node:dns/promises';
import { request as requestPlain } from 'node:http';
import { request as requestSecure } from 'node:https';
import { isIP } from 'node:net';
import { Webhook } from 'standardwebhooks';
import { NotPublic, isPublicAddress, publicAgent } from '../http/publicAddress';

/** A request to a system outside, as it is to be made. */
export interface Pushed {
  readonly address: string;
  /** By which it is signed: whoever knows one of them can check it. */
  readonly secrets: readonly string[];
  /** The same for each try to tell the same (Standard Webhooks: webhook-id). */
  readonly message: string;
  readonly event: PushEvent;
}

/** What came of it; `trouble` is empty where it was taken. */
export interface PushOutcome {
  readonly status: number | null;
  readonly took: number;
  readonly trouble: string;
}

/** Milliseconds for all of a request. */
const PATIENCE = 10_000;
/** Nothing of an answer is needed but its status. */
const MOST_ANSWERED = 64 * 1024;

/** Other ports are those of other services, which answer requests in ways of their own. */
const ALLOWED_PORTS = ['', '443', '8443'];

/**
 * Makes a signed request (Standard Webhooks) and follows no redirect. `allowed` are origins that may be asked though they
 * are near: those of stand-ins. Never throws.
 */
export async function push(
  { address, secrets, message, event }: Pushed,
  allowed: readonly string[],
): Promise<PushOutcome> {
  const began = Date.now();
  const url = new URL(address);
  const body = JSON.stringify(event);
  const at = new Date(began);
  const headers = {
    'Content-Type': 'application/json',
    'Content-Length': Buffer.byteLength(body),
    'User-Agent': 'ZonalWindow/1.0',
    'webhook-id': message,
    'webhook-timestamp': String(Math.floor(began / 1000)),
    'webhook-signature': secrets.map((secret) => new Webhook(secret).sign(message, at, body)).join(' '),
  };
  const outcome = (status: number | null, trouble: string): PushOutcome => ({
    status,
    took: Date.now() - began,
    trouble,
  });
  const isFar = !allowed.includes(url.origin);
  if (isFar && isNear(url)) return outcome(null, NEAR);
  return new Promise((resolve) => {
    const options = { method: 'POST', headers, signal: AbortSignal.timeout(PATIENCE) };
    const request = isFar
      ? requestSecure(url, { ...options, agent: publicAgent })
      : (url.protocol === 'https:' ? requestSecure : requestPlain)(url, options);
    request.on('error', (error) => resolve(outcome(null, troubleOf(error))));
    request.on('response', (response) => {
      const status = response.statusCode!;
      let read = 0;
      response.on('data', (part: Buffer) => {
        read += part.length;
        if (read > MOST_ANSWERED) response.destroy();
      });
      response.on('error', () => undefined);
      response.on('close', () => resolve(outcome(status, refusalOf(status))));
    });
    request.end(body);
  });
}

function refusalOf(status: number): string {
  if (status >= 200 && status < 300) return '';
  if (status === 410) return 'It answered 410: it wants to be told no more.';
  if (status >= 300 && status < 400)
    return `It answered ${status}, which leads elsewhere. Give the address that it leads to.`;
  return `It answered ${status}.`;
}

function troubleOf(error: NodeJS.ErrnoException): string {
  if (error.name === 'TimeoutError' || error.name === 'AbortError')
    return `It did not answer within ${PATIENCE / 1000} seconds.`;
  if (error instanceof NotPublic) return NEAR;
  if (error.code === 'ENOTFOUND' || error.code === 'EAI_AGAIN') return 'Its name is not known.';
  if (error.code === 'ECONNREFUSED') return 'Nothing listens there.';
  return `The connection failed (${error.code ?? error.message}).`.slice(0, 200);
}

const NEAR = 'it leads into a private network.';

/** Returns the host of an address, an IPv6 address without its brackets. */
function hostOf({ hostname }: URL): string {
  return hostname.replace(/^\[|\]$/g, '');
}

/** Whether an address names its host by an IP address that is not public. */
function isNear(url: URL): boolean {
  const host = hostOf(url);
  return isIP(host) !== 0 && !isPublicAddress(host);
}

/** Returns an address that may be pushed to, in its one spelling. Throws `push-address`. */
export async function pushAddress(text: string, allowed: readonly string[]): Promise<string> {
  const refuse = (reason: string) => new Problem('push-address', { reason });
  let url: URL;
  try {
    url = new URL(text.trim());
  } catch {
    throw refuse('write it as https://system.example/changes.');
  }
  if (url.username || url.password) throw refuse('leave out user name and password.');
  url.hash = '';
  if (allowed.includes(url.origin)) return url.href;
  if (url.protocol !== 'https:') throw refuse('it has to begin with https://.');
  if (!ALLOWED_PORTS.includes(url.port)) throw refuse('it has to use port 443 or 8443.');
  const host = hostOf(url);
  // Asked again at each request; here it is told early. One that is not known yet may be some day.
  const found = isIP(host)
    ? [{ address: host }]
    : await lookup(host, { all: true }).catch(() => [] as { address: string }[]);
  if (found.some(({ address }) => !isPublicAddress(address))) throw refuse(NEAR);
  return url.href;
}
