import type { Sequelize } from 'sequelize';
import { afterEach, describe, expect, it } from 'vitest';
import { KeyUses } from './keyUses';
import { ReaderBook } from './readerBook';

interface Row {
  readonly id: string;
  readonly at: string;
  readonly r: number;
  readonly c: number;
}

/** Stands for the database: keeps the rows of each statement, or refuses. */
function store() {
  const statements: Row[][] = [];
  let away = false;
  const query = (_sql: string, { replacements }: { replacements: { rows: string } }) => {
    if (away) return Promise.reject(new Error('away'));
    statements.push(JSON.parse(replacements.rows) as Row[]);
    return Promise.resolve([[], 0]);
  };
  return { statements, goAway: (is: boolean) => (away = is), sequelize: { query } as unknown as Sequelize };
}

/** Notes no readers. */
const NOBODY = new ReaderBook(null as unknown as Sequelize, 0);
NOBODY.note = () => undefined;

let uses: KeyUses | null = null;
afterEach(() => uses?.close());

describe('uses of keys', () => {
  it('are added up and stored in one statement, with the newest revision', async () => {
    const { statements, sequelize } = store();
    uses = new KeyUses(sequelize, NOBODY);
    for (let i = 0; i < 250; i++) uses.note('a', 1 + (i > 200 ? 1 : 0), 1000 + i, '');
    uses.note('b', 7, 5000, '');
    await uses.store();
    expect(statements).toEqual([
      [
        { id: 'a', at: new Date(1249).toISOString(), r: 2, c: 250 },
        { id: 'b', at: new Date(5000).toISOString(), r: 7, c: 1 },
      ],
    ]);
    await uses.store();
    expect(statements).toHaveLength(1);
  });

  it('are kept while the database is away, and none is lost or counted twice', async () => {
    const { statements, sequelize, goAway } = store();
    uses = new KeyUses(sequelize, NOBODY);
    goAway(true);
    uses.note('a', 1, 1000, '');
    await uses.store();
    uses.note('a', 2, 2000, '');
    uses.note('b', 1, 2000, '');
    await uses.store();
    goAway(false);
    uses.note('b', 2, 3000, '');
    await uses.store();
    expect(statements).toHaveLength(1);
    const counted = Object.fromEntries(statements[0]!.map((r) => [r.id, [r.c, r.r, r.at]]));
    expect(counted).toEqual({
      a: [2, 2, new Date(2000).toISOString()],
      b: [2, 2, new Date(3000).toISOString()],
    });
  });

  it('are stored once more on a clean stop', async () => {
    const { statements, sequelize } = store();
    const last = new KeyUses(sequelize, NOBODY);
    last.note('a', 1, 1000, '');
    await last.close();
    expect(statements.flat().map((r) => r.c)).toEqual([1]);
  });
});
