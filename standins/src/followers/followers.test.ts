import { createServer, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { CAST, addressOf } from './cast';
import { FollowersClock } from './clock';
import { Crowd } from './crowd';
import { followersSite } from './followersSite';

const HOUR = 3_600_000;

interface Asked {
  readonly method: string;
  readonly url: string;
  readonly from: string;
  readonly headers: IncomingMessage['headers'];
}

/** A house of one feed, which notes who asked for what. */
const asked: Asked[] = [];
let text = feedOf('Market');
let house: Server;
let base: string;
let site: Server;
let crowd: Crowd;
let now = Date.UTC(2026, 5, 10, 12);

function feedOf(title: string): string {
  const event = `BEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260601T000000Z\r\nSEQUENCE:0\r\nDTSTART:20260612T100000Z\r\nDTEND:20260612T110000Z\r\nSUMMARY:${title}\r\nEND:VEVENT\r\n`;
  return `BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n${event}END:VCALENDAR\r\n`;
}

beforeAll(async () => {
  house = createServer((req, res) => {
    asked.push({ method: req.method!, url: req.url!, from: req.socket.remoteAddress!, headers: req.headers });
    const tag = `"${text.length}"`;
    if (req.headers['if-none-match'] === tag) res.writeHead(304).end();
    else if (req.method === 'REPORT') res.writeHead(403).end();
    else res.writeHead(200, { etag: tag, 'sync-token': '"data:,1-x"' }).end(text);
  });
  await new Promise<void>((resolve) => house.listen(0, '127.0.0.1', resolve));
  base = `http://127.0.0.1:${(house.address() as AddressInfo).port}`;
  const at = (slug: string, madeOutTo: string | null) => ({
    ...{ slug, madeOutTo, feed: `${base}/feed/${slug}.ics`, dav: `${base}/dav/${slug}/` },
  });
  crowd = new Crowd(
    [at('bridge-times', null), at('bridge-times', 'Anybody with the address')],
    () => now,
    60,
  );
  site = followersSite(() => crowd).listen(0, '127.0.0.1');
  await new Promise((resolve) => site.once('listening', resolve));
});
afterAll(() => {
  house.close();
  site.close();
});
afterEach(() => void asked.splice(0));

it('their clock goes faster, stands still and is moved ahead', () => {
  let real = 1_000;
  const clock = new FollowersClock(() => real, 60);
  real += 1_000;
  expect(clock.read()).toBe(61_000);
  clock.setSpeed(0);
  real += 5_000;
  expect(clock.read()).toBe(61_000);
  clock.jump(10);
  clock.setSpeed(1);
  real += 5;
  expect(clock.read()).toBe(61_015);
});

it('those of windows that are there look when they are due, each from where it is, as it does', async () => {
  const here = CAST.filter((m) => m.slug === 'bridge-times');
  expect(crowd.followers).toHaveLength(here.length);
  // Two hours of theirs.
  now += 120_000;
  await crowd.turn();
  const from = new Set(asked.map((a) => a.from));
  expect(from.size).toBe(asked.length);
  const sign = here.find((m) => m.whose === 'the sign on the quay road')!;
  const own = asked.find((a) => a.from.endsWith(addressOf(sign)))!;
  expect(own.headers).toMatchObject({ prefer: 'subscribe-enhanced-get', 'user-agent': 'Roadsign/1' });
  // Who came once, or has stopped, looks no more.
  const gone = here.filter((m) => m.program.once || m.until !== null).map(addressOf);
  expect(gone).toHaveLength(3);
  for (const address of gone) expect([...from].some((f) => f.endsWith(address))).toBe(false);
  expect(asked.some((a) => a.method === 'REPORT')).toBe(true);
});

const act = (path: string, body: Record<string, string> = {}, headers: Record<string, string> = {}) =>
  fetch(`http://127.0.0.1:${(site.address() as AddressInfo).port}${path}`, {
    method: 'POST',
    body: new URLSearchParams(body),
    headers,
    redirect: 'manual',
  });
const told = async () => {
  const answer = await fetch(`http://127.0.0.1:${(site.address() as AddressInfo).port}/followers.json`);
  return (await answer.json()) as {
    speed: number;
    now: number;
    followers: { whose: string; shows: string[]; said: string }[];
  };
};

it('they say what they hold, and show what they were sent', async () => {
  const n = crowd.followers.findIndex((f) => f.member.whose === 'a skipper');
  await act(`/followers/${n}/look`);
  await act(`/followers/${n}/look`);
  expect((await told()).followers[n]).toMatchObject({ said: 'found nothing new' });
  text = feedOf('Night market');
  await act(`/followers/${n}/look`);
  const { shows, said } = (await told()).followers[n]!;
  expect([said, shows.length]).toEqual(['got what is new', 1]);
  expect(shows[0]).toContain('Night market');
});

it('a page lets them be stopped, started, made flaky, and their clock be moved', async () => {
  const n = crowd.followers.findIndex((f) => f.member.whose === 'a skipper');
  await act(`/followers/${n}/stop`);
  asked.splice(0);
  await act('/jump', { hours: '3' });
  expect(asked.length).toBeGreaterThan(3);
  const skipper = addressOf(crowd.followers[n]!.member);
  expect(asked.some((a) => a.from.endsWith(skipper))).toBe(false);
  await act(`/followers/${n}/start`);
  await act('/jump', { hours: '1' });
  expect(asked.some((a) => a.from.endsWith(skipper))).toBe(true);
  await act(`/followers/${n}/flaky`);
  expect(crowd.followers[n]!.flaky).toBe(true);
  await act('/pace', { pace: '600' });
  expect((await told()).speed).toBe(600);
  await act('/pace', { pace: '1000000' });
  expect((await told()).speed).toBe(600);
  const page = await (await fetch(`http://127.0.0.1:${(site.address() as AddressInfo).port}/`)).text();
  expect(page).toContain('a skipper');
  expect(page).toContain('Steady again');
  // Another site may not move them.
  expect((await act('/pace', { pace: '1' }, { origin: 'http://elsewhere.example' })).status).toBe(403);
  expect((await told()).speed).toBe(600);
  expect(crowd.clock.read()).toBeGreaterThan(now + 4 * HOUR - 1);
});
