import {
  CONTENT_FIELDS,
  ENTRY_FIELDS,
  type Content,
  type KeptProperty,
  type Shape,
  type ShapeValues,
  type When,
} from '@zonal/core/entries';

/** Fields that a form holds as they are, or as text; moments are split, and what was kept of a file is not shown. */
export type FormField = {
  [F in keyof Content]: Content[F] extends When | null | readonly KeptProperty[] ? never : F;
}[keyof Content];

/** Content as a form holds it: lists of words are one text. */
export type FormContent = {
  [F in FormField]: Content[F] extends readonly string[] ? string : Content[F];
};

interface Held<T> {
  readonly form: (value: T) => unknown;
  /** What stands in the form as it is meant: without empty lines and blanks around it. */
  readonly said: (held: never) => T;
}

const same = <T>(value: T) => value;
const line: Held<string> = { form: same, said: (v: string) => v.trim() };

const HELD: { readonly [S in Shape]: Held<ShapeValues[S]> | null } = {
  line,
  link: line,
  text: { form: same, said: same },
  choice: { form: same, said: same },
  labels: {
    form: (v) => v.join(', '),
    said: (v: string) =>
      v
        .split(',')
        .map((l) => l.trim())
        .filter(Boolean),
  },
  people: {
    form: same,
    said: (v: Content['people']) => v.filter((p) => p.name.trim() || p.address.trim()),
  },
  attachments: { form: same, said: (v: Content['attachments']) => v.filter((a) => a.href.trim()) },
  image: { form: same, said: (v: Content['image']) => v && { ...v, alt: v.alt.trim() } },
  properties: { form: same, said: (v: Content['properties']) => v.filter((p) => p.value.trim()) },
  moment: null,
  kept: null,
};

const FORM_FIELDS = CONTENT_FIELDS.filter((field) => HELD[ENTRY_FIELDS[field].shape]) as FormField[];

function converted(
  way: keyof Held<unknown>,
  from: Readonly<Record<FormField, unknown>>,
): Record<FormField, unknown> {
  const value = (field: FormField) =>
    (HELD[ENTRY_FIELDS[field].shape]![way] as (v: unknown) => unknown)(from[field]);
  return Object.fromEntries(FORM_FIELDS.map((field) => [field, value(field)])) as Record<FormField, unknown>;
}

/** Returns content as a form holds it. */
export function formContent(content: Content): FormContent {
  return converted('form', content) as FormContent;
}

/** Returns the content that a form says. */
export function saidContent(form: FormContent): Pick<Content, FormField> {
  return converted('said', form) as Pick<Content, FormField>;
}
