import { describe, expect, it } from 'vitest';
import { embedCode, embedHeight, fitScript } from './code';
import { hostNamed } from './hosts';
import { lookAddress, readEmbed, unfitInLook } from './look';

const CODE = {
  name: 'Quay & <lock>',
  embed: 'https://w.example/embed/k?show=week&lang=fr',
  see: 'https://w.example/see/k',
  script: fitScript('https://w.example'),
};

describe('the code of an embed', () => {
  it('is a frame as wide as there is room, which leads to the page where it may not be shown', () => {
    expect(embedCode({ ...CODE, way: 'frame', height: 500 })).toBe(
      '<iframe src="https://w.example/embed/k?show=week&amp;lang=fr" title="Quay &amp; &lt;lock&gt;" width="100%" height="500" style="border:0" loading="lazy"><a href="https://w.example/see/k">Quay &amp; &lt;lock&gt;</a></iframe>',
    );
  });

  it('has a script where it is to be fitted, and is a link where nothing else is taken', () => {
    expect(embedCode({ ...CODE, way: 'fitting' })).toContain(
      '<script src="https://w.example/outside/fit.js" defer></script>',
    );
    expect(embedCode({ ...CODE, way: 'link' })).toBe(
      '<a href="https://w.example/see/k">Quay &amp; &lt;lock&gt;</a>',
    );
  });
});

describe('the look of an embed', () => {
  it('may be what pages can be told, and nothing else', () => {
    const look = {
      show: 'week',
      parts: 'title,turn',
      tz: 'Asia/Kolkata',
      lang: 'pt-BR',
      clock: '12',
      week: 'sunday',
      theme: 'dark',
      accent: 'teal',
    };
    expect(unfitInLook(look)).toEqual([]);
    expect(unfitInLook({ parts: '' })).toEqual([]);
    const wrong = {
      show: 'year',
      parts: 'title,ads',
      tz: 'Moon/Base',
      lang: '<b>',
      clock: 12,
      from: '2026-01-01',
    };
    expect(unfitInLook(wrong)).toEqual(['show', 'parts', 'tz', 'lang', 'clock', 'from']);
    expect(unfitInLook({ constructor: 'list' })).toEqual(['constructor']);
  });

  it('is read from code that was pasted, and tells what is none of its options', () => {
    const embed = 'https://w.example/embed/k-1_x';
    const look = { show: 'week', parts: 'title,turn', tz: 'Pacific/Apia' };
    const code = embedCode({
      way: 'frame',
      name: 'A & b',
      embed: lookAddress(embed, look),
      see: '',
      script: '',
    });
    expect(readEmbed(code)).toEqual({ address: embed, look, unfit: [] });
    expect(readEmbed(`${embed}?show=banana&theme=dark&colour=red&find=x`)).toEqual({
      address: embed,
      look: { theme: 'dark' },
      unfit: [
        { name: 'show', value: 'banana' },
        { name: 'colour', value: 'red' },
        { name: 'find', value: 'x' },
      ],
    });
    for (const text of ['', 'hello', 'https://w.example/see/k', 'https://:0/embed/'])
      expect(readEmbed(text)).toBeNull();
  });

  it('has a height within bounds, or the usual one with a note', () => {
    expect(embedHeight('100')).toEqual({ height: 100, note: '' });
    expect(embedHeight(' 5000 ')).toEqual({ height: 5000, note: '' });
    for (const text of ['', '99', '5001', '1e3', '-200', '300.5', 'tall'])
      expect(embedHeight(text), text).toEqual({ height: 640, note: expect.stringContaining('640 is taken') });
  });

  it('stands in the query string', () => {
    expect(lookAddress('https://w.example/embed/k', {})).toBe('https://w.example/embed/k');
    expect(lookAddress('https://w.example/embed/k', { theme: 'dark', show: 'week', parts: '' })).toBe(
      'https://w.example/embed/k?show=week&parts=&theme=dark',
    );
  });
});

it.each([
  ['town.example', 'https://town.example'],
  [' HTTPS://Town.example/pages/harbour?x=1 ', 'https://town.example'],
  ['*.town.example', 'https://*.town.example'],
  ['http://localhost:8080', 'http://localhost:8080'],
  ['', null],
  ['*', null],
  ['town example', null],
  ["https://a.example; script-src 'none'", null],
  ['ftp://town.example', null],
  ['https://user@town.example', null],
  ["'self'", null],
  ['-town.example', null],
])('the site “%s” is named %s in the policy', (text, origin) => {
  expect(hostNamed(text)).toBe(origin);
});
