import type { Calendar, Label } from '@zonal/core/api';
import {
  AUDIENCES,
  AUDIENCE_WORDS,
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
  SWITCH_WORDS,
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
import { ZoneSelect } from '../ui/ZoneSelect';
import { LanguagesForm } from './LanguagesForm';

/** The questions that the settings of a window answer, in the order in which they are asked. */
export const SETTING_GROUPS = {
  reads: 'How does it read?',
  howMuch: 'How much of each entry goes out?',
  whom: 'Who finds it?',
  untilWhen: 'Until when does it go on?',
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
  tinted: 'from tinted glass on',
  clear: 'through clear glass only',
};

const FIRST_VIEW_WORDS: Readonly<Record<FirstView, string>> = {
  auto: 'Month, or list when the month is nearly over',
  list: 'List',
  week: 'Week',
  month: 'Month',
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
    return (error as Error).message;
  }
}

function reminderText(minutes: number): string {
  if (!minutes) return 'None';
  if (minutes < 60) return `${minutes} minutes before`;
  const hours = minutes / 60;
  return hours === 24 ? 'A day before' : `${hours} ${hours === 1 ? 'hour' : 'hours'} before`;
}

/** All settings of a window besides its calendars, its filter and its days. */
export const WINDOW_SETTINGS: readonly WindowSetting[] = [
  {
    id: 'name',
    group: 'reads',
    name: 'Name and description',
    words: 'title text',
    isUsed: always,
    form: ({ draft, set }) => (
      <Stack>
        <Field
          label="Name that readers see"
          value={draft.name}
          onChange={(name) => set({ name })}
          maxLength={120}
        />
        <Field
          label="Description that readers see"
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
    name: 'Word for frosted entries',
    words: 'busy taken',
    isUsed: (draft) => hasGlass(draft, 'frosted') || differs('busyWord')(draft),
    form: ({ draft, set }) => (
      <Field
        label="Word for frosted entries"
        value={draft.busyWord}
        onChange={(busyWord) => set({ busyWord })}
        maxLength={60}
      />
    ),
  },
  {
    id: 'titles',
    group: 'reads',
    name: 'Titles',
    words: 'pattern label property',
    isUsed: (draft) => draft.titlePattern !== PLAIN_TITLE,
    form: ({ draft, set, titles }) => (
      <Stack>
        <Field
          label="Pattern of titles"
          value={draft.titlePattern}
          onChange={(titlePattern) => set({ titlePattern })}
          maxLength={200}
          error={patternProblem(draft.titlePattern)}
          help={`Parts: ${Object.keys(TITLE_PARTS)
            .map((p) => `{${p}}`)
            .join(
              ' ',
            )} {property:Name}. {label|calendar} takes the first that the entry has and that goes out; text in [ ] is used if there is none.`}
        />
        <Faded style={{ minHeight: '3em' }}>
          Titles now read:{' '}
          {titles
            ? titles.map((t) => `“${t}”`).join(', ') || 'no title goes out; busy times have one word.'
            : '…'}
        </Faded>
      </Stack>
    ),
  },
  {
    id: 'namesCalendars',
    group: 'reads',
    name: 'Name the calendars',
    words: 'tell apart legend colour pattern switch source',
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
        Name the calendar of each entry{' '}
        <small>Readers tell calendars apart by their outward names and can switch them on and off.</small>
      </Tick>
    ),
  },
  {
    id: 'firstView',
    group: 'reads',
    name: 'First view',
    words: 'list week month page',
    isUsed: differs('firstView'),
    form: ({ draft, set }) => (
      <SelectOne
        label="The page opens with"
        value={draft.firstView}
        options={FIRST_VIEWS.map((v) => ({ value: v, text: FIRST_VIEW_WORDS[v] }))}
        onChange={(firstView) => set({ firstView })}
      />
    ),
  },
  {
    id: 'due',
    group: 'reads',
    name: 'Due items and reminders',
    words: 'tasks all-day remind minutes alarm',
    isUsed: differs('dueAs', 'remind'),
    form: ({ draft, set }) => (
      <Stack>
        <SelectOne
          label="Due items go out as"
          value={draft.dueAs}
          options={[
            { value: 'all-day', text: 'All-day entries' },
            { value: 'task', text: 'Tasks' },
          ]}
          onChange={(dueAs) => set({ dueAs })}
        />
        <Faded>Every program shows all-day entries; tasks need a program with a task list.</Faded>
        <SelectOne
          label="Suggest a reminder"
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
    name: 'Topic, place, contact, colour',
    words: 'ask questions address',
    isUsed: differs('topic', 'place', 'contact'),
    form: ({ draft, set }) => (
      <Stack>
        <Field label="Topic" value={draft.topic} onChange={(topic) => set({ topic })} maxLength={120} />
        <Field
          label="Place that it is about"
          value={draft.place}
          onChange={(place) => set({ place })}
          maxLength={120}
        />
        <Field
          label="Whom readers can ask"
          value={draft.contact}
          onChange={(contact) => set({ contact })}
          maxLength={300}
        />
        <SelectOne
          label="Colour"
          value={draft.colour}
          options={COLOURS.map((c) => ({ value: c, text: c }))}
          onChange={(colour) => set({ colour })}
        />
      </Stack>
    ),
  },
  {
    id: 'languages',
    group: 'reads',
    name: 'Languages',
    words: 'translation text',
    isUsed: differs('language', 'translations'),
    form: ({ draft, set }) => <LanguagesForm draft={draft} set={set} />,
  },
  {
    id: 'zone',
    group: 'reads',
    name: 'Host’s time zone',
    words: 'clock times',
    isUsed: always,
    form: ({ draft, set }) => (
      <ZoneSelect
        label="Host’s time zone"
        value={draft.hostZone}
        onChange={(hostZone) => set({ hostZone })}
      />
    ),
  },
  {
    id: 'switches',
    group: 'howMuch',
    name: 'Fields that need a switch',
    words: 'people names contact joining link milestone slip planned',
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
        {hasGlass(draft, 'cut') && (
          <Faded>Where the glass is cut, its own list of fields counts instead.</Faded>
        )}
      </Stack>
    ),
  },
  {
    id: 'labelHolds',
    group: 'howMuch',
    name: 'Labels that hold entries back',
    words: 'hold frost keep in',
    isUsed: differs('labelHolds'),
    form: ({ draft, set, labels }) => (
      <LabelHolds labels={labels} value={draft.labelHolds} onChange={(labelHolds) => set({ labelHolds })} />
    ),
  },
  {
    id: 'busy',
    group: 'howMuch',
    name: 'Busy times',
    words: 'frosted rounding minutes tentative',
    isUsed: (draft) => hasGlass(draft, 'frosted') || differs('rounding', 'tellTentative')(draft),
    form: ({ draft, set }) => (
      <Stack style={{ gap: '0.4rem' }}>
        <SelectOne
          label="Round frosted times outward"
          value={String(draft.rounding)}
          options={ROUNDINGS.map((r) => ({
            value: String(r),
            text: r ? `To ${r} minutes` : 'No, show exact times',
          }))}
          onChange={(r) => set({ rounding: Number(r) as Rounding })}
        />
        <Tick isSelected={draft.tellTentative} onChange={(tellTentative) => set({ tellTentative })}>
          Mark frosted times that are tentative
        </Tick>
      </Stack>
    ),
  },
  {
    id: 'listed',
    group: 'whom',
    name: 'Notice board and search engines',
    words: 'list listed public street unlisted',
    isUsed: always,
    form: ({ draft, set }) => (
      <Tick isSelected={draft.listed} onChange={(listed) => set({ listed })}>
        List the window on the notice board{' '}
        <small>
          Search engines can find it too. If it is not listed, only people with an address see it.
        </small>
      </Tick>
    ),
  },
  {
    id: 'firstKey',
    group: 'whom',
    name: 'First key',
    words: 'audience address crew house partners street',
    isUsed: always,
    isMissing: (_draft, isNew) => !isNew,
    form: ({ draft, set }) => (
      <SelectOne
        label="First key is for"
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
    name: 'Change notices by mail',
    words: 'e-mail subscription readers',
    isUsed: (draft) => !draft.notices,
    form: ({ draft, set }) => (
      <Stack style={{ gap: '0.4rem' }}>
        <Tick isSelected={draft.notices} onChange={(notices) => set({ notices })}>
          Readers may leave a mail address to hear of changes
        </Tick>
        <Faded>
          They confirm the address first. The mails say what changed in this window, at once or daily. Reach
          shows how many readers get them.
        </Faded>
      </Stack>
    ),
  },
  {
    id: 'lettingGo',
    group: 'untilWhen',
    name: 'Removed entries',
    words: 'cancelled left gone delete feed',
    isUsed: differs('lettingGo'),
    form: ({ draft, set }) => (
      <Stack style={{ gap: '0.4rem' }}>
        <SelectOne
          label="Feeds mark removed entries as cancelled"
          value={String(draft.lettingGo)}
          options={LETTING_GO.map((d) => ({ value: String(d), text: d ? `For ${d} days` : 'Not at all' }))}
          onChange={(days) => set({ lettingGo: Number(days) })}
        />
        <Faded>
          Some programs keep everything they once read. They drop an entry only when the feed says that it is
          cancelled; the feed says nothing else about it.
        </Faded>
      </Stack>
    ),
  },
  {
    id: 'publicGraceDays',
    group: 'untilWhen',
    name: 'Public address',
    words: 'unlisted grace ends',
    isUsed: (draft) => draft.listed,
    form: ({ draft, set }) => (
      <SelectOne
        label="If it is unlisted, its public address keeps working"
        value={String(draft.publicGraceDays)}
        options={PUBLIC_ADDRESS_GRACE_DAYS.map((d) => ({
          value: String(d),
          text: d ? `For ${d} days, with a notice` : 'Not at all',
        }))}
        onChange={(days) => set({ publicGraceDays: Number(days) })}
      />
    ),
  },
];

/** Returns whether all words of a search are in what a setting is found by, whatever their case. */
export function isFound(search: string, ...texts: readonly string[]): boolean {
  const all = texts.join(' ').toLocaleLowerCase('en');
  return search
    .toLocaleLowerCase('en')
    .split(/\s+/)
    .every((word) => all.includes(word));
}
