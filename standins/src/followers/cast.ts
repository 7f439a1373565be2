import { PLAIN, type Keeping, type Program } from '@zonal/core/followers';
import { DAY, HOUR, MINUTE } from '@zonal/core/zones';

/** How a program asks: for a whole feed, for what has changed only, as a collection, or for a file once. */
export type Way = 'feed' | 'difference' | 'dav';

/** One of the programs outside that follow the demo's windows. */
export interface Member {
  /** What it calls itself; with where it is, this tells it apart. */
  readonly agent: string;
  /** Who has it, in words. */
  readonly whose: string;
  /** The window that it follows, and the key; without one it came by the notice board. */
  readonly slug: string;
  readonly madeOutTo: string | null;
  readonly program: Program;
  readonly way: Way;
  readonly keeping: Keeping;
  /** Whether it says what it holds, so that it need not be sent again. */
  readonly tags: boolean;
  /** Days ago at which it came, and at which it looked for the last time; null for one that goes on. */
  readonly since: number;
  readonly until: number | null;
  /** For how many readers it looks, where it says so. */
  readonly readers: number;
}

const HOME = 'America/Halifax';
const usual: Omit<Member, 'agent' | 'whose' | 'slug' | 'madeOutTo' | 'program'> = {
  way: 'feed',
  keeping: 'replace-all',
  tags: true,
  since: 21,
  until: null,
  readers: 1,
};
const steady = { ...PLAIN, jitter: 0.02, misses: 0.01 };
const PROMPT: Program = { ...steady, name: 'prompt', every: 15 * MINUTE };
const HOURLY: Program = { ...steady, name: 'hourly', every: HOUR };
const FEW: Program = { ...steady, name: 'a few times a day', every: 6 * HOUR };
const DAILY: Program = {
  ...steady,
  name: 'daily, at seven',
  every: DAY,
  jitter: 0.004,
  at: { zone: HOME, time: 7 * HOUR },
};
const FLAKY: Program = { ...HOURLY, name: 'flaky', misses: 0.35, retries: 0.3, restarts: 1.5, jitter: 0.2 };
const OFFICE: Program = {
  ...steady,
  name: 'hourly, at work',
  every: HOUR,
  hours: { zone: HOME, from: 8, to: 17, workdays: true },
};
const ONCE: Program = { ...PLAIN, name: 'once, as a file', once: true };

const bridge = { slug: 'bridge-times', madeOutTo: null };
const sign = { slug: 'bridge-times', madeOutTo: 'Anybody with the address' };
const quay = { slug: 'on-the-quay', madeOutTo: 'Town web site' };
const agents = { slug: 'works-ahead', madeOutTo: 'Shipping agents' };
const ferry = { slug: 'works-ahead', madeOutTo: 'Ferry line’s operations desk' };

/** All of them, in their order: each is somewhere else. */
export const CAST: readonly Member[] = [
  { ...usual, ...bridge, agent: 'Almanac/2.1', whose: 'a skipper', program: HOURLY },
  { ...usual, ...bridge, agent: 'Almanac/2.1', whose: 'the bakery by the bridge', program: DAILY },
  {
    ...usual,
    ...bridge,
    agent: 'Tidebook/4.0',
    whose: 'a commuter',
    program: FEW,
    keeping: 'merge-sequence',
  },
  {
    ...usual,
    ...bridge,
    agent: 'Fetchwell/9 (45 subscribers)',
    whose: 'a service for many',
    program: HOURLY,
    readers: 45,
  },
  { ...usual, ...bridge, agent: 'Tidebook/4.0', whose: 'a school bus', program: OFFICE, way: 'dav' },
  { ...usual, ...bridge, agent: 'Sundial/1.7', whose: 'a visitor', program: HOURLY, until: 9 },
  { ...usual, ...bridge, agent: 'Paperclip/3', whose: 'a rowing club', program: ONCE, since: 12 },
  { ...usual, ...bridge, agent: 'Paperclip/3', whose: 'a walker', program: ONCE, since: 5 },
  {
    ...usual,
    ...sign,
    agent: 'Roadsign/1',
    whose: 'the sign on the quay road',
    program: PROMPT,
    way: 'difference',
  },
  {
    ...usual,
    ...sign,
    agent: 'Roadsign/1',
    whose: 'the sign at the roundabout',
    program: PROMPT,
    way: 'difference',
  },
  { ...usual, ...sign, agent: 'Oddbox/0.3', whose: 'a harbour radio', program: FLAKY, tags: false },
  { ...usual, ...quay, agent: 'Noticewall/5', whose: 'the town’s web site', program: PROMPT },
  { ...usual, ...quay, agent: 'Almanac/2.1', whose: 'the tourist office', program: HOURLY, way: 'dav' },
  { ...usual, ...quay, agent: 'Tidebook/4.0', whose: 'a choir', program: DAILY, keeping: 'merge-uid' },
  { ...usual, ...quay, agent: 'Sundial/1.7', whose: 'a band', program: FEW, since: 15 },
  { ...usual, ...quay, agent: 'Paperclip/3', whose: 'a stall', program: ONCE, since: 16 },
  { ...usual, ...agents, agent: 'Shipdesk/12', whose: 'an agent in the town', program: OFFICE },
  { ...usual, ...agents, agent: 'Shipdesk/12', whose: 'an agent abroad', program: HOURLY, way: 'dav' },
  {
    ...usual,
    ...agents,
    agent: 'Almanac/2.1',
    whose: 'an agent’s telephone',
    program: FEW,
    keeping: 'merge-uid',
  },
  { ...usual, ...agents, agent: 'Oddbox/0.3', whose: 'an agent’s old computer', program: FLAKY, tags: false },
  {
    ...usual,
    ...ferry,
    agent: 'Timetabler/7',
    whose: 'the timetable of the ferries',
    program: HOURLY,
    way: 'difference',
  },
  { ...usual, ...ferry, agent: 'Tidebook/4.0', whose: 'the desk’s night shift', program: DAILY },
  { ...usual, ...ferry, agent: 'Almanac/2.1', whose: 'a captain', program: HOURLY, until: 4 },
];

/** Returns the address on this machine from which a member asks: programs of one kind are told apart by where they are. */
export function addressOf(member: Member): string {
  return `127.0.${10 + CAST.indexOf(member)}.1`;
}
