import { errorText } from '@upper-veneer/words';
import { isMessage, message, type Message } from '../message/message.js';
import { colorOfCss } from '../veneer/palette.js';
import { LONGEST_SETTING, notationOf, settingProblem } from './notation.js';
import { SETTING_PROPERTY } from './settings-css.js';
import {
  MOST_FIELDS,
  MOST_PLACES,
  SETTING_JOBS,
  SETTING_NOTATIONS,
  SETTING_STATES,
  type FixedPlace,
  type SettingField,
  type SettingNotation,
  type SettingPlace,
  type SettingPreset,
  type SettingsSheet,
} from './settings-sheet.js';

/** What a pasted list or a file gave: fields without a place in a sheet yet, and what could not be read, with where. */
export interface SettingsReading {
  readonly fields: readonly Omit<SettingField, 'id'>[];
  readonly fixed: readonly FixedPlace[];
  /** Empty where none is named. */
  readonly address: string;
  readonly problems: readonly { readonly where: Message | string; readonly reason: Message }[];
}

/** Longest text that is read, UTF-16 units. */
const LONGEST = 200_000;
const LONGEST_NAME = 80;

/**
 * Reads a maker's fields: a list of `name: value` or `name<tab>value`, one a line, or JSON of the form described in
 * docs/settings-file.md. What cannot be read is told by line or by path, and costs nothing else.
 */
