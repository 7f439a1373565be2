import 'reflect-metadata';
import { ENTRY_LIMITS } from '@zonal/core/entries';
import { Problem } from '@zonal/core/problems';
import { plainToInstance, type ClassConstructor } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';

/** One field that was not accepted, by its path, and why. */
export interface FieldError {
  readonly field: string;
  readonly say: string;
}

/** Returns the body as an instance of its class. Throws `input-invalid` with every field that is not accepted. */
export function validated<T extends object>(type: ClassConstructor<T>, body: unknown): T {
  if (typeof body !== 'object' || body === null || Array.isArray(body)) {
    throw new Problem('body-unreadable', { expected: 'a JSON object' });
  }
  refuse(unstorable(body));
  const instance = plainToInstance(type, body);
  refuse(flatten(validateSync(instance, { whitelist: true, forbidNonWhitelisted: true }), ''));
  return instance;
}

function refuse(errors: readonly FieldError[]): void {
  if (!errors.length) return;
  const fields = [...new Set(errors.map((e) => e.field))];
  const named = fields.length > MOST_NAMED ? [...fields.slice(0, MOST_NAMED), '…'] : fields;
  throw new Problem('input-invalid', { fields: named.join(', '), errors: errors.slice(0, MOST_NAMED) });
}

const MOST_NAMED = 50;
/** Nothing that is asked for is nested deeper. */
const DEEPEST = 20;
const MOST_VALUES = 400_000;
/** No list that is asked for is longer. */
const MOST_LISTED = ENTRY_LIMITS.dates;
/** A NUL, or one half of a character. */
const UNSTORABLE = /\u0000|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;
const RESERVED = new Set(['__proto__', 'constructor', 'prototype']);

/** Returns what no field at all can hold, wherever it stands: too deep, too much, texts that no store takes. */
function unstorable(body: object): FieldError[] {
  const errors: FieldError[] = [];
  let values = 0;
  const look = (value: unknown, field: string, depth: number): boolean => {
    if (++values > MOST_VALUES) return fail(field, 'has too many values');
    if (typeof value === 'string')
      return !UNSTORABLE.test(value) || fail(field, 'holds a NUL or half a character; take it out');
    if (typeof value !== 'object' || value === null) return true;
    if (depth > DEEPEST) return fail(field, `is nested more than ${DEEPEST} deep`);
    if (Array.isArray(value) && value.length > MOST_LISTED)
      return fail(field, `has ${value.length} values; ${MOST_LISTED} are allowed`);
    for (const [key, inner] of Object.entries(value)) {
      const path = field ? `${field}.${key}` : key;
      if (RESERVED.has(key) || UNSTORABLE.test(key)) return fail(path.slice(0, 200), 'is no name of a field');
      if (!look(inner, path, depth + 1)) return false;
    }
    return true;
  };
  const fail = (field: string, say: string): false => {
    errors.push({ field, say: `${field} ${say}` });
    return false;
  };
  look(body, '', 0);
  return errors;
}

function flatten(errors: readonly ValidationError[], path: string): FieldError[] {
  return errors.flatMap((error) => {
    const field = path ? `${path}.${error.property}` : error.property;
    const own = Object.values(error.constraints ?? {}).map((say) => ({ field, say }));
    return [...own, ...flatten(error.children ?? [], field)];
  });
}
