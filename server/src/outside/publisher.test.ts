import { describe, expect, it } from 'vitest';
import { EntryRow, KeyRow, ViewRow } from '../db/models';
import { editNow } from '../inside/editStore';
import { Compiler } from './compiler';
import type { Order } from './outside';
import { Publisher } from './publisher';
import { change, compilers, look, publishing, scene, shareDatabase, world } from './publishingScene';

shareDatabase();

describe('the turn of the day', () => {
  it('is stamped with midnight, whenever it is looked at and whatever is edited out of sight', async () => {
    for (const [late, hidden] of [
      [12_000, 0],
      [3_000, 1],
      [4_000, 40],
    ] as const) {
      const { write, publisher, shown, today } = await scene();
      expect(await shown()).toMatchObject({ titles: ['Day 0', 'Day 1'], number: 1 });
      expect(publisher.nextTurn).toBeLessThanOrEqual(today(1));
      world.now = today(1) + late;
      for (let i = 0; i < hidden; i++) await write(1, { title: 'Never seen', hold: 'keep-in' });
      await look(publisher);
      expect(await shown()).toEqual({ titles: ['Day 1', 'Day 2'], number: 2, at: today(1) });
    }
  });

  it('comes before what was edited in sight since, which is a revision of its own', async () => {
    const { write, publisher, shown, lines, today } = await scene();
    const opened = (await lines())[0]!;
    world.now = today(1) + 9_000;
    await write(2, { title: 'In sight' });
    await look(publisher);
    expect(await shown()).toMatchObject({ titles: ['Day 1', 'Day 2', 'In sight'], number: 3 });
    expect(await lines()).toEqual([opened, [2, today(1)], [3, today(1) + 9_000]]);
    // With nothing new, a later look changes nothing.
    world.now = today(1) + 60_000;
    await look(publisher);
    expect(await shown()).toMatchObject({ number: 3 });
  });

  it('comes day by day also for a process that was away for days', async () => {
    const { publisher, shown, lines, today } = await scene();
    const opened = (await lines())[0]!;
    world.now = today(3) + 5_000;
    await look(publisher);
    expect(await shown()).toMatchObject({ titles: ['Day 3', 'Day 4'], number: 4 });
    expect(await lines()).toEqual([opened, [2, today(1)], [3, today(2)], [4, today(3)]]);
  });

  it('follows the clock, also back, and stamps only rise', async () => {
    const { publisher, shown, today } = await scene();
    const right = world.now;
    world.now = today(2) + 5_000;
    await look(publisher);
    expect(await shown()).toMatchObject({ titles: ['Day 2', 'Day 3'], at: today(2) });
    world.now = right;
    await look(publisher);
    // Never one moment twice.
    expect(await shown()).toMatchObject({ titles: ['Day 0', 'Day 1'], at: today(2) + 1_000 });
  });
});

