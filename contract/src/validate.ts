import { plainToInstance } from 'class-transformer';
import { getMetadataStorage, validateSync, type ValidationError } from 'class-validator';
import type { FieldError } from './problem-document.js';

/** What validation made of a body: the typed value, or what is wrong with which field. */
export type Validated<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly errors: readonly FieldError[] };

/** Validates a plain body against a request class; fields it does not know are errors. */
export function validateBody<T extends object>(type: new () => T, body: unknown): Validated<T> {
  if (typeof body !== 'object' || body === null || Array.isArray(body))
    return { ok: false, errors: [{ field: '', reason: 'The body must be a JSON object' }] };
  const misplaced = nestingError(body);
  if (misplaced) return { ok: false, errors: [misplaced] };
  const value = plainToInstance(type, body);
  const shapes = shapeErrors(value, '');
  if (shapes.length > 0) return { ok: false, errors: shapes };
  const errors = validateSync(value, { whitelist: true, forbidNonWhitelisted: true, stopAtFirstError: true });
  return errors.length === 0 ? { ok: true, value } : { ok: false, errors: flatten(errors, '') };
}

/** Names every object has of its own accord, which the reader of classes passes over. */
const INHERITED: ReadonlySet<string> = new Set(['__proto__', 'constructor', 'prototype']);
/** Levels that no request reaches. */
const MOST_LEVELS = 12;

/** What no request holds, found without recursion: lists right inside lists, nesting without end, numbers past the whole ones, names of the language. */
function nestingError(body: object): FieldError | null {
  const waiting: {
    readonly value: unknown;
    readonly field: string;
    readonly level: number;
    readonly isInList: boolean;
  }[] = [{ value: body, field: '', level: 0, isInList: false }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { value, field, level, isInList } = next;
    if (typeof value === 'number' && Math.abs(value) > Number.MAX_SAFE_INTEGER)
      return { field, reason: 'is too large a number' };
    if (typeof value !== 'object' || value === null) continue;
    if (level > MOST_LEVELS) return { field, reason: 'is nested too deeply' };
    const isList = Array.isArray(value);
    if (isList && isInList) return { field, reason: 'must not be a list' };
    for (const [name, inner] of Object.entries(value)) {
      if (INHERITED.has(name)) return { field: field === '' ? name : `${field}.${name}`, reason: 'is not known' };
      waiting.push({
        value: inner,
        field: field === '' ? name : `${field}.${name}`,
        level: level + 1,
        isInList: isList,
      });
    }
  }
  return null;
}

/** Fields that hold a list, or no object, where an object of their own is asked for. */
function shapeErrors(value: object, prefix: string): FieldError[] {
  const nested = getMetadataStorage()
    .getTargetValidationMetadatas(value.constructor, '', false, false)
    .filter(({ type }) => type === 'nestedValidation');
  return nested.flatMap(({ propertyName, each }): FieldError[] => {
    const field = prefix === '' ? propertyName : `${prefix}.${propertyName}`;
    const held = (value as Record<string, unknown>)[propertyName];
    if (held === undefined || held === null) return [];
    if (!each) return objectErrors(held, field);
    return Array.isArray(held)
      ? held.flatMap((inner: unknown, i) => objectErrors(inner, `${field}.${i}`))
      : [{ field, reason: 'must be a list' }];
  });
}

function objectErrors(held: unknown, field: string): FieldError[] {
  const isObject = typeof held === 'object' && held !== null && !Array.isArray(held);
  return isObject ? shapeErrors(held, field) : [{ field, reason: 'must be an object' }];
}

function flatten(errors: readonly ValidationError[], prefix: string): FieldError[] {
  return errors.flatMap((error) => {
    const field = prefix === '' ? error.property : `${prefix}.${error.property}`;
    const own = Object.entries(error.constraints ?? {}).map(([name, reason]) => ({
      field,
      reason: name === 'whitelistValidation' ? 'is not known' : reason,
    }));
    return [...own, ...flatten(error.children ?? [], field)];
  });
}
