import type { Calendar, Label } from '@zonal/core/api';
import {
  AUDIENCES,
  BLANK_WINDOW,
  COLOURS,
  FIELD_RULES,
  FIRST_VIEWS,
  LETTING_GO,
  PLAIN_TITLE,
  PUBLIC_ADDRESS_GRACE_DAYS,
  REMINDERS,
  ROUNDINGS,
  SWITCHED_FIELDS,
  TITLE_PARTS,
  readPattern,
  type FirstView,
  type Glass,
  type Rounding,
  type WindowInput,
} from '@zonal/core/glass';
import type { ReactNode } from 'react';
import { LabelHolds } from '../inside/LabelHolds';
import { SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Faded, Stack } from '../ui/layout';
import { Tick } from '../ui/Tick';
import { LazyScreen, lazyScreen } from '../ui/LazyScreen';
import { LanguagesForm } from './LanguagesForm';
import { LOCALE } from '../texts/language';
import { t } from '../texts/glass';
import { AUDIENCE_WORDS, SWITCH_WORDS, colourName } from '../texts/glassWords';
import { problemText } from '../texts/problemText';

/** Heavy, and few windows need it. */
const ZoneSelect = lazyScreen(() => import('../ui/ZoneSelect').then((file) => file.ZoneSelect));

/** The questions that the settings of a window answer, in the order in which they are asked. */
export const SETTING_GROUPS = {
  reads: t('groupReads'),
  howMuch: t('groupHowMuch'),
  whom: t('groupWhom'),
  untilWhen: t('groupUntil'),
} as const;
export type SettingGroup = keyof typeof SETTING_GROUPS;

export interface SettingProps {
  readonly draft: WindowInput;
  readonly set: (part: Partial<WindowInput>) => void;
  readonly isNew: boolean;
  readonly calendars: readonly Calendar[];
  readonly labels: readonly Label[];
  /** Some titles as they go out; null while they are computed. */
  readonly titles: readonly string[] | null;
}

export interface WindowSetting {
  readonly id: string;
  readonly group: SettingGroup;
  readonly name: string;
  /** More words by which it is found. */
  readonly words: string;
  /** Whether a window uses it; what every window needs is always in use. */
  readonly isUsed: (draft: WindowInput, isNew: boolean) => boolean;
  /** Whether it makes no sense for this window. */
  readonly isMissing?: (draft: WindowInput, isNew: boolean) => boolean;
  readonly form: (props: SettingProps) => ReactNode;
}

/** The glass from which on a field goes out once it is switched on. */
const THROUGH: Readonly<Record<Glass, string>> = {
  shut: '',
  frosted: '',
  tinted: t('fromTinted'),
  clear: t('clearOnly'),
};

const FIRST_VIEW_WORDS: Readonly<Record<FirstView, string>> = {
  auto: t('viewAuto'),
  list: t('viewList'),
  week: t('viewWeek'),
  month: t('viewMonth'),
};

const always = () => true;
const differs =
  (...fields: (keyof typeof BLANK_WINDOW)[]) =>
  (draft: WindowInput) =>
    fields.some((field) => JSON.stringify(draft[field]) !== JSON.stringify(BLANK_WINDOW[field]));
const hasGlass = ({ sources }: WindowInput, glass: string) => sources.some((s) => s.glass === glass);

/** Returns what is wrong with a pattern of titles, or undefined. */
function patternProblem(pattern: string): string | undefined {
  try {
    readPattern(pattern);
    return undefined;
  } catch (error) {
    return problemText(error);
  }
}

function reminderText(minutes: number): string {
  if (!minutes) return t('noReminder');
  if (minutes < 60) return t('reminderMinutes', { count: minutes });
  const hours = minutes / 60;
  return hours === 24 ? t('reminderDay') : t('reminderHours', { count: hours });
}