describe('changes', () => {
  it('that are seen are a revision each, stamped when the store took them, however late they are looked at', async () => {
    const { write, publisher, shown, lines } = await scene();
    const [, [opened]] = [null, await lines()];
    const times: number[] = [];
    for (let i = 0; i < 3; i++) {
      for (let hidden = 0; hidden < 7; hidden++) await write(0, { title: 'Never seen', hold: 'keep-in' });
      world.now += 1_000;
      await write(0, { title: `Seen ${i}` });
      times.push(world.now);
    }
    world.now += 5_000;
    await look(publisher);
    expect(await shown()).toMatchObject({ number: 4, at: Math.floor(times[2]! / 1000) * 1000 });
    expect(await lines()).toEqual([opened, ...times.map((t, i) => [i + 2, Math.floor(t / 1000) * 1000])]);
  });

  it('that are looked at early or late, by one process or several, give the same', async () => {
    const told = [];
    for (const often of [true, false]) {
      const { write, remove, publisher, start, shown, lines, entries, today } = await scene();
      const second = await start();
      const origin = today(0);
      const both = async () => {
        if (often) await Promise.all([look(publisher), look(second)]);
      };
      world.now = today(1) - 5_000;
      await write(1, { title: 'First' });
      await both();
      await write(1, { title: 'Kept', hold: 'keep-in' });
      world.now = today(1) + 5_000;
      await both();
      await remove(entries[1]!);
      await both();
      world.now += 1_000;
      const again = await write(2, { title: 'Second' });
      await both();
      world.now += 1_000;
      await write(2, { title: 'Third' }, again);
      world.now += 1_000;
      await Promise.all([look(publisher), look(second)]);
      expect(await shown(second)).toEqual(await shown());
      const late = await start();
      expect(await shown(late)).toEqual(await shown());
      const since = (at: number) => at - origin;
      told.push([(await shown()).titles, (await lines()).slice(1).map(([n, at]) => [n, since(at!)])]);
    }
    expect(told[1]).toEqual(told[0]);
    expect(told[0]![1]).toHaveLength(5);
  });

  it('outlast a restart: what was worked out is shown at once, and goes on where it was', async () => {
    const { write, publisher, start, shown } = await scene();
    await write(0, { title: 'Before' });
    await look(publisher);
    const before = await shown();
    const { publisher: second } = publishing();
    await second.start();
    expect(await shown(second)).toEqual(before);
    await look(second);
    expect(await shown(second)).toEqual(before);
    world.now += 1_000;
    await write(0, { title: 'After' });
    expect(await shown(await start())).toMatchObject({ number: (before.number ?? 0) + 1 });
  });

  it('that make an entry leave are told for a month, alike by every process, and change nothing else then', async () => {
    const { write, remove, publisher, start, keys, today, shown } = await scene();
    const feed = async (of: typeof publisher) => {
      await of.opened(keys[0]!.token);
      const { identity, dated } = (await of.document(keys[0]!.token, 'feed'))!;
      return { text: Buffer.concat(identity.pieces).toString(), etag: identity.etag, dated };
    };
    const gone = (text: string) => [
      ...text.matchAll(/BEGIN:VEVENT(?:(?!END:VEVENT)[^])*STATUS:CANCELLED(?:(?!END:VEVENT)[^])*END:VEVENT/g),
    ];
    const entry = await write(1, { title: 'Told no more', place: 'Never again' });
    await look(publisher);
    const uid = /UID:(.*)\r(?:(?!END:VEVENT)[^])*SUMMARY:Told no more/.exec(
      (await feed(publisher)).text,
    )![1]!;
    world.now += 5_000;
    await remove(entry);
    await look(publisher);
    const told = await feed(publisher);
    expect(gone(told.text)).toHaveLength(1);
    const lines = gone(told.text)[0]![0]
      .split('\r\n')
      .map((line) => line.split(/[:;]/)[0]);
    expect(lines).toEqual([
      'BEGIN',
      'UID',
      'DTSTAMP',
      'LAST-MODIFIED',
      'SEQUENCE',
      'DTSTART',
      'STATUS',
      'TRANSP',
      'END',
    ]);
    expect(gone(told.text)[0]![0]).toContain(uid);
    expect(told.text).not.toMatch(/Told no more|Never again/);
    // From the store it is the same.
    const other = await start();
    expect(await feed(other)).toEqual(told);
    // On the day after a month it is told no more, at one moment for all, though nothing else has changed.
    world.now = today(30) + 5_000;
    await Promise.all([look(publisher), look(other)]);
    const { number } = await shown();
    const last = await feed(publisher);
    expect(last.text).toContain(uid);
    world.now = today(31) + 5_000;
    await Promise.all([look(publisher), look(other)]);
    const [one, two] = [await feed(publisher), await feed(other)];
    expect(one.text).not.toContain(uid);
    expect(two).toEqual(one);
    expect(await feed(await start())).toEqual(one);
    expect([one.etag === last.etag, one.dated! > last.dated!, number]).toEqual([
      false,
      true,
      (await shown()).number,
    ]);
  });

  it('made while a window was closed are not seen when it opens, not even for a moment', async () => {
    const { remove, publisher, shown, entries, setClosed, keys } = await scene();
    await setClosed(0, true);
    await look(publisher);
    expect(await shown()).toEqual({ state: 'closed' });
    await remove(entries[0]!);
    await look(publisher);
    const seen: unknown[] = [];
    const { view } = publisher;
    publisher.view = (told) => {
      seen.push(publisher.door(keys[0]!.token)?.state);
      view.call(publisher, told);
    };
    await setClosed(0, false);
    await look(publisher);
    expect(await shown()).toMatchObject({ titles: ['Day 1'] });
    // Until it was worked out nothing stood behind the key.
    expect(seen).not.toContain('open');
  });
});

describe('memory', () => {
  it('that is too small for anything changes nothing that is told', async () => {
    const { write, remove, publisher, start, shown, entries, today, setClosed } = await scene({ windows: 3 });
    const cramped = await start(16);
    const both = async () => {
      await Promise.all([look(publisher), look(cramped)]);
      for (const n of [0, 1, 2]) expect(await shown(cramped, n)).toEqual(await shown(publisher, n));
    };
    await both();
    world.now += 1_000;
    const written = await write(0, { title: 'Seen' });
    await write(0, { title: 'Not seen', hold: 'keep-in' });
    await both();
    world.now += 1_000;
    await write(0, { title: 'Seen again' }, written);
    await remove(entries[0]!);
    await setClosed(1, true);
    await both();
    world.now = today(1) + 1_000;
    await write(2, { title: 'Tomorrow' });
    await setClosed(1, false);
    await both();
    expect((await shown(cramped)).titles).toEqual(['Day 1', 'Day 2', 'Tomorrow']);
  });

  it('is not filled at the start: what nobody asks for is not fetched', async () => {
    const { write, publisher, shown } = await scene({ windows: 4 });
    await write(0, { title: 'Before' });
    await look(publisher);
    const told: string[] = [];
    const again = publishing().publisher;
    const { view } = again;
    again.view = (shownNow) => {
      told.push(shownNow.viewId);
      view.call(again, shownNow);
    };
    await again.start();
    await look(again);
    expect(told).toEqual([]);
    expect((await shown(again, 2)).titles).toContain('Before');
    expect(told).toHaveLength(1);
  });
});

