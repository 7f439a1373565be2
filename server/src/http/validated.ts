import 'reflect-metadata';
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
  const instance = plainToInstance(type, body);
  const errors = flatten(validateSync(instance, { whitelist: true, forbidNonWhitelisted: true }), '');
  if (errors.length) {
    throw new Problem('input-invalid', {
      fields: [...new Set(errors.map((e) => e.field))].join(', '),
      errors,
    });
  }
  return instance;
}

function flatten(errors: readonly ValidationError[], path: string): FieldError[] {
  return errors.flatMap((error) => {
    const field = path ? `${path}.${error.property}` : error.property;
    const own = Object.values(error.constraints ?? {}).map((say) => ({ field, say }));
    return [...own, ...flatten(error.children ?? [], field)];
  });
}