/** All settings of a window besides its calendars, its filter and its days. */
export const WINDOW_SETTINGS: readonly WindowSetting[] = [
  {
    id: 'name',
    group: 'reads',
    name: t('setName'),
    words: t('setNameSearch'),
    isUsed: always,
    form: ({ draft, set }) => (
      <Stack>
        <Field
          label={t('outwardNameField')}
          value={draft.name}
          onChange={(name) => set({ name })}
          maxLength={120}
        />
        <Field
          label={t('outwardDescription')}
          value={draft.description}
          onChange={(description) => set({ description })}
          lines
        />
      </Stack>
    ),
  },
  {
    id: 'busyWord',
    group: 'reads',
    name: t('setBusyWord'),
    words: t('setBusyWordSearch'),
    isUsed: (draft) => hasGlass(draft, 'frosted') || differs('busyWord')(draft),
    form: ({ draft, set }) => (
      <Field
        label={t('setBusyWord')}
        value={draft.busyWord}
        onChange={(busyWord) => set({ busyWord })}
        maxLength={60}
      />
    ),
  },
  {
    id: 'titles',
    group: 'reads',
    name: t('setTitles'),
    words: t('setTitlesSearch'),
    isUsed: (draft) => draft.titlePattern !== PLAIN_TITLE,
    form: ({ draft, set, titles }) => (
      <Stack>
        <Field
          label={t('titlePattern')}
          value={draft.titlePattern}
          onChange={(titlePattern) => set({ titlePattern })}
          maxLength={200}
          error={patternProblem(draft.titlePattern)}
          help={t('titlePatternHelp', {
            parts: [...Object.keys(TITLE_PARTS), 'property:Name'].map((part) => `{${part}}`).join(' '),
            choice: '{label|calendar}',
          })}
        />
        <Faded style={{ minHeight: '3em' }}>
          {t('titlesNow', {
            titles: titles ? titles.map((title) => t('quoted', { title })).join(', ') || t('noTitles') : '…',
          })}
        </Faded>
      </Stack>
    ),
  },
  {
    id: 'namesCalendars',
    group: 'reads',
    name: t('setNames'),
    words: t('setNamesSearch'),
    isUsed: (draft) => draft.namesCalendars || draft.sources.length > 1,
    form: ({ draft, set, calendars }) => (
      <Tick
        isSelected={draft.namesCalendars}
        onChange={(namesCalendars) =>
          set({
            namesCalendars,
            sources: draft.sources.map((s) => ({
              ...s,
              as: s.as || (namesCalendars ? (calendars.find((c) => c.id === s.calendarId)?.name ?? '') : ''),
            })),
          })
        }
      >
        {t('nameCalendars')}
        <small>{t('nameCalendarsHint')}</small>
      </Tick>
    ),
  },
  {
    id: 'firstView',
    group: 'reads',
    name: t('firstView'),
    words: t('setFirstViewSearch'),
    isUsed: differs('firstView'),
    form: ({ draft, set }) => (
      <SelectOne
        label={t('pageOpensWith')}
        value={draft.firstView}
        options={FIRST_VIEWS.map((v) => ({ value: v, text: FIRST_VIEW_WORDS[v] }))}
        onChange={(firstView) => set({ firstView })}
      />
    ),
  },
  {
    id: 'due',
    group: 'reads',
    name: t('setDue'),
    words: t('setDueSearch'),
    isUsed: differs('dueAs', 'remind'),
    form: ({ draft, set }) => (
      <Stack>
        <SelectOne
          label={t('dueGoOutAs')}
          value={draft.dueAs}
          options={[
            { value: 'all-day', text: t('allDayEntries') },
            { value: 'task', text: t('tasks') },
          ]}
          onChange={(dueAs) => set({ dueAs })}
        />
        <Faded>{t('dueHint')}</Faded>
        <SelectOne
          label={t('suggestReminder')}
          value={String(draft.remind)}
          options={REMINDERS.map((r) => ({ value: String(r), text: reminderText(r) }))}
          onChange={(remind) => set({ remind: Number(remind) })}
        />
      </Stack>
    ),
  },
  {
    id: 'about',
    group: 'reads',
    name: t('setTopic'),
    words: t('setTopicSearch'),
    isUsed: differs('topic', 'place', 'contact'),
    form: ({ draft, set }) => (
      <Stack>
        <Field label={t('topic')} value={draft.topic} onChange={(topic) => set({ topic })} maxLength={120} />
        <Field
          label={t('aboutPlace')}
          value={draft.place}
          onChange={(place) => set({ place })}
          maxLength={120}
        />
        <Field
          label={t('readersContact')}
          value={draft.contact}
          onChange={(contact) => set({ contact })}
          maxLength={300}
        />
        <SelectOne
          label={t('colour')}
          value={draft.colour}
          options={COLOURS.map((c) => ({ value: c, text: colourName(c) }))}
          onChange={(colour) => set({ colour })}
        />
      </Stack>
    ),
  },
  {
    id: 'languages',
    group: 'reads',
    name: t('setLanguages'),
    words: t('setLanguagesSearch'),
    isUsed: differs('language', 'translations'),
    form: ({ draft, set }) => <LanguagesForm draft={draft} set={set} />,
  },
  {
    id: 'zone',
    group: 'reads',
    name: t('hostZone'),
    words: t('hostZoneSearch'),
    isUsed: always,
    form: ({ draft, set }) => (
      <LazyScreen>
        <ZoneSelect label={t('hostZone')} value={draft.hostZone} onChange={(hostZone) => set({ hostZone })} />
      </LazyScreen>
    ),
  },
  {
    id: 'switches',
    group: 'howMuch',
    name: t('setFields'),
    words: t('setFieldsSearch'),
    isUsed: differs('switches'),
    form: ({ draft, set }) => (
      <Stack style={{ gap: '0.4rem' }}>
        {SWITCHED_FIELDS.map((field) => (
          <Tick
            key={field}
            isSelected={draft.switches[field]}
            onChange={(on) => set({ switches: { ...draft.switches, [field]: on } })}
          >
            {SWITCH_WORDS[field].word}{' '}
            <small>
              {[THROUGH[FIELD_RULES[field].from], SWITCH_WORDS[field].plain].filter(Boolean).join('; ')}
            </small>
          </Tick>
        ))}
        {hasGlass(draft, 'cut') && <Faded>{t('cutHasOwn')}</Faded>}
      </Stack>
    ),
  },
  {
    id: 'labelHolds',
    group: 'howMuch',
    name: t('setLabelHolds'),
    words: t('setLabelHoldsSearch'),
    isUsed: differs('labelHolds'),
    form: ({ draft, set, labels }) => (
      <LabelHolds labels={labels} value={draft.labelHolds} onChange={(labelHolds) => set({ labelHolds })} />
    ),
  },
  {
    id: 'busy',
    group: 'howMuch',
    name: t('setBusy'),
    words: t('setBusySearch'),
    isUsed: (draft) => hasGlass(draft, 'frosted') || differs('rounding', 'tellTentative')(draft),
    form: ({ draft, set }) => (
      <Stack style={{ gap: '0.4rem' }}>
        <SelectOne
          label={t('roundTimes')}
          value={String(draft.rounding)}
          options={ROUNDINGS.map((r) => ({
            value: String(r),
            text: r ? t('roundTo', { minutes: r }) : t('exactTimes'),
          }))}
          onChange={(r) => set({ rounding: Number(r) as Rounding })}
        />
        <Tick isSelected={draft.tellTentative} onChange={(tellTentative) => set({ tellTentative })}>
          {t('markTentative')}
        </Tick>
      </Stack>
    ),
  },
  {
    id: 'listed',
    group: 'whom',
    name: t('setBoard'),
    words: t('setBoardSearch'),
    isUsed: always,
    form: ({ draft, set }) => (
      <Tick isSelected={draft.listed} onChange={(listed) => set({ listed })}>
        {t('listOnBoard')}
        <small>{t('listOnBoardHint')}</small>
      </Tick>
    ),
  },
  {
    id: 'firstKey',
    group: 'whom',
    name: t('firstKey'),
    words: t('firstKeySearch'),
    isUsed: always,
    isMissing: (_draft, isNew) => !isNew,
    form: ({ draft, set }) => (
      <SelectOne
        label={t('firstKeyFor')}
        value={draft.audience ?? 'street'}
        options={AUDIENCES.map((a) => ({
          value: a,
          text: `${AUDIENCE_WORDS[a].word}: ${AUDIENCE_WORDS[a].plain}`,
        }))}
        onChange={(audience) => set({ audience })}
      />
    ),
  },
  {
    id: 'notices',
    group: 'whom',
    name: t('setNotices'),
    words: t('setNoticesSearch'),
    isUsed: (draft) => !draft.notices,
    form: ({ draft, set }) => (
      <Stack style={{ gap: '0.4rem' }}>
        <Tick isSelected={draft.notices} onChange={(notices) => set({ notices })}>
          {t('offerNotices')}
        </Tick>
        <Faded>{t('offerNoticesHint')}</Faded>
      </Stack>
    ),
  },
  {
    id: 'lettingGo',
    group: 'untilWhen',
    name: t('setRemoved'),
    words: t('setRemovedSearch'),
    isUsed: differs('lettingGo'),
    form: ({ draft, set }) => (
      <Stack style={{ gap: '0.4rem' }}>
        <SelectOne
          label={t('markRemoved')}
          value={String(draft.lettingGo)}
          options={LETTING_GO.map((d) => ({
            value: String(d),
            text: d ? t('forDays', { days: d }) : t('notAtAll'),
          }))}
          onChange={(days) => set({ lettingGo: Number(days) })}
        />
        <Faded>{t('markRemovedHint')}</Faded>
      </Stack>
    ),
  },
  {
    id: 'publicGraceDays',
    group: 'untilWhen',
    name: t('publicAddressTitle'),
    words: t('setPublicSearch'),
    isUsed: (draft) => draft.listed,
    form: ({ draft, set }) => (
      <SelectOne
        label={t('publicKeepsWorking')}
        value={String(draft.publicGraceDays)}
        options={PUBLIC_ADDRESS_GRACE_DAYS.map((d) => ({
          value: String(d),
          text: d ? t('forDaysNotice', { days: d }) : t('notAtAll'),
        }))}
        onChange={(days) => set({ publicGraceDays: Number(days) })}
      />
    ),
  },
];

/** Returns whether all words of a search are in what a setting is found by, whatever their case. */
export function isFound(search: string, ...texts: readonly string[]): boolean {
  const all = texts.join(' ').toLocaleLowerCase(LOCALE);
  return search
    .toLocaleLowerCase(LOCALE)
    .split(/\s+/)
    .every((word) => all.includes(word));
}
