import 'reflect-metadata';
import { dayFromText, requireZone } from '@zonal/core/zones';
import { Problem } from '@zonal/core/problems';
import { checkedWhen, type When } from '@zonal/core/entries';
import { ValidateBy, type ValidationOptions } from 'class-validator';

function accepted(check: () => void): boolean {
  try {
    check();
    return true;
  } catch (error) {
    if (error instanceof Problem || error instanceof TypeError) return false;
    throw error;
  }
}

/** A name of the IANA time zone database. */
export function IsZone(options?: ValidationOptions): PropertyDecorator {
  return ValidateBy(
    {
      name: 'isZone',
      validator: {
        validate: (value) => typeof value === 'string' && accepted(() => requireZone(value)),
        defaultMessage: () => '$property must be a time zone such as America/Halifax',
      },
    },
    options,
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
        validate: (value) => (options?.each ? Array.isArray(value) && value.every(isWhen) : isWhen(value)),
        defaultMessage: () =>
          '$property must be {kind: "date", date}, {kind: "floating", at} or {kind: "zoned", at, zone}',
      },
    },
    options?.each ? { ...options, each: false } : options,
  );
}
