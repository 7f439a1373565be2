import type {
  Attachment,
  Content,
  EntryImage,
  Kind,
  Person,
  PropertyValue,
  Shows,
  Status,
  When,
} from '../entries';
import { atLeast, type Glass } from './glass';
import { outwardText, safeUri } from './outwardText';

/** The content of an entry as a reader gets it. A field that the glass keeps back is absent. */
export interface OutwardContent {
  readonly title: string;
  readonly place: string;
  readonly status: Status;
  readonly shows: Shows;
  /** The outward name of its calendar, where the window names its calendars. */
  readonly calendar?: string;
  /** Absent for an event. */
  readonly kind?: Exclude<Kind, 'event'>;
  /** When a milestone was planned for. */
  readonly planned?: When;
  readonly description?: string;
  readonly publicLink?: string;
  readonly labels?: readonly string[];
  readonly attachments?: readonly Attachment[];
  /** Its name goes out too: it is random, and names nothing but the picture. */
  readonly image?: EntryImage;
  readonly properties?: readonly PropertyValue[];
  readonly joinLink?: string;
  readonly people?: readonly Person[];
  readonly contact?: string;
}

export type OutwardField = keyof OutwardContent;
/** The outward fields that come from the entry itself. */
export type EntryField = OutwardField & keyof Content;

/** The fields that go out only where the window lets them, each switched by itself. */
export const SWITCHED_FIELDS = ['planned', 'people', 'contact', 'joinLink'] as const;
export type SwitchedField = (typeof SWITCHED_FIELDS)[number];
export type Switches = Readonly<Record<SwitchedField, boolean>>;

/** What a new window lets out: slip is told, joining links, people and contact are not. */
export const USUAL_SWITCHES: Switches = { joinLink: false, people: false, contact: false, planned: true };

interface FieldRule<F extends EntryField> {
  /** The least clear glass that lets the field through. */
  readonly from: Glass;
  /** Whether the window must let the field out besides. */
  readonly switched: boolean;
  /** How it goes out: what no form shows of it is left away here, so that it makes no difference outside. */
  readonly out: (value: Content[F]) => OutwardContent[F] | null;
}

const same = <T>(value: T) => value;

/**
 * Which field goes through which glass, and how. Frosted lets no field through: it gives merged spans with one word.
 * A field with null, like all else that an entry has (UID, version), never goes out.
 */
const RULES: { readonly [F in keyof Content]: F extends EntryField ? FieldRule<F> : null } = {
  title: { from: 'tinted', switched: false, out: outwardText },
  place: { from: 'tinted', switched: false, out: outwardText },
  status: { from: 'tinted', switched: false, out: same },
  shows: { from: 'tinted', switched: false, out: same },
  kind: { from: 'tinted', switched: false, out: (v) => (v === 'event' ? null : v) },
  planned: { from: 'tinted', switched: true, out: same },
  description: { from: 'clear', switched: false, out: outwardText },
  publicLink: { from: 'clear', switched: false, out: safeUri },
  labels: { from: 'clear', switched: false, out: (v) => v.map(outwardText).filter(Boolean) },
  attachments: {
    from: 'clear',
    switched: false,
    out: (v) =>
      v.flatMap(({ name, href }) => {
        const uri = safeUri(href);
        return uri ? [{ name: outwardText(name), href: uri }] : [];
      }),
  },
  image: {
    from: 'clear',
    switched: false,
    out: (v) => v && { ...v, alt: outwardText(v.alt) },
  },
  properties: {
    from: 'clear',
    switched: false,
    out: (v) => v.map(({ name, value }) => ({ name: outwardText(name), value: outwardText(value) })),
  },
  joinLink: { from: 'clear', switched: true, out: safeUri },
  people: {
    from: 'clear',
    switched: true,
    // Whether somebody is a group shows in no form.
    out: (v) =>
      v
        .map(({ name, address }) => ({ name: outwardText(name), address: outwardText(address) }))
        .filter(({ name, address }) => name || address),
  },
  contact: { from: 'clear', switched: true, out: outwardText },
  hold: null,
  kept: null,
};

export const FIELD_RULES = Object.fromEntries(
  Object.entries(RULES).filter(([, rule]) => rule),
) as unknown as { readonly [F in EntryField]: FieldRule<F> };

const FIELDS = Object.keys(FIELD_RULES) as EntryField[];

/** Fields that go with every visible entry: without them a cancelled or free one would look like any other. */
const ALWAYS: readonly EntryField[] = ['status', 'shows', 'kind'];

/** The fields that are picked by hand where the glass is cut. Time always goes. */
export const CUT_FIELDS = FIELDS.filter((f) => !ALWAYS.includes(f)) as readonly CutField[];
export type CutField = Exclude<EntryField, 'status' | 'shows' | 'kind'>;

/** Returns the glass that a cut counts as where it is compared: the least one that lets all of its fields through. */
export function glassOfCut(fields: readonly CutField[]): Glass {
  return fields.some((f) => FIELD_RULES[f].from === 'clear') ? 'clear' : 'tinted';
}

/** Returns the fields that a cut lets through where the glass in force is `glass`, in a fixed order. */
export function fieldsThroughCut(glass: Glass, picked: readonly CutField[]): EntryField[] {
  return FIELDS.filter(
    (field) =>
      atLeast(glass, FIELD_RULES[field].from) &&
      (ALWAYS.includes(field) || picked.includes(field as CutField)),
  );
}

/** Returns the fields that a glass lets through, in a fixed order. */
export function fieldsThrough(glass: Glass, switches: Switches): EntryField[] {
  return FIELDS.filter((field) => {
    const rule = FIELD_RULES[field];
    return atLeast(glass, rule.from) && (!rule.switched || switches[field as SwitchedField]);
  });
}

/** Returns the content with only the given fields, always in the same order of keys; no title or place is an empty one. */
export function contentThrough(content: Content, fields: readonly EntryField[]): OutwardContent {
  const out: Record<string, unknown> = { title: '', place: '' };
  for (const field of fields) {
    const value = content[field];
    if (isEmpty(value)) continue;
    const told = (FIELD_RULES[field].out as (v: unknown) => unknown)(value);
    if (!isEmpty(told)) out[field] = told;
  }
  return out as unknown as OutwardContent;
}

function isEmpty(value: unknown): boolean {
  return value === null || value === '' || (Array.isArray(value) && value.length === 0);
}