describe('a process that was killed', () => {
  it('goes through what it had not taken in by the rules of then, and shows nothing of it before it is done', async () => {
    const { write, remove, publisher, start, shown, lines, entries, keys, setClosed } = await scene();
    const opened = (await lines())[0]!;
    // Nobody takes any of this in.
    world.now += 1_000;
    const first = world.now;
    await write(0, { title: 'First' });
    world.now += 1_000;
    await setClosed(0, true);
    world.now += 1_000;
    await write(0, { title: 'While it was closed' });
    await setClosed(0, false);
    const reopened = world.now;
    world.now += 1_000;
    await remove(entries[0]!);
    const { publisher: late } = publishing();
    await late.start();
    // What it finds in the store is older than what was taken away meanwhile.
    expect(await shown(late)).toEqual({ state: 'waiting' });
    await look(late);
    expect((await shown(late)).titles).toEqual(['First', 'While it was closed', 'Day 1']);
    const at = (instant: number) => Math.floor(instant / 1000) * 1000;
    expect(await lines()).toEqual([opened, [2, at(first)], [3, at(reopened)], [4, at(world.now)]]);
    await look(publisher);
    expect(await shown()).toEqual(await shown(late));
    expect(await shown(await start())).toEqual(await shown(late));
    expect(keys).toHaveLength(1);
  });
});

describe('a thread that works views out and begins anew', () => {
  it('leaves nothing open that was shown before', async () => {
    const { remove, publisher, start, shown, entries, keys } = await scene();
    expect((await shown()).titles).toContain('Day 0');
    await remove(entries[0]!);
    // What was worked out of it got into the store, and no further.
    await start();
    const options = { sequelize: world.sequelize, publicUrl: 'https://w.example', clock: () => world.now };
    const again = new Compiler(publisher, options);
    await again.start();
    expect(publisher.door(keys[0]!.token)).toEqual({ state: 'waiting' });
    Object.assign(compilers.get(publisher)!, {
      catchUp: () => again.catchUp(),
      bring: (id: string) => again.bring(id),
      write: (order: Order) => again.write(order),
    });
    await publisher.settle(world.last);
    expect(await shown()).toMatchObject({ titles: ['Day 1'], number: 2 });
  });
});

