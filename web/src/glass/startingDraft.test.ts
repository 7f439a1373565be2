import type { Calendar, OutwardWindow } from '@zonal/core/api';
import { BLANK_WINDOW, WINDOW_TEMPLATES, rulesOfSaid, type WindowTemplate } from '@zonal/core/glass';
import { describe, expect, it } from 'vitest';
import { blankDraft } from './draft';
import { startingDraft } from './startingDraft';

const calendar = (id: string) => ({ id, name: id, zone: 'America/Halifax' }) as Calendar;
const CALENDARS = [calendar('a'), calendar('b')];

const source = (calendarId: string) => ({ calendarId, glass: 'clear' as const, fields: [], as: 'Works' });

/** Returns a listed window over two calendars, one of which the person does not publish. */
function otherWindow(): OutwardWindow {
  const said = {
    ...BLANK_WINDOW,
    name: 'Works ahead',
    description: 'Dredging and repairs',
    listed: true,
    rounding: 30 as const,
    translations: [{ language: 'fr', name: 'Travaux', description: '', topic: '' }],
    sources: [source('a'), source('foreign')],
  };
  const rules = rulesOfSaid(said, { secret: 's', ceilings: { house: {}, calendars: {} }, gone: [] });
  const keys = [{ id: 'k', audience: 'partners', token: 'secret' }];
  return { ...rules, ...said, id: 'w', version: 7, keys } as unknown as OutwardWindow;
}

describe('a new window', () => {
  it('starts blank', () => {
    expect(startingDraft({ kind: 'blank' }, CALENDARS)).toEqual({
      draft: blankDraft(CALENDARS),
      glass: 'frosted',
    });
  });

  it.each(Object.keys(WINDOW_TEMPLATES) as WindowTemplate[])('starts from the template %s', (template) => {
    const { draft, glass } = startingDraft({ kind: 'template', template }, CALENDARS);
    const { audience, settings } = WINDOW_TEMPLATES[template];
    expect(draft).toMatchObject({ ...settings, audience, name: '', sources: [], listed: false });
    expect(draft.hostZone).toBe('America/Halifax');
    expect(glass).toBe(WINDOW_TEMPLATES[template].glass);
  });

  it('copies the rules of another one, but neither its names, keys and listing nor calendars of others', () => {
    const { draft } = startingDraft({ kind: 'copy', window: otherWindow() }, CALENDARS);
    expect(draft).toMatchObject({
      ...{ name: '', description: 'Dredging and repairs', rounding: 30, audience: 'partners' },
      ...{ listed: false, translations: [], sources: [source('a')] },
    });
    expect(draft).not.toHaveProperty('version');
    expect(JSON.stringify(draft)).not.toContain('secret');
  });
});
