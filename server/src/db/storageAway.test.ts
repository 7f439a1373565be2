import * as sequelize from 'sequelize';
import { describe, expect, it } from 'vitest';
import { isStorageAway } from './storageAway';

type ErrorClass = new (parent: Error) => Error;
const CLASSES = (Object.values(sequelize) as unknown[]).filter(
  (one): one is ErrorClass => typeof one === 'function' && one.prototype instanceof Error,
);

describe('a database that is away', () => {
  it('is known by the names of all errors of connections and of time limits, and by no others', () => {
    const { ConnectionError, TimeoutError } = sequelize;
    const isMeant = (one: ErrorClass) =>
      [ConnectionError, TimeoutError].some((base) => one === base || one.prototype instanceof base);
    const meant = CLASSES.filter(isMeant);
    expect(meant.length).toBeGreaterThan(7);
    for (const one of meant) expect(isStorageAway(new one(new Error('x'))), one.name).toBe(true);
    for (const one of [
      sequelize.DatabaseError,
      sequelize.EmptyResultError,
      sequelize.OptimisticLockError,
    ] as unknown as ErrorClass[])
      expect(isStorageAway(new one(new Error('x'))), one.name).toBe(false);
  });

  it('is known by codes of the system and of PostgreSQL, also inside of another error', () => {
    expect(isStorageAway(Object.assign(new Error('x'), { code: 'ECONNREFUSED' }))).toBe(true);
    expect(isStorageAway({ original: { code: '57P01' } })).toBe(true);
    expect(isStorageAway(new Error('Connection terminated unexpectedly'))).toBe(true);
    for (const other of [null, undefined, 'x', new Error('x'), { code: '23505' }])
      expect(isStorageAway(other)).toBe(false);
  });
});
