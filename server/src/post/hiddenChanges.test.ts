import type { Content } from '@zonal/core/entries';
import { letterText, type Letter } from '@zonal/core/post';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { KeyRow } from '../db/models';
import type { NoticeDue, Outbox } from '../db/outbox';
import { NoticeRow, PushRow } from '../db/tellingModels';
import { seal, sealWith } from '../db/sealed';
import type { Jobs } from '../jobs/jobs';
import { look, scene, shareDatabase, world } from '../outside/publishingScene';
import { noteUntold } from '../reach/telling';
import { tellReaders } from './notices';

sealWith('a secret of the tests');
shareDatabase();

/** Milliseconds between two looks at what is to be reported, and of how long changes are gathered. */
const TICK = 4_000;
const TIMES = { settle: 7_000, gap: 15_000 };
const TICKS_AFTER_A_STEP = 5;

/** A step of a history; a reader behind frosted glass learns of none that is hidden. */
const STEPS = {
  'tomorrow’s entry comes or goes': {
    hidden: false,
    act: (s: Scene) => s.rewrite({ hold: s.entries[1]!.hold === 'none' ? 'keep-in' : 'none' }),
  },
  'another title': { hidden: true, act: (s: Scene) => s.rewrite({ title: `Title ${++serial}` }) },
  'another place': { hidden: true, act: (s: Scene) => s.rewrite({ place: `Berth ${++serial}` }) },
  'less for the other key': {
    hidden: true,
    act: (s: Scene) => s.alter(0, { key: { id: s.other, cap: 'shut' } }),
  },
  'as much as before for the other key': {
    hidden: true,
    act: (s: Scene) => s.alter(0, { key: { id: s.other, cap: null } }),
  },
} as const;
type Step = keyof typeof STEPS;
let serial = 0;

/** A window with a key behind frosted glass, whose readers have mails and pushes, and another key that shows more. */
async function followedScene() {
  const own = await scene({ caps: ['frosted', null] });
  const windowId = own.keys[0]!.window.id;
  const keys = await KeyRow.findAll({ where: { windowId } });
  const key = keys.find((k) => k.cap === 'frosted')!;
  const other = keys.find((k) => k.cap === null)!.id;
  const began = world.now;
  for (const { id, token } of keys) {
    await NoticeRow.create({
      ...{ windowId, keyId: id, token: seal(token), mail: seal('reader@far.example'), mailPrint: id },
      ...{ way: 'at-once', reading: { lang: 'en', zone: null } as never, zone: 'UTC' },
      ...{ leftAt: new Date(began), confirmedAt: new Date(began), nextAt: new Date(began) },
    });
    const address = seal('https://system.example/changes');
    await PushRow.create({ keyId: id, address, host: 'system.example', secret: seal('s') });
  }
  const rewrite = async (parts: Partial<Content>) => {
    const { title, place, hold } = own.entries[1]!;
    own.entries[1] = await own.write(1, { title, place, hold, ...parts }, own.entries[1]);
  };
  return { ...own, key, other, began, rewrite };
}
type Scene = Awaited<ReturnType<typeof followedScene>>;

/** A mail without what differs from scene to scene: addresses, and the days on which it happens. */
const plain = (text: string) =>
  text
    .replace(/http\S+/g, '(address)')
    .replace(/\b(Mon|Tue|Wed|Thu|Fri|Sat|Sun)\b/g, '(weekday)')
    .replace(/\d+ [A-Z][a-z]+( \d{4})?/g, '(day)');

/** Runs a history, with its hidden steps or without; returns which messages the reader behind frosted glass gets, and when. */
async function messagesOf(steps: readonly Step[], withHidden: boolean): Promise<string[]> {
  await NoticeRow.destroy({ where: {} });
  await PushRow.destroy({ where: {} });
  const s = await followedScene();
  const { publisher, key } = s;
  const messages: string[] = [];
  const note = (what: string) => messages.push(`${world.now - s.began} ms: ${what}`);
  const own = () => NoticeRow.findOne({ where: { keyId: key.id }, rejectOnEmpty: true });
  const { id } = await own();
  const jobs = {
    ask: (name: string, data: { keyId?: string }) => {
      if (data.keyId === key.id) note(name);
      return Promise.resolve();
    },
  } as unknown as Jobs;
  const outbox = {
    put: (_to: string, _kind: string, letter: Letter, _transaction: unknown, more: { onlyIf: NoticeDue }) => {
      if (more.onlyIf.notice === id) note(plain(letter.subject + letterText(letter)));
      return Promise.resolve('');
    },
  } as unknown as Outbox;
  const noticing = {
    ...{ sequelize: world.sequelize, outbox, publicUrl: 'https://w.example', gap: TIMES.gap },
    shownAt: publisher.shownAt.bind(publisher),
    told: publisher.told.bind(publisher),
  };
  const tick = async () => {
    world.now += TICK;
    await look(publisher);
    await noteUntold({ sequelize: world.sequelize, jobs, hub: '', times: TIMES }, world.now);
    await PushRow.update({ askedAt: null }, { where: {} });
    await tellReaders(noticing, () => world.now);
    const { due, nextAt, told } = await own();
    note(`due ${String(due)}, not before ${nextAt.getTime() - s.began}, knows revision ${told}`);
  };
  await tick();
  for (const step of steps) {
    if (withHidden || !STEPS[step].hidden) await STEPS[step].act(s);
    for (let i = 0; i < TICKS_AFTER_A_STEP; i++) await tick();
  }
  return messages;
}

it('which mails and pushes a reader gets, and when, depends on nothing that other keys show', async () => {
  const steps = fc.array(fc.constantFrom(...(Object.keys(STEPS) as Step[])), { minLength: 2, maxLength: 6 });
  let mails = 0;
  await fc.assert(
    fc.asyncProperty(steps, async (history) => {
      const [without, withHidden] = [await messagesOf(history, false), await messagesOf(history, true)];
      expect(withHidden).toEqual(without);
      mails += without.filter((m) => m.includes('“Window')).length;
    }),
    {
      numRuns: 8,
      examples: [
        [['tomorrow’s entry comes or goes', 'another title', 'tomorrow’s entry comes or goes']],
        [['another title', 'less for the other key']],
      ],
    },
  );
  expect(mails).toBeGreaterThan(0);
});
