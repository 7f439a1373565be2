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
import { capital } from '@zonal/core/entries';
import { COLOURS, SHOWINGS } from '@zonal/core/glass';
import styled from 'styled-components';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { labelLook } from '../ui/Field';
import { Pair, Stack } from '../ui/layout';
import { Tick } from '../ui/Tick';
import { ZoneSelect } from '../ui/ZoneSelect';

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
  title: 'Name',
  about: 'Description, contact',
  zone: 'Time zone, settings',
  turn: 'Earlier and later',
  shows: 'List, week, month',
  find: 'Find',
  legend: 'Names of calendars',
  foot: 'Way to the whole page',
};

const languageName = new Intl.DisplayNames('en', { type: 'language' });

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
  const own = [window.wording, ...window.wording.translations].map((t) => t.language).filter(Boolean);
  const languages = [...new Set<string>([...LANGUAGES, ...own])];
  return (
    <Stack>
      <ChoiceStrip
        label="First view"
        value={look.show ?? 'list'}
        options={SHOWINGS.map((s) => ({ value: s, text: s }))}
        onChange={(value) => set('show', value)}
      />
      <Group>
        <legend>What readers get</legend>
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
        label="Time zone"
        value={chosen('tz')}
        none="the host’s, until the reader chooses"
        onChange={choose('tz')}
      />
      <Pair>
        <SelectOne
          label="Language"
          value={chosen('lang')}
          options={[
            { value: '', text: 'the reader’s' },
            ...languages.map((l) => ({ value: l, text: languageName.of(l) ?? l })),
          ]}
          onChange={choose('lang')}
        />
        <SelectOne
          label="Clock"
          value={chosen('clock')}
          options={[
            { value: '', text: 'the reader’s' },
            ...CLOCKS.map((c) => ({ value: c, text: `${c} hours` })),
          ]}
          onChange={choose('clock')}
        />
        <SelectOne
          label="Weeks begin on"
          value={chosen('week')}
          options={[
            { value: '', text: 'the reader’s' },
            ...Object.keys(FIRST_DAYS).map((d) => ({ value: d, text: capital(d) })),
          ]}
          onChange={choose('week')}
        />
        <SelectOne
          label="Accent"
          value={chosen('accent')}
          options={[{ value: '', text: 'the window’s' }, ...COLOURS.map((c) => ({ value: c, text: c }))]}
          onChange={choose('accent')}
        />
      </Pair>
      <ChoiceStrip
        label="Colours"
        value={look.theme ?? 'auto'}
        options={THEMES.map((t) => ({ value: t, text: t === 'auto' ? 'as the device' : t }))}
        onChange={(value) => set('theme', value === 'auto' ? undefined : value)}
      />
    </Stack>
  );
}
