import { weekdayNames } from '@zonal/core/texts';
import type { OutwardWindow } from '@zonal/core/api';
import {
  CLOCKS,
  FIRST_DAYS,
  LANGUAGES,
  PARTS,
  THEMES,
  USUAL_PARTS,
  type EmbedLook,
  type LookName,
  type Part,
} from '@zonal/core/forms';
import { COLOURS, SHOWINGS } from '@zonal/core/glass';
import styled from 'styled-components';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { labelLook } from '../ui/Field';
import { Pair, Stack } from '../ui/layout';
import { Tick } from '../ui/Tick';
import { ZoneSelect } from '../ui/ZoneSelect';
import { LANGUAGE, LOCALE } from '../texts/language';
import { t } from '../texts/glass';
import { SHOWING_WORDS } from './showingWords';
import { colourName } from '../texts/glassWords';

const Group = styled.fieldset`
  border: 0;
  margin: 0;
  padding: 0;
  legend {
    ${labelLook}
    padding: 0;
  }
  > div {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.3rem 0.9rem;
  }
`;

const PART_WORDS: Readonly<Record<Part, string>> = {
  title: t('partTitle'),
  about: t('partAbout'),
  zone: t('partZone'),
  turn: t('partTurn'),
  shows: t('partShows'),
  find: t('partFind'),
  legend: t('partLegend'),
  foot: t('partFoot'),
};

const WEEKDAYS = weekdayNames(LANGUAGE, 'long');
const THEME_WORDS = { auto: t('asDevice'), light: t('light'), dark: t('dark') };

const languageName = new Intl.DisplayNames(LOCALE, { type: 'language' });

interface LookFieldsProps {
  look: EmbedLook;
  window: OutwardWindow;
  onChange: (look: EmbedLook) => void;
}

/** How an embed looks where its reader has chosen nothing. */
export function LookFields({ look, window, onChange }: LookFieldsProps) {
  const set = (name: LookName, value: string | undefined) => {
    const { [name]: _before, ...rest } = look;
    onChange(value === undefined ? rest : { ...rest, [name]: value });
  };
  /** What is chosen, or empty for what is usual. */
  const chosen = (name: LookName) => look[name] ?? '';
  const choose = (name: LookName) => (value: string) => set(name, value || undefined);
  const parts = look.parts === undefined ? [...USUAL_PARTS] : look.parts.split(',');
  const own = [window.wording, ...window.wording.translations]
    .map(({ language }) => language)
    .filter(Boolean);
  const languages = [...new Set<string>([...LANGUAGES, ...own])];
  return (
    <Stack>
      <ChoiceStrip
        label={t('firstView')}
        value={look.show ?? 'list'}
        options={SHOWINGS.map((s) => ({ value: s, text: SHOWING_WORDS[s] }))}
        onChange={(value) => set('show', value)}
      />
      <Group>
        <legend>{t('whatReadersGet')}</legend>
        <div>
          {PARTS.map((part) => (
            <Tick
              key={part}
              isSelected={parts.includes(part)}
              onChange={(on) =>
                set('parts', PARTS.filter((p) => (p === part ? on : parts.includes(p))).join(','))
              }
            >
              {PART_WORDS[part]}
            </Tick>
          ))}
        </div>
      </Group>
      <ZoneSelect
        label={t('timeZone')}
        value={chosen('tz')}
        none={t('hostsUntilChosen')}
        onChange={choose('tz')}
      />
      <Pair>
        <SelectOne
          label={t('language')}
          value={chosen('lang')}
          options={[
            { value: '', text: t('readersOwn') },
            ...languages.map((l) => ({ value: l, text: languageName.of(l) ?? l })),
          ]}
          onChange={choose('lang')}
        />
        <SelectOne
          label={t('clock')}
          value={chosen('clock')}
          options={[
            { value: '', text: t('readersOwn') },
            ...CLOCKS.map((c) => ({ value: c, text: t('clockHours', { hours: c }) })),
          ]}
          onChange={choose('clock')}
        />
        <SelectOne
          label={t('weeksBeginOn')}
          value={chosen('week')}
          options={[
            { value: '', text: t('readersOwn') },
            ...Object.entries(FIRST_DAYS).map(([name, day]) => ({ value: name, text: WEEKDAYS[day]! })),
          ]}
          onChange={choose('week')}
        />
        <SelectOne
          label={t('accent')}
          value={chosen('accent')}
          options={[
            { value: '', text: t('windowsOwn') },
            ...COLOURS.map((c) => ({ value: c, text: colourName(c) })),
          ]}
          onChange={choose('accent')}
        />
      </Pair>
      <ChoiceStrip
        label={t('colours')}
        value={look.theme ?? 'auto'}
        options={THEMES.map((theme) => ({ value: theme, text: THEME_WORDS[theme] }))}
        onChange={(value) => set('theme', value === 'auto' ? undefined : value)}
      />
    </Stack>
  );
}
