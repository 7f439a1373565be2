import { expect, it, onTestFinished } from 'vitest';
import { surviveStorageLoss } from './storageLoss';

it('a thread survives the loss of the database that a library leaves unhandled, and nothing else', () => {
  const before = process.listeners('unhandledRejection');
  surviveStorageLoss();
  const [added] = process.listeners('unhandledRejection').filter((one) => !before.includes(one));
  onTestFinished(() => void process.off('unhandledRejection', added!));
  const reject = (reason: Error) => () => added!(reason, Promise.resolve());
  expect(reject(Object.assign(new Error('x'), { code: '57P01' }))).not.toThrow();
  expect(reject(new Error('Connection terminated unexpectedly'))).not.toThrow();
  expect(reject(new Error('a mistake'))).toThrow('a mistake');
});
