import type { WindowInput } from '@zonal/core/glass';
import fc from 'fast-check';
import { randomUUID } from 'node:crypto';
import type { Sequelize } from 'sequelize';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { connect } from '../db/connect';
import { migrate } from '../db/migrate';
import { WindowRow } from '../db/models';
import { freshDatabase } from '../testing';
import { listingColumns } from './publishWindow';

let sequelize: Sequelize;

beforeAll(async () => {
  sequelize = connect(await freshDatabase());
  await migrate(sequelize);
});
afterAll(() => sequelize?.close());

const NAMES = ['Night swims', 'night-swims', 'Night swims 2', 'Bell buoys', '!'];

/** One window is published under a name, listed or not; its number says which. */
interface Published {
  readonly window: number;
  readonly name: string;
  readonly listed: boolean;
}

/** Returns the public name that each listed window has after each step, in a house that has no other windows. */
async function publicNames(steps: readonly Published[]): Promise<(string | null)[]> {
  await WindowRow.destroy({ where: {} });
  const rows = new Map<number, WindowRow>();
  const names: (string | null)[] = [];
  for (const { window, name, listed } of steps)
    await sequelize.transaction(async (transaction) => {
      const row = rows.get(window) ?? null;
      const input = { name, listed, publicGraceDays: 0 } as WindowInput;
      const columns = { name, ...(await listingColumns(row, input, transaction)) };
      const made = { ...columns, id: randomUUID(), settings: {} as never, secret: 'x', version: 1 };
      rows.set(
        window,
        row ? await row.update(columns, { transaction }) : await WindowRow.create(made, { transaction }),
      );
      if (listed) names.push(columns.slug);
    });
  return names;
}

const published: fc.Arbitrary<Published> = fc.record({
  window: fc.nat(4),
  name: fc.constantFrom(...NAMES),
  listed: fc.boolean(),
});

it('public names tell nothing of windows that were never listed, nor of what windows were called before', async () => {
  let hidden = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(published, { minLength: 2, maxLength: 12 }), async (steps) => {
      const known = new Set<number>();
      /** The same history as the public knows it: a window begins when it is listed. */
      const outward = steps.filter(({ window, listed }) => {
        if (listed) known.add(window);
        return known.has(window);
      });
      hidden += steps.length - outward.length;
      const names = await publicNames(steps);
      expect(await publicNames(outward)).toEqual(names);
      // A window keeps its name, and no two have the same one.
      const byWindow = new Map<number, Set<string | null>>();
      steps
        .filter(({ listed }) => listed)
        .forEach(({ window }, i) => byWindow.set(window, (byWindow.get(window) ?? new Set()).add(names[i]!)));
      for (const own of byWindow.values()) expect(own.size).toBe(1);
      expect(new Set(names).size).toBe(byWindow.size);
      expect(names).not.toContain(null);
    }),
    { numRuns: 100, seed: 3 },
  );
  expect(hidden).toBeGreaterThan(100);
});
