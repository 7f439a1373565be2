import { expect, it } from 'vitest';
import { Lanes } from './lanes';

it('one host or window gets its share of what goes on at once, and no more', () => {
  const lanes = new Lanes({ host: 2, window: 3 });
  const enter = (host: string, window: string) => lanes.enter({ host, window });
  const first = enter('slow', 'quay')!;
  const second = enter('slow', 'quay')!;
  expect(enter('slow', 'market')).toBe(null);
  const third = enter('other', 'quay')!;
  expect(enter('third', 'quay')).toBe(null);
  // Who is refused takes no lane of the other kind.
  const others = [enter('third', 'market')!, enter('third', 'market')!];
  expect(others).not.toContain(null);
  first();
  expect(enter('slow', 'quay')).not.toBe(null);
  for (const leave of [second, third, ...others]) leave();
  expect(enter('third', 'market')).not.toBe(null);
});
