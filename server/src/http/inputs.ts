import 'reflect-metadata';
import { dayFromText, zoneNamed } from '@zonal/core/zones';
import { Problem } from '@zonal/core/problems';
import { ENTRY_LIMITS, checkedWhen, isImage, type When } from '@zonal/core/entries';
import { Transform, Type, type ClassConstructor } from 'class-transformer';
import {
  IsInt,
  Max,
  Min,
  ValidateBy,
  ValidateNested,
  isISO8601,
  type ValidationOptions,
} from 'class-validator';

function accepted(check: () => void): boolean {
  try {
    check();
    return true;
  } catch (error) {
    if (error instanceof Problem || error instanceof TypeError) return false;
    throw error;
  }
}

function all(...decorators: PropertyDecorator[]): PropertyDecorator {
  return (target, key) => {
    for (const decorate of decorators) decorate(target, key);
  };
}

const INSTANT = /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:?\d\d)$/;

/** An instant: a date and a time of day with a zone (ISO 8601), no week or day alone. */
export function IsInstant(options?: ValidationOptions): PropertyDecorator {
  return ValidateBy(
    {
      name: 'isInstant',
      validator: {
        validate: (value) => INSTANT.test(String(value)) && isISO8601(value, { strict: true }),
        defaultMessage: () => '$property must be a moment such as 2027-03-14T09:30:00Z',
      },
    },
    options,
  );
}

/** A name of the IANA time zone database; it is read in its one spelling. */
export function IsZone(options?: ValidationOptions): PropertyDecorator {
  return all(
    Transform(({ value }: { value: unknown }) =>
      typeof value === 'string' ? (zoneNamed(value) ?? value) : value,
    ),
    ValidateBy(
      {
        name: 'isZone',
        validator: {
          validate: (value) => typeof value === 'string' && zoneNamed(value) !== null,
          defaultMessage: () => '$property must be a time zone such as America/Halifax',
        },
      },
      options,
    ),
  );
}

/** An image that was uploaded, with a text that stands for it. */
export function IsStoredImage(): PropertyDecorator {
  return ValidateBy({
    name: 'isStoredImage',
    validator: {
      validate: isImage,
      defaultMessage: () => '$property must have the name and size of an uploaded image, and a text',
    },
  });
}

/** The number of a version, as it is stored. */
export function IsVersion(): PropertyDecorator {
  return all(IsInt(), Min(0), Max(2_000_000_000));
}

function isObject(value: unknown): boolean {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** One object of a class: an array is none. */
export function Part(type: () => ClassConstructor<object>): PropertyDecorator {
  return all(
    Type(type),
    ValidateNested(),
    ValidateBy({
      name: 'isPart',
      validator: { validate: isObject, defaultMessage: () => '$property must be an object' },
    }),
  );
}

/** A list of objects of a class, so many at most. */
export function Parts(type: () => ClassConstructor<object>, most: number): PropertyDecorator {
  return all(
    Type(type),
    ValidateNested({ each: true }),
    ValidateBy({
      name: 'areParts',
      validator: {
        validate: (value) => Array.isArray(value) && value.length <= most && value.every(isObject),
        defaultMessage: () => `$property must be a list of objects, ${most} at most`,
      },
    }),
  );
}

/** A day written as 2026-05-31. */
export function IsDay(options?: ValidationOptions): PropertyDecorator {
  return ValidateBy(
    {
      name: 'isDay',
      validator: {
        validate: (value) => typeof value === 'string' && accepted(() => void dayFromText(value)),
        defaultMessage: () => '$property must be a day such as 2026-05-31',
      },
    },
    options,
  );
}

/** What a field of a plain record holds: a text of so many letters from a least number on, or whether something is so. */
export type RecordField =
  { readonly text: number; readonly least?: number } | { readonly flag: true; readonly optional?: true };

function isRecord(value: unknown, fields: Readonly<Record<string, RecordField>>): boolean {
  if (!isObject(value)) return false;
  const record = value as Record<string, unknown>;
  if (Object.keys(record).some((key) => !Object.hasOwn(fields, key))) return false;
  return Object.entries(fields).every(([key, field]) => {
    const held = record[key];
    if ('flag' in field)
      return typeof held === 'boolean' || ((held ?? null) === null && field.optional === true);
    return typeof held === 'string' && held.length <= field.text && held.length >= (field.least ?? 0);
  });
}

/**
 * A list of plain records, so many at most. It is looked through by itself: there can be thousands, and a class for each
 * takes a tenth of a millisecond.
 */
export function Records(fields: Readonly<Record<string, RecordField>>, most: number): PropertyDecorator {
  const said = Object.entries(fields)
    .map(([key, field]) => ('flag' in field ? `${key}?` : `${key} (${field.text} letters)`))
    .join(', ');
  return ValidateBy({
    name: 'areRecords',
    validator: {
      validate: (value) =>
        Array.isArray(value) && value.length <= most && value.every((one) => isRecord(one, fields)),
      defaultMessage: () => `$property must be a list of {${said}}, ${most} at most`,
    },
  });
}

/** Letters of one kept property, all its values together. */
const LONGEST_KEPT = 60_000;

function isKept(value: unknown): boolean {
  if (!Array.isArray(value) || value.length < 3) return false;
  const [name, parameters, type] = value as unknown[];
  const word = (w: unknown, pattern: RegExp) => typeof w === 'string' && w.length <= 100 && pattern.test(w);
  return (
    word(name, /^[a-z0-9_.-]+$/i) &&
    isObject(parameters) &&
    Object.entries(parameters as object).every(
      ([key, v]) =>
        word(key, /^[a-z0-9-]+$/i) &&
        [v].flat().every((one) => typeof one === 'string' && one.length <= 2000),
    ) &&
    word(type, /^[a-z0-9-]+$/i) &&
    JSON.stringify(value).length <= LONGEST_KEPT
  );
}

/** Properties of a file as jCal (RFC 7265 section 3.4): name, parameters, type and values. */
export function AreKept(most: number): PropertyDecorator {
  return ValidateBy({
    name: 'areKept',
    validator: {
      validate: (value) => Array.isArray(value) && value.length <= most && value.every(isKept),
      defaultMessage: () => `$property must be a list of properties as jCal, ${most} at most`,
    },
  });
}

const SHAPES = new Map<unknown, readonly string[]>([
  ['date', ['kind', 'date']],
  ['floating', ['kind', 'at']],
  ['zoned', ['kind', 'at', 'zone']],
]);

function isWhen(value: unknown): value is When {
  if (typeof value !== 'object' || value === null) return false;
  const keys = SHAPES.get((value as { kind: unknown }).kind);
  if (!keys || Object.keys(value).length !== keys.length) return false;
  if (!keys.every((k) => typeof (value as Record<string, unknown>)[k] === 'string')) return false;
  return accepted(() => void checkedWhen(value as When));
}

/** A {@link When}: a date, a floating time or a time in a zone. */
export function IsWhen(options?: ValidationOptions): PropertyDecorator {
  return ValidateBy(
    {
      name: 'isWhen',
      validator: {
        // Too many are refused before any of them is looked at.
        validate: (value) =>
          options?.each
            ? Array.isArray(value) && value.length <= ENTRY_LIMITS.dates && value.every(isWhen)
            : isWhen(value),
        defaultMessage: () =>
          (options?.each ? `$property has ${ENTRY_LIMITS.dates} at most, each of which ` : '$property ') +
          'must be {kind: "date", date}, {kind: "floating", at} or {kind: "zoned", at, zone}',
      },
    },
    options?.each ? { ...options, each: false } : options,
  );
}