describe('a window that cannot be worked out', () => {
  const broken = {
    recurrence: {
      rule: 'FREQ=DAILY',
      dates: [],
      exceptDates: [{ kind: 'zoned' as const, at: '2026-06-11T10:00:00', zone: 'PST' }],
    },
  };

  it('keeps what it had where something only comes, says so, and holds no other window up', async () => {
    const other = await scene();
    const { writeOdd, write, publisher, shown, keys } = await scene({ windows: 2 });
    const before = await shown();
    await writeOdd(broken);
    await publisher.settle(world.last);
    expect(await shown()).toEqual(before);
    expect(publisher.troubles.get(keys[0]!.window.id)).toMatchObject({
      shows: 'last',
      problem: { code: 'entry-uncomputable', details: { title: 'Day 1' } },
    });
    await other.write(1, { title: 'Elsewhere' });
    await look(other.publisher);
    expect((await other.shown()).titles).toContain('Elsewhere');
    await write(0, { title: 'Also here' });
    await expect(look(publisher)).resolves.toBeUndefined();
  });

  it('shows nothing where something is taken away, tells whoever did it, and comes back once it is mended', async () => {
    const { writeOdd, remove, publisher, start, shown, entries, calendarId, keys } = await scene();
    const id = await writeOdd(broken);
    await look(publisher);
    await remove(entries[0]!);
    await expect(publisher.settle(world.last)).rejects.toMatchObject({ code: 'outside-stopped' });
    expect(await shown()).toEqual({ state: 'stopped' });
    // A process that starts now comes to the same.
    expect(await shown(await start())).toEqual({ state: 'stopped' });
    const odd = (await EntryRow.findByPk(id))!;
    await editNow(world.sequelize, change, world.userId, 'Deleted', [
      { id, version: odd.version, calendarId, entry: null },
    ]);
    await publisher.settle(world.last);
    expect(await shown()).toMatchObject({ titles: ['Day 1'] });
    expect(publisher.troubles.has(keys[0]!.window.id)).toBe(false);
  });

  it('has stopped also where another of its keys shows all that it may', async () => {
    for (const caps of [
      [null, 'shut'],
      ['shut', null],
    ] as const) {
      const { writeOdd, remove, setClosed, publisher, start, entries, keys } = await scene({
        caps: [...caps],
      });
      const states = async (of: Publisher) => {
        const rows = await KeyRow.findAll({ where: { windowId: keys[0]!.window.id } });
        const states = rows.map(async (k) => [k.cap ?? 'none', (await of.opened(k.token))?.state]);
        return Object.fromEntries(await Promise.all(states)) as Record<string, string>;
      };
      await writeOdd(broken);
      await look(publisher);
      await remove(entries[0]!);
      await expect(publisher.settle(world.last)).rejects.toMatchObject({ code: 'outside-stopped' });
      expect(await states(publisher)).toEqual({ none: 'stopped', shut: 'open' });
      expect(publisher.troubles.get(keys[0]!.window.id)).toMatchObject({ shows: 'nothing' });
      expect(await states(await start())).toEqual({ none: 'stopped', shut: 'open' });
      // Closing it is done as soon as it is closed.
      await setClosed(0, true);
      await publisher.settle(world.last);
      expect(await states(publisher)).toEqual({ none: 'closed', shut: 'closed' });
    }
  });

  it('is told of to whoever opens it', async () => {
    const { writeOdd, open, publisher, shown } = await scene();
    await writeOdd(broken);
    await look(publisher);
    await open(1);
    await expect(publisher.settle(world.last)).rejects.toMatchObject({ code: 'outside-stopped' });
    expect(await shown(publisher, 1)).toEqual({ state: 'stopped' });
    expect(await shown()).toMatchObject({ titles: ['Day 0', 'Day 1'] });
  });

  it('shows nothing until it is mended, also where something only comes after', async () => {
    const { writeOdd, write, remove, publisher, shown, entries, keys } = await scene();
    await writeOdd(broken);
    await look(publisher);
    await remove(entries[0]!);
    await look(publisher);
    await write(0, { title: 'Also here' });
    await expect(publisher.settle(world.last)).rejects.toMatchObject({ code: 'outside-stopped' });
    expect(await shown()).toEqual({ state: 'stopped' });
    expect(publisher.troubles.get(keys[0]!.window.id)).toMatchObject({ shows: 'nothing' });
  });

  it('is not hurt by what cannot be worked out and is not shown anyway', async () => {
    const { writeOdd, remove, publisher, shown, entries } = await scene();
    await writeOdd({ ...broken, hold: 'keep-in' });
    await remove(entries[0]!);
    await publisher.settle(world.last);
    expect(await shown()).toMatchObject({ titles: ['Day 1'] });
  });
});

describe('the store', () => {
  it('that is away as a change is taken in leaves what it concerns unserved until it is', async () => {
    const other = await scene();
    const { remove, publisher, shown, entries } = await scene();
    await remove(entries[0]!);
    const compiler = compilers.get(publisher)!;
    const { catchUp } = compiler;
    compiler.catchUp = () => Promise.reject(new Error('Connection terminated'));
    await expect(publisher.settle(world.last)).rejects.toMatchObject({ code: 'outside-unsure' });
    expect(await shown()).toEqual({ state: 'stopped' });
    // The windows of other calendars go on.
    expect(await other.shown(publisher)).toMatchObject({ titles: expect.any(Array) });
    compiler.catchUp = catchUp;
    await look(publisher);
    expect(await shown()).toMatchObject({ titles: ['Day 1'] });
  });

  it('that is not heard for too long ends what was last known', async () => {
    const { publisher, shown } = await scene();
    world.now += 599_000;
    expect(await shown()).toMatchObject({ number: 1 });
    // A clock that is set forward is no silence.
    world.now += 3_600_000;
    world.setForward += 3_600_000;
    expect(await shown()).toMatchObject({ number: 1 });
    world.now += 2_000;
    expect(await shown()).toEqual({ state: 'unheard' });
    await look(publisher);
    expect(await shown()).not.toEqual({ state: 'unheard' });
  });

  it('is told item by item: a change of one entry writes little', async () => {
    const { write, publisher, keys } = await scene();
    await write(0, { title: 'One more' });
    await look(publisher);
    const row = (await ViewRow.findByPk(`${keys[0]!.window.id}|street|`))!;
    expect(row.revision).not.toHaveProperty('stamps');
    expect(JSON.stringify(row.revision).length).toBeLessThan(200);
  });
});
