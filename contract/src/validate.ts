import { plainToInstance } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import type { FieldError } from './problem-document.js';

/** What validation made of a body: the typed value, or what is wrong with which field. */
export type Validated<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly errors: readonly FieldError[] };

/** Validates a plain body against a request class; fields it does not know are errors. */
export function validateBody<T extends object>(type: new () => T, body: unknown): Validated<T> {
  if (typeof body !== 'object' || body === null || Array.isArray(body)) return { ok: false, errors: [{ field: '', reason: 'The body must be a JSON object' }] };
  const value = plainToInstance(type, body);
  const errors = validateSync(value, { whitelist: true, forbidNonWhitelisted: true, stopAtFirstError: true });
  return errors.length === 0 ? { ok: true, value } : { ok: false, errors: flatten(errors, '') };
}

function flatten(errors: readonly ValidationError[], prefix: string): FieldError[] {
  return errors.flatMap((error) => {
    const field = prefix === '' ? error.property : `${prefix}.${error.property}`;
    const own = Object.entries(error.constraints ?? {}).map(([name, reason]) => ({ field, reason: name === 'whitelistValidation' ? 'is not known' : reason }));
    return [...own, ...flatten(error.children ?? [], field)];
  });
}
