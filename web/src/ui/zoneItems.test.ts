import { expect, it } from 'vitest';
import { zoneFits, zoneItems } from './zoneItems';

const NOW = Date.UTC(2026, 6, 1);
const found = (typed: string) =>
  zoneItems(NOW)
    .filter((item) => zoneFits(item.text, typed))
    .map((item) => item.zone);

it('a zone is found by city, country, abbreviation and offset, whatever the accents', () => {
  expect(found('dartmouth')).toContain('America/Halifax');
  expect(found('canada adt')).toContain('America/Halifax');
  expect(found('são paulo')).toContain('America/Sao_Paulo');
  expect(found('sao paulo')).toContain('America/Sao_Paulo');
  expect(found('+05:45')).toEqual(['Asia/Kathmandu']);
  expect(found('-03:00 canada')).toContain('America/Halifax');
  expect(found('lord howe')).toEqual(['Australia/Lord_Howe']);
  expect(found('nowhere at all')).toEqual([]);
  expect(zoneItems(NOW, 'none').at(0)).toEqual({ zone: '', text: 'none', words: '' });
});