export function readSettings(text: string): SettingsReading {
  const bare = text.replace(/^\ufeff/, '').trim();
  if (bare.length > LONGEST) return failed(message('file.text'), message('file.longer-than', { bound: LONGEST }));
  return /^[[{]/.test(bare) ? readJson(bare) : readList(bare);
}

function failed(where: Message | string, reason: Message): SettingsReading {
  return { fields: [], fixed: [], address: '', problems: [{ where, reason }] };
}

function readList(text: string): SettingsReading {
  const fields: Omit<SettingField, 'id'>[] = [];
  const problems: SettingsReading['problems'][number][] = [];
  text.split('\n').forEach((line, i) => {
    const where = message('file.line', { line: i + 1 });
    if (line.trim() === '') return;
    const tab = line.indexOf('\t');
    const colon = line.indexOf(':');
    const at = tab > 0 ? tab : colon > 0 ? colon : line.indexOf('=');
    if (at < 1) {
      problems.push({ where, reason: message('settings.has-no-name-value') });
      return;
    }
    const [name, value] = [line.slice(0, at).trim(), line.slice(at + 1).trim()];
    const problem = add(fields, {
      name,
      notation: notationOf(value) ?? 'hex',
      presets: [],
      present: value,
      places: [],
    });
    if (problem !== null) problems.push({ where, reason: problem });
  });
  return { fields, fixed: [], address: '', problems };
}

type Json = Readonly<Record<string, unknown>>;

function isObject(value: unknown): value is Json {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function readJson(text: string): SettingsReading {
  let root: unknown;
  try {
    root = JSON.parse(text);
  } catch (error) {
    return failed(message('file.file'), message('settings.no-json', { error: errorText(error) }));
  }
  const list = isObject(root) ? root['settings'] : root;
  if (isObject(root) && list === undefined)
    return readList(
      Object.entries(root)
        .map(
          ([name, value]) =>
            `${name.replaceAll(/[\t\n]/g, ' ')}\t${typeof value === 'string' ? value.replaceAll('\n', ' ') : String(value)}`,
        )
        .join('\n'),
    );
  if (!Array.isArray(list)) return failed('settings', message('settings.no-list'));
  const fields: Omit<SettingField, 'id'>[] = [];
  const problems: SettingsReading['problems'][number][] = [];
  list.forEach((entry: unknown, i) => {
    const where = `settings[${i}]`;
    const read = isObject(entry) ? readField(entry) : message('settings.no-object');
    const problem = isMessage(read) ? read : add(fields, read);
    if (problem !== null) problems.push({ where, reason: problem });
  });
  const fixed: FixedPlace[] = [];
  const listed = isObject(root) && Array.isArray(root['fixed']) ? (root['fixed'] as unknown[]) : [];
  listed.slice(0, MOST_FIELDS).forEach((entry, i) => {
    const place = isObject(entry) ? readPlace(entry) : message('settings.no-object');
    const css = isObject(entry) && typeof entry['color'] === 'string' ? entry['color'] : '';
    if (isMessage(place)) problems.push({ where: `fixed[${i}]`, reason: place });
    else if (css !== '' && !colorOfCss(css))
      problems.push({ where: `fixed[${i}].color`, reason: message('settings.no-colour') });
    else fixed.push({ ...place, css });
  });
  const address = isObject(root) && typeof root['address'] === 'string' ? root['address'] : '';
  const isAddress = address === '' || addressProblem(address) === null;
  if (!isAddress) problems.push({ where: 'address', reason: message('settings.no-http-or-https') });
  return { fields, fixed, address: isAddress ? address : '', problems };
}

/** Why a text is no address that values can be sent to; `null` when it is one. */
export function addressProblem(text: string): Message | null {
  return text.length <= 2000 && /^https?:\/\/[^\s"'<>]+$/i.test(text) ? null : message('settings.no-http-or-https');
}

/** @returns the field, or why it is none. */
function readField(entry: Json): Omit<SettingField, 'id'> | Message {
  const { name, value = '', notation, presets = [], affects = [] } = entry;
  if (typeof name !== 'string') return message('settings.has-no-name');
  if (typeof value !== 'string' && typeof value !== 'number') return message('settings.has-value-neither-text');
  if (notation !== undefined && !isOneOf(SETTING_NOTATIONS, notation))
    return message('settings.wants-notation-none', { known: SETTING_NOTATIONS });
  if (!Array.isArray(presets) || !Array.isArray(affects)) return message('settings.has-presets-or-places');
  const read: SettingPreset[] = [];
  for (const preset of presets as unknown[]) {
    const named = isObject(preset) ? preset : {};
    if (typeof named['name'] !== 'string' || typeof named['color'] !== 'string' || !colorOfCss(named['color']))
      return message('settings.has-preset-without-name');
    read.push({ name: named['name'].slice(0, LONGEST_NAME), css: named['color'] });
  }
  const places: SettingPlace[] = [];
  for (const one of affects as unknown[]) {
    const place = isObject(one) ? readPlace(one) : message('settings.no-object');
    if (isMessage(place)) return message('settings.has-place', { place });
    places.push(place);
  }
  const present = String(value).trim();
  const own: SettingNotation = notation ?? (read.length > 0 ? 'preset' : (notationOf(present) ?? 'hex'));
  return { name, notation: own, presets: read, present, places: places.slice(0, MOST_PLACES) };
}

/** @returns the place, or why it is none. */
function readPlace({ surface, job, state = 'rest', selector = '', property = '' }: Json): SettingPlace | Message {
  if (typeof surface !== 'string' || surface.trim() === '' || surface.length > LONGEST_NAME)
    return message('settings.names-no-surface');
  if (!isOneOf(SETTING_JOBS, job)) return message('settings.has-job-none', { known: SETTING_JOBS });
  if (!isOneOf(SETTING_STATES, state)) return message('settings.has-state-none', { known: SETTING_STATES });
  if (typeof selector !== 'string' || selector.length > 400) return message('settings.has-selector-no-text');
  if (typeof property !== 'string' || (property !== '' && !SETTING_PROPERTY.test(property)))
    return message('settings.has-no-property');
  return { surface: surface.trim(), job, state, selector, property };
}

function isOneOf<T extends string>(list: readonly T[], value: unknown): value is T {
  return (list as readonly unknown[]).includes(value);
}

/** Adds a field. @returns why it cannot be; `null` when it was. */
function add(fields: Omit<SettingField, 'id'>[], field: Omit<SettingField, 'id'>): Message | null {
  if (fields.length >= MOST_FIELDS) return message('settings.beyond-fields-sheet-holds', { bound: MOST_FIELDS });
  if (field.name === '' || field.name.length > LONGEST_NAME)
    return message('settings.has-name-none-or', { bound: LONGEST_NAME });
  if (fields.some(({ name }) => name.toLowerCase() === field.name.toLowerCase()))
    return message('settings.names-once-more', { name: field.name });
  if (field.present.length > LONGEST_SETTING)
    return message('settings.has-value-more-than', { bound: LONGEST_SETTING });
  const problem = field.present === '' ? null : settingProblem(field, field.present);
  if (problem !== null) return message('css.quoted-problem', { shown: field.present.slice(0, 40), problem });
  fields.push(field);
  return null;
}

/** A sheet with what was read: fields of the same name keep what is settled of them, and their places where none were read; others follow. */
export function withSettingsRead(
  sheet: SettingsSheet,
  { fields, fixed, address }: Omit<SettingsReading, 'problems'>,
): SettingsSheet {
  const taken = new Set(sheet.fields.map(({ id }) => id));
  const read = new Map(fields.map((field) => [field.name.toLowerCase(), field]));
  const kept = sheet.fields.map((own) => {
    const field = read.get(own.name.toLowerCase());
    read.delete(own.name.toLowerCase());
    if (!field) return own;
    const places = field.places.length > 0 ? field.places : own.places;
    return { ...own, ...field, places, presets: field.presets.length > 0 ? field.presets : own.presets };
  });
  let number = 0;
  const added = [...read.values()].map((field): SettingField => {
    do number += 1;
    while (taken.has(`f${number}`));
    return { id: `f${number}`, ...field };
  });
  return {
    ...sheet,
    fields: [...kept, ...added].slice(0, MOST_FIELDS),
    fixed: fixed.length > 0 ? fixed : sheet.fixed,
    address: address === '' ? sheet.address : address,
  };
}
