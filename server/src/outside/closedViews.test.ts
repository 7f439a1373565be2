import { describe, expect, it } from 'vitest';
import { dropOldChanges } from '../db/changes';
import { ChangeRow, ViewRow } from '../db/models';
import { look, scene, shareDatabase, world } from './publishingScene';

shareDatabase();

type Scene = Awaited<ReturnType<typeof scene>>;

/** How the last address of a view is taken away, and how one leads to it again. */
const CLOSINGS: Record<
  string,
  { close: (s: Scene) => Promise<unknown>; reopen: (s: Scene) => Promise<unknown> }
> = {
  'capped keys': {
    close: (s) => s.alter(0, { keys: { cap: 'frosted' } }),
    reopen: (s) => s.alter(0, { keys: { cap: null } }),
  },
  'revoked keys': {
    close: (s) => s.alter(0, { keys: { withdrawnAt: new Date(world.now) } }),
    reopen: (s) => s.alter(0, { keys: { withdrawnAt: null } }),
  },
  'expired keys': {
    close: async (s) => {
      await s.alter(0, { keys: { expiresAt: new Date(world.now + 500) } });
      world.now += 1_000;
    },
    reopen: (s) => s.alter(0, { keys: { expiresAt: null } }),
  },
  'a closed window': { close: (s) => s.setClosed(0, true), reopen: (s) => s.setClosed(0, false) },
  'a window that closed by its clock': {
    close: async (s) => {
      await s.alter(0, { window: { closesAt: new Date(world.now + 500) } });
      world.now += 1_000;
    },
    reopen: (s) => s.alter(0, { window: { closesAt: null } }),
  },
};

/** What happens to the entry of the first day while nobody can see it, and what is seen of it afterwards. */
const MEANWHILE: Record<
  string,
  { act: (s: Scene) => Promise<unknown>; titles: string[]; revisions: number }
> = {
  nothing: { act: () => Promise.resolve(), titles: ['Day 0', 'Day 1'], revisions: 0 },
  'a hold': {
    act: (s) => s.write(0, { hold: 'keep-in' }, s.entries[0]),
    titles: ['Day 1'],
    revisions: 1,
  },
  'a deletion': { act: (s) => s.remove(s.entries[0]!), titles: ['Day 1'], revisions: 1 },
  'a change there and back': {
    act: async (s) => {
      const changed = await s.write(0, { title: 'Elsewhere' }, s.entries[0]);
      world.now += 1_000;
      await look(s.publisher);
      await s.write(0, {}, changed);
    },
    titles: ['Day 0', 'Day 1'],
    revisions: 0,
  },
};

/** Which processes there are: one that goes on, one that starts while the view is closed, one that starts afterwards. */
const PROCESSES = ['goes on', 'starts while it is closed', 'starts afterwards'] as const;

describe.each(Object.entries(CLOSINGS))('a view behind %s', (_how, { close, reopen }) => {
  describe.each(Object.entries(MEANWHILE))('after %s', (_what, { act, titles, revisions }) => {
    it.each(PROCESSES)('is compiled once when it opens, by a process that %s', async (which) => {
      const s = await scene();
      const before = await s.shown();
      expect(before).toMatchObject({ titles: ['Day 0', 'Day 1'] });
      world.now += 1_000;
      await close(s);
      if (which !== 'starts afterwards') await look(s.publisher);
      const process = which === 'starts while it is closed' ? await s.start() : s.publisher;
      world.now += 1_000;
      await act(s);
      if (which !== 'starts afterwards') await look(process);
      world.now += 1_000;
      await reopen(s);
      const last = which === 'starts afterwards' ? await s.start() : process;
      await look(last);
      expect(await s.shown(last)).toMatchObject({ titles, number: before.number! + revisions });
      // All processes come to the same.
      for (const other of [s.publisher, await s.start()]) {
        await look(other);
        expect(await s.shown(other)).toEqual(await s.shown(last));
      }
    });
  });
});

describe('the change log', () => {
  it('is not kept for views that no address leads to', async () => {
    const s = await scene();
    await s.alter(0, { keys: { withdrawnAt: new Date(world.now) } });
    await look(s.publisher);
    const viewId = `${s.keys[0]!.window.id}|street|`;
    expect((await ViewRow.findByPk(viewId))!.open).toBe(false);
    await s.write(0, { title: 'Later' });
    await ViewRow.update({ open: false }, { where: {} });
    const month = 31 * 86_400_000;
    await world.sequelize.query(
      `UPDATE changes SET created_at = created_at - interval '${month} milliseconds'`,
    );
    await dropOldChanges(world.sequelize);
    expect(await ChangeRow.count()).toBe(1);
    // What was dropped is not missed when the view opens again.
    world.now += 1_000;
    await s.alter(0, { keys: { withdrawnAt: null } });
    const fresh = await s.start();
    expect((await s.shown(fresh)).titles).toEqual(['Day 0', 'Later', 'Day 1']);
  });
});
