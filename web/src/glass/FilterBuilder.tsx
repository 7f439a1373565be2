import { KINDS, STATUSES } from '@zonal/core/entries';
import { CONDITION_FIELDS, PROPERTY_TESTS, type Condition, type Filter } from '@zonal/core/glass';
import { Plus, X } from 'lucide-react';
import { useRef } from 'react';
import styled from 'styled-components';
import type { Calendar, House, Label } from '@zonal/core/api';
import { QuietButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Faded, Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { Tick } from '../ui/Tick';
import { useFocusAdded } from '../ui/useFocusAdded';
import { goneWords } from './windowNotes';
import { t } from '../texts/glass';
import { KIND_WORDS, STATUS_WORDS } from '../texts/entryWords';
import { TEST_WORDS, filterWords } from '../texts/glassWords';

const Group = styled.div`
  border-left: 3px double var(--line);
  padding-left: 0.6rem;
  display: grid;
  gap: 0.5rem;
`;

const Part = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.3rem;
  align-items: end;
  border-bottom: 1px solid var(--hair);
  padding-bottom: 0.5rem;
`;

const Parts = styled.div`
  display: contents;
`;

const Fields = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem;
  min-width: 0;
`;

type Asked = Condition['field'];
const FIELD_WORDS: Readonly<Record<Asked, string>> = {
  label: t('labelWord'),
  person: t('personOrGroup'),
  kind: t('kindWord'),
  status: t('statusWord'),
  text: t('wordsInIt'),
  property: t('propertyWord'),
  calendar: t('calendarWord'),
};

interface Names {
  readonly calendars: readonly Calendar[];
  readonly labels: readonly Label[];
  readonly properties: House['properties'];
}

interface FilterBuilderProps extends Names {
  readonly filter: Filter | null;
  readonly gone: readonly string[];
  readonly onChange: (filter: Filter | null) => void;
}

type GroupFilter = Extract<Filter, { all: unknown } | { any: unknown }>;
const isGroup = (f: Filter): f is GroupFilter => 'all' in f || 'any' in f;
const partsOf = (f: GroupFilter) => ('all' in f ? f.all : f.any);
const inner = (f: Filter): GroupFilter | Condition => ('not' in f ? inner(f.not) : f);
const isDenied = (f: Filter): boolean => 'not' in f && !isDenied(f.not);

/** Which entries of the calendars the window takes: conditions joined by “and” or “or”, each of which can be denied. */
export function FilterBuilder({ filter, gone, onChange, ...names }: FilterBuilderProps) {
  const group = !filter ? { all: [] } : isGroup(filter) ? filter : { all: [filter] };
  const set = (next: Filter) => onChange(isGroup(next) && !partsOf(next).length ? null : next);
  const nameOf = (id: string) => names.calendars.find((c) => c.id === id)?.name ?? t('deletedCalendar');
  return (
    <Stack style={{ gap: '0.5rem' }}>
      <p>
        {filter
          ? t.rich('filterShows', {
              conditions: filterWords(filter, nameOf),
              strong: (text) => <strong>{text}</strong>,
            })
          : t.rich('filterShowsAll', { strong: (text) => <strong>{text}</strong> })}
      </p>
      {gone.length > 0 && (
        <Notice>{t('filterGone', { names: gone.map((g) => goneWords(g, nameOf)).join(', ') })}</Notice>
      )}
      <GroupEditor group={group} names={names} depth={0} onChange={set} />
    </Stack>
  );
}

interface GroupProps {
  readonly group: GroupFilter;
  readonly names: Names;
  readonly depth: number;
  readonly onChange: (next: Filter) => void;
}

function GroupEditor({ group, names, depth, onChange }: GroupProps) {
  const parts = partsOf(group);
  const list = useRef<HTMLDivElement>(null);
  const focusAdded = useFocusAdded(list);
  const add = (part: Filter) => {
    focusAdded();
    onChange(make([...parts, part]));
  };
  const make = (next: readonly Filter[], join = 'all' in group ? 'all' : 'any'): Filter =>
    join === 'all' ? { all: next } : { any: next };
  const replace = (i: number, next: Filter | null) =>
    onChange(make(next ? parts.map((p, k) => (k === i ? next : p)) : parts.filter((_, k) => k !== i)));
  return (
    <Group>
      {parts.length > 1 && (
        <SelectOne
          label={t('joinBy')}
          value={'all' in group ? 'all' : 'any'}
          options={[
            { value: 'all', text: t('joinAnd') },
            { value: 'any', text: t('joinOr') },
          ]}
          onChange={(join) => onChange(make(parts, join))}
        />
      )}
      <Parts ref={list}>
        {parts.map((part, i) => {
          const own = inner(part);
          const denied = isDenied(part);
          const wrap = (f: Filter) => (denied ? { not: f } : f);
          return (
            <Part key={i} role="group" aria-label={t('conditionNumber', { number: i + 1 })}>
              <div>
                <Tick isSelected={denied} onChange={(not) => replace(i, not ? { not: own } : own)}>
                  {t('not')}
                </Tick>
                {isGroup(own) ? (
                  <GroupEditor
                    group={own}
                    names={names}
                    depth={depth + 1}
                    onChange={(f) => replace(i, wrap(f))}
                  />
                ) : (
                  <ConditionEditor condition={own} names={names} onChange={(c) => replace(i, wrap(c))} />
                )}
              </div>
              <QuietButton
                aria-label={t('removeCondition', { number: i + 1 })}
                onPress={() => replace(i, null)}
              >
                <X aria-hidden="true" />
              </QuietButton>
            </Part>
          );
        })}
      </Parts>
      <Row>
        <QuietButton onPress={() => add({ field: 'label', value: '' })}>
          <Plus aria-hidden="true" /> {t('addCondition')}
        </QuietButton>
        {depth < 3 && parts.length > 0 && (
          <QuietButton onPress={() => add({ any: [{ field: 'label', value: '' }] })}>
            <Plus aria-hidden="true" /> {t('addGroup')}
          </QuietButton>
        )}
      </Row>
      {parts.some((p) => !isGroup(inner(p)) && !(inner(p) as Condition).value) && (
        <Faded>{t('conditionEmpty')}</Faded>
      )}
    </Group>
  );
}

function blank(field: Asked, { calendars, properties }: Names): Condition {
  if (field === 'kind') return { field, value: 'event' };
  if (field === 'status') return { field, value: 'confirmed' };
  if (field === 'property') return { field, name: properties[0]?.name ?? '', test: 'is', value: '' };
  return { field, value: field === 'calendar' ? (calendars[0]?.id ?? '') : '' };
}

function ConditionEditor({
  condition,
  names,
  onChange,
}: {
  condition: Condition;
  names: Names;
  onChange: (next: Condition) => void;
}) {
  const { field } = condition;
  const set = (value: string) => onChange({ ...condition, value } as Condition);
  return (
    <Fields>
      <SelectOne
        label={t('conditionField')}
        value={field}
        options={CONDITION_FIELDS.map((f) => ({ value: f, text: FIELD_WORDS[f] }))}
        onChange={(f) => onChange(blank(f, names))}
      />
      {field === 'kind' && (
        <SelectOne
          label={t('kind')}
          value={condition.value}
          options={KINDS.map((kind) => ({ value: kind, text: KIND_WORDS[kind].word }))}
          onChange={set}
        />
      )}
      {field === 'status' && (
        <SelectOne
          label={t('status')}
          value={condition.value}
          options={STATUSES.map((status) => ({ value: status, text: STATUS_WORDS[status] }))}
          onChange={set}
        />
      )}
      {field === 'calendar' && (
        <SelectOne
          label={t('calendar')}
          value={condition.value}
          options={names.calendars.map((c) => ({ value: c.id, text: `${c.plate} ${c.name}` }))}
          onChange={set}
        />
      )}
      {field === 'label' && (
        <SelectOne
          label={t('label')}
          value={condition.value}
          options={[
            { value: '', text: t('chooseOne') },
            ...names.labels.map((l) => ({ value: l.name, text: `${l.name} (${l.count})` })),
            ...(condition.value && !names.labels.some((l) => l.name === condition.value)
              ? [{ value: condition.value, text: t('goneValue', { name: condition.value }) }]
              : []),
          ]}
          onChange={set}
        />
      )}
      {(field === 'text' || field === 'person') && (
        <Field
          label={field === 'text' ? t('words') : t('nameOrAddress')}
          value={condition.value}
          onChange={set}
        />
      )}
      {field === 'property' && (
        <>
          <SelectOne
            label={t('property')}
            value={condition.name}
            options={[...new Set([...names.properties.map((p) => p.name), condition.name])].map((name) => ({
              value: name,
              text: name,
            }))}
            onChange={(name) => onChange({ ...condition, name })}
          />
          <SelectOne
            label={t('comparison')}
            value={condition.test}
            options={PROPERTY_TESTS.map((test) => ({ value: test, text: TEST_WORDS[test] }))}
            onChange={(test) => onChange({ ...condition, test })}
          />
          <Field label={t('value')} value={condition.value} onChange={set} />
        </>
      )}
    </Fields>
  );
}
