import type { Attachment, Person, PropertyDefinition, PropertyValue } from '@zonal/core/entries';
import { Plus, X } from 'lucide-react';
import styled from 'styled-components';
import { Button, QuietButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { DateField } from '../ui/DateFields';
import { Field } from '../ui/Field';
import { Group } from '../ui/Group';
import { Faded, Pair, Stack } from '../ui/layout';
import { Tick } from '../ui/Tick';
import { t } from '../texts/inside';

const Line = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr auto auto;
  gap: 0.5rem;
  align-items: end;
  margin-bottom: 0.4rem;
  @media (max-width: 34rem) {
    grid-template-columns: 1fr auto;
  }
`;

interface ListProps<T> {
  value: readonly T[];
  onChange: (value: readonly T[]) => void;
}

function changed<T>(all: readonly T[], at: number, part: Partial<T>): T[] {
  return all.map((one, i) => (i === at ? { ...one, ...part } : one));
}

const without = <T,>(all: readonly T[], at: number) => all.filter((_, i) => i !== at);

/** People and groups with their mail addresses. */
export function PeopleFields({ value, onChange }: ListProps<Person>) {
  return (
    <Group>
      <legend>{t('peopleAndGroups')}</legend>
      {value.map((p, i) => (
        <Line key={i}>
          <Field
            label={t('personName', { number: i + 1 })}
            value={p.name}
            onChange={(name) => onChange(changed(value, i, { name }))}
          />
          <Field
            label={t('personMail', { number: i + 1 })}
            type="email"
            value={p.address}
            onChange={(address) => onChange(changed(value, i, { address }))}
          />
          <Tick
            isSelected={p.group ?? false}
            onChange={(group) => {
              const { group: _group, ...rest } = p;
              onChange(value.map((one, n) => (n === i ? { ...rest, ...(group ? { group } : {}) } : one)));
            }}
          >
            {t('isGroup')}
          </Tick>
          <QuietButton
            aria-label={t('remove', { name: p.name || t('thisPerson') })}
            onPress={() => onChange(without(value, i))}
          >
            <X aria-hidden="true" />
          </QuietButton>
        </Line>
      ))}
      <Button onPress={() => onChange([...value, { name: '', address: '' }])}>
        <Plus aria-hidden="true" /> {t('addPerson')}
      </Button>
    </Group>
  );
}

/** Attachments as links: a name and where it is. */
export function AttachmentFields({ value, onChange }: ListProps<Attachment>) {
  return (
    <Group>
      <legend>{t('attachments')}</legend>
      {value.map((a, i) => (
        <Line key={i}>
          <Field
            label={t('attachment', { number: i + 1 })}
            value={a.name}
            onChange={(name) => onChange(changed(value, i, { name }))}
          />
          <Field
            label={t('attachmentLink', { number: i + 1 })}
            type="url"
            value={a.href}
            onChange={(href) => onChange(changed(value, i, { href }))}
          />
          <span />
          <QuietButton
            aria-label={t('remove', { name: a.name || t('thisLink') })}
            onPress={() => onChange(without(value, i))}
          >
            <X aria-hidden="true" />
          </QuietButton>
        </Line>
      ))}
      <Button onPress={() => onChange([...value, { name: '', href: '' }])}>
        <Plus aria-hidden="true" /> {t('addLink')}
      </Button>
    </Group>
  );
}

interface PropertyFieldsProps extends ListProps<PropertyValue> {
  definitions: readonly PropertyDefinition[];
}

/** The house's own properties. Values whose property is no longer defined stay until they are emptied. */
export function PropertyFields({ definitions, value, onChange }: PropertyFieldsProps) {
  const defined = new Set(definitions.map((d) => d.name));
  const others = value.filter((p) => !defined.has(p.name));
  const valueOf = (name: string) => value.find((p) => p.name === name)?.value ?? '';
  const set = (name: string, text: string) =>
    onChange([...value.filter((p) => p.name !== name), ...(text ? [{ name, value: text }] : [])]);
  if (!definitions.length && !others.length) return null;
  return (
    <Stack>
      <Pair>
        {definitions.map(({ name, kind, choices }) =>
          kind === 'choice' ? (
            <SelectOne
              key={name}
              label={name}
              value={valueOf(name)}
              options={[
                { value: '', text: t('notSet') },
                ...[...new Set([...choices, ...(valueOf(name) ? [valueOf(name)] : [])])].map((c) => ({
                  value: c,
                  text: c,
                })),
              ]}
              onChange={(text) => set(name, text)}
            />
          ) : kind === 'date' ? (
            <DateField key={name} label={name} value={valueOf(name)} onChange={(text) => set(name, text)} />
          ) : (
            <Field
              key={name}
              label={name}
              inputMode={kind === 'number' ? 'decimal' : 'text'}
              value={valueOf(name)}
              onChange={(text) => set(name, text)}
            />
          ),
        )}
        {others.map((p) => (
          <Field
            key={p.name}
            label={t('notDefined', { name: p.name })}
            value={p.value}
            onChange={(text) => set(p.name, text)}
          />
        ))}
      </Pair>
      {!definitions.length && <Faded>{t('propertiesHint')}</Faded>}
    </Stack>
  );
}
