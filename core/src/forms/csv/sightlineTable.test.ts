import { expect, it } from 'vitest';
import { NOTHING_WATCHED, NO_CEILINGS, sightlines } from '../../glass';
import { rulesOf } from '../../testing/samples';
import { insideSight } from '../../rights';
import { sightlineTable } from './sightlineTable';

it('sightlines as a table have a row for each way and one for each empty cell, with the reasons', () => {
  const key = {
    id: 'k',
    madeOutTo: '=SUM(A1)',
    audience: 'street',
    cap: 'tinted',
    fetchedAt: null,
    madeAt: 0,
    expiresAt: null,
  } as const;
  const window = { id: 'w', rules: rulesOf('clear'), closed: false, keys: [key] };
  const rows = sightlines(['a'], [window], () => [], Date.UTC(2026, 5, 1), NOTHING_WATCHED);
  const lines = sightlineTable(rows, () => 'Works')
    .trim()
    .split('\r\n');
  expect(lines).toHaveLength(5);
  expect(lines[0]).toContain('Calendar,Usual glass,Audience,Clearest glass');
  expect(lines[1]).toBe('Works,tinted,crew,shut,,,,,,');
  expect(lines[4]).toBe(
    `Works,tinted,street,tinted,Bridge times,'=SUM(A1),tinted,"glass of the window: clear, cap of the key: tinted (decides)",not used for 60 days,0`,
  );
  const inside = insideSight(
    'a',
    { people: [{ name: 'Per', standing: 'reader', glass: 'tinted' }], stewards: ['Ida'], houseGlass: 'shut' },
    NO_CEILINGS,
  );
  expect(
    sightlineTable(rows, () => 'Works', [inside])
      .split('\r\n')
      .slice(1, 4),
  ).toEqual([
    'Works,tinted,crew,all,,Ida,all,as steward,,',
    'Works,tinted,crew,tinted,,Per,tinted,glass given by name: tinted,,',
    'Works,tinted,house,shut,,,,,,',
  ]);
});
