import {
  ENTRY_FIELDS,
  ENTRY_LIMITS,
  KINDS,
  SHOWS,
  STATUSES,
  type Content,
  type Shape,
} from '@zonal/core/entries';
import type { PropertyDefinition } from '@zonal/core/entries';
import { Fragment, type ReactNode } from 'react';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Faded } from '../ui/layout';
import { capital } from '@zonal/core/entries';
import type { EntryForm } from './entryForm';
import type { FieldErrors } from './fieldErrors';
import type { FormContent } from './formContent';
import { ImageField } from './ImageField';
import { AttachmentFields, PeopleFields, PropertyFields } from './PeopleFields';
import { Term } from '../ui/Term';
import { t } from '../texts/inside';
import { HOLD_WORDS, KIND_WORDS, SHOWS_WORDS, fieldWord, statusWord } from '../texts/entryWords';

/** What the fields of an entry are entered with. */
export interface EntryFieldProps {
  readonly form: EntryForm;
  readonly set: (part: Partial<EntryForm>) => void;
  readonly errors: FieldErrors;
  /** Properties of the house. */
  readonly properties: readonly PropertyDefinition[];
  readonly isNew: boolean;
  /** The calendar that the entry is in. */
  readonly calendarId: string;
}

type Entered<F> = (props: EntryFieldProps & { field: F; label: string }) => ReactNode;

/** A text of a form with its field. */
type TextField = { [F in keyof FormContent]: FormContent[F] extends string ? F : never }[keyof FormContent];

function textEntered(more: Partial<Parameters<typeof Field>[0]>): Entered<keyof Content> {
  return ({ field, form, set, errors, label }) => (
    <Field
      label={label}
      value={form[field as TextField]}
      onChange={(value) => set({ [field]: value } as Partial<EntryForm>)}
      error={errors[field as TextField]}
      {...more}
    />
  );
}

const LINE = { maxLength: ENTRY_LIMITS.lineLetters };

/** How a field of each shape is entered, unless it has a way of its own. */
const BY_SHAPE: Readonly<Record<Shape, Entered<keyof Content> | null>> = {
  line: textEntered(LINE),
  text: textEntered({
    lines: true,
    help: t('descriptionHelp'),
  }),
  link: textEntered({ type: 'url', maxLength: ENTRY_LIMITS.linkLetters }),
  labels: ({ label, ...props }) => textEntered({})({ ...props, label: t('separatedByCommas', { label }) }),
  people: ({ form, set }) => <PeopleFields value={form.people} onChange={(people) => set({ people })} />,
  attachments: ({ form, set }) => (
    <AttachmentFields value={form.attachments} onChange={(attachments) => set({ attachments })} />
  ),
  image: ({ form, set, errors, calendarId }) => (
    <ImageField
      value={form.image}
      calendarId={calendarId}
      error={errors.image}
      onChange={(image) => set({ image })}
    />
  ),
  properties: ({ form, set, properties }) => (
    <PropertyFields
      definitions={properties}
      value={form.properties}
      onChange={(next) => set({ properties: next })}
    />
  ),
  choice: null,
  moment: null,
  kept: null,
};

const OWN: { readonly [F in keyof Content]?: Entered<F> } = {
  title: (props) => textEntered({ ...LINE, autoFocus: props.isNew })(props),
  status: ({ label, form, set }) => (
    <SelectOne
      label={label}
      value={form.status}
      options={STATUSES.filter((s) => s !== 'done' || form.kind !== 'event').map((s) => ({
        value: s,
        text: capital(statusWord(s, form.kind)),
      }))}
      onChange={(status) => set({ status })}
    />
  ),
  shows: ({ form, set }) => (
    <SelectOne
      label={t('timeCountsAs')}
      value={form.shows}
      options={SHOWS.map((s) => ({ value: s, text: capital(SHOWS_WORDS[s]) }))}
      onChange={(shows) => set({ shows })}
    />
  ),
  hold: ({ label, form, set }) => (
    <div>
      <ChoiceStrip
        label={label}
        value={form.hold}
        options={(['none', 'frost', 'keep-in'] as const).map((h) => ({
          value: h,
          text: capital(HOLD_WORDS[h].word),
        }))}
        onChange={(hold) => set({ hold })}
      />
      <Faded>
        {HOLD_WORDS[form.hold].plain} (<Term word="hold" />)
      </Faded>
    </div>
  ),
};

/** Parts of the editor. */
type Part = 'first' | 'after-times' | 'pair' | 'last';

/**
 * Where each field stands in the editor; fields of one part stand in the order of this table. Kind and planned day
 * stand with the calendar and the times; what was kept of a file is only counted.
 */
const WHERE: Readonly<Record<keyof Content, Part | null>> = {
  title: 'first',
  kind: null,
  planned: null,
  place: 'after-times',
  description: 'after-times',
  labels: 'pair',
  contact: 'pair',
  publicLink: 'pair',
  joinLink: 'pair',
  status: 'pair',
  shows: 'pair',
  properties: 'last',
  people: 'last',
  image: 'last',
  attachments: 'last',
  hold: 'last',
  kept: null,
};

/** The fields of one part of the editor. */
export function EntryFields({ part, ...props }: EntryFieldProps & { part: Part }) {
  const fields = (Object.keys(WHERE) as (keyof Content)[]).filter((field) => WHERE[field] === part);
  return fields.map((field) => {
    const Entry = (OWN[field] ?? BY_SHAPE[ENTRY_FIELDS[field].shape]) as Entered<keyof Content>;
    return <Fragment key={field}>{Entry({ ...props, field, label: capital(fieldWord(field)) })}</Fragment>;
  });
}

/** Whether an entry is an event, a milestone or a due item. The last two take no time unless somebody says so. */
export function KindField({
  form,
  set,
  isNew,
  isDisabled,
}: Pick<EntryFieldProps, 'form' | 'set' | 'isNew'> & { isDisabled: boolean }) {
  return (
    <SelectOne
      label={capital(fieldWord('kind'))}
      value={form.kind}
      options={KINDS.map((k) => ({
        value: k,
        text: [capital(KIND_WORDS[k].word), KIND_WORDS[k].plain].filter(Boolean).join(': '),
      }))}
      onChange={(kind) =>
        set({
          kind,
          shows: kind === 'event' ? form.shows : 'free',
          ...(isNew && kind !== 'event' ? { clock: 'date' } : {}),
        })
      }
      isDisabled={isDisabled}
    />
  );
}
