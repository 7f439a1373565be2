import {
  fieldsOfFilter,
  fieldsOfSource,
  glassOfSource,
  type EntryField,
  type WindowInput,
} from '@zonal/core/glass';
import { useState } from 'react';
import styled from 'styled-components';
import { Faded, Stack } from '../ui/layout';
import { Term } from '../ui/Term';
import {
  SETTING_GROUPS,
  WINDOW_SETTINGS,
  isFound,
  type SettingGroup,
  type SettingProps,
  type WindowSetting,
} from './windowSettings';
import { LANGUAGE, LOCALE } from '../texts/language';
import { t } from '../texts/glass';

const Group = styled.section`
  border-top: 1px solid var(--line);
  padding-top: 0.6rem;
  display: grid;
  gap: 0.8rem;
  details > summary {
    cursor: pointer;
    color: var(--faded);
    font-size: 0.9rem;
    margin-bottom: 0.5rem;
  }
`;

/** Returns the fields that the filter looks at though no reader gets them. */
export function hiddenFilterFields(draft: WindowInput): string[] {
  const out = new Set(
    draft.sources.flatMap((s) => fieldsOfSource(s, glassOfSource(s), { switches: draft.switches })),
  );
  return fieldsOfFilter(draft.filter).filter((f) => !out.has(f as EntryField));
}

interface GlassPanelProps extends SettingProps {
  /** Words by which settings are looked for; empty for all. */
  readonly search: string;
}

/** The settings of a window by the question that they answer: those in use first, the others folded. */
export function GlassPanel({ search, ...props }: GlassPanelProps) {
  const { draft, isNew } = props;
  const possible = WINDOW_SETTINGS.filter((s) => !s.isMissing?.(draft, isNew));
  const found = possible.filter((s) => isFound(search, s.name, s.words, SETTING_GROUPS[s.group]));
  const hidden = hiddenFilterFields(draft);
  return (
    <Stack>
      <h2 id="glass">{t.rich('glassTitle', { term: (text) => <Term word="glass">{text}</Term> })}</h2>
      {(Object.keys(SETTING_GROUPS) as SettingGroup[]).map((group) => (
        <SettingsOfGroup
          key={group}
          group={group}
          settings={found.filter((s) => s.group === group)}
          isSearching={search.trim() !== ''}
          props={props}
        />
      ))}
      {search.trim() && !found.length && <Faded role="status">{t('noSetting')}</Faded>}
      {hidden.length > 0 && <Faded role="note">{t('filterDiscloses', { fields: hidden.join(', ') })}</Faded>}
    </Stack>
  );
}

interface SettingsOfGroupProps {
  readonly group: SettingGroup;
  readonly settings: readonly WindowSetting[];
  readonly isSearching: boolean;
  readonly props: SettingProps;
}

function SettingsOfGroup({ group, settings, isSearching, props }: SettingsOfGroupProps) {
  const { draft, isNew } = props;
  const [used, setUsed] = useState<ReadonlySet<string>>(new Set());
  const [isOpen, setIsOpen] = useState(false);
  // A setting that moved while somebody changes it would take the focus along: it moves up only while the others are folded, and
  // never down again.
  const fresh = isOpen ? [] : settings.filter((s) => !used.has(s.id) && s.isUsed(draft, isNew));
  if (fresh.length) setUsed(new Set([...used, ...fresh.map((s) => s.id)]));
  if (!settings.length) return null;
  const first = settings.filter((s) => isSearching || used.has(s.id));
  const rest = settings.filter((s) => !first.includes(s));
  const forms = (all: readonly WindowSetting[]) => all.map((s) => <div key={s.id}>{s.form(props)}</div>);
  return (
    <Group aria-labelledby={`group-${group}`}>
      <h3 id={`group-${group}`}>{SETTING_GROUPS[group]}</h3>
      {forms(first)}
      {rest.length > 0 && (
        <details open={isOpen} onToggle={({ currentTarget }) => setIsOpen(currentTarget.open)}>
          <summary>{t('moreSettings', { names: rest.map((s) => inSentence(s.name)).join('; ') })}</summary>
          {isOpen && <Stack>{forms(rest)}</Stack>}
        </details>
      )}
    </Group>
  );
}

/** Returns a name as it is written within a sentence: German nouns keep their capitals. */
const inSentence = (name: string) => (LANGUAGE === 'de' ? name : name.toLocaleLowerCase(LOCALE));
