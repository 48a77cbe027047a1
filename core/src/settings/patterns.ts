import { message, type Message } from '../message/message.js';
import type { SettingField, SettingJob, SettingState } from './settings-sheet.js';

/** A set of fields to start from, worded by what they do. */
export interface SettingPattern {
  readonly id: string;
  readonly words: Message;
  readonly fields: readonly (Omit<SettingField, 'name'> & { readonly name: Message })[];
}

type Row = readonly [
  name: Message,
  ...places: readonly (readonly [surface: string, job: SettingJob, state?: SettingState])[],
];

function pattern(id: string, words: Message, rows: readonly Row[]): SettingPattern {
  const fields = rows.map(([name, ...places], i) => ({
    id: `f${i + 1}`,
    name,
    notation: 'hex' as const,
    presets: [],
    present: '',
    places: places.map(([surface, job, state = 'rest']) => ({ surface, job, state, selector: '', property: '' })),
  }));
  return { id, words, fields };
}

/** What makers commonly let one set, from the fewest fields to the most (common practice). */
export const SETTING_PATTERNS: readonly SettingPattern[] = [
  pattern('two', message('settings.two-fill-what-stands'), [
    [message('settings.colour'), ['button', 'action']],
    [message('settings.text-colour'), ['button', 'label']],
  ]),
  pattern('three', message('settings.three-ground-its-text'), [
    [message('settings.background'), ['panel', 'ground']],
    [message('settings.text'), ['panel', 'text']],
    [message('settings.main-colour'), ['panel', 'link'], ['button', 'action']],
  ]),
  pattern('four', message('settings.four-form-with-its'), [
    [message('settings.background'), ['form', 'ground']],
    [message('settings.text'), ['form', 'text'], ['form', 'heading']],
    [message('settings.button'), ['button', 'action']],
    [message('settings.button-text'), ['button', 'label']],
  ]),
  pattern('seven', message('settings.seven-bar-with-links'), [
    [message('settings.bar'), ['link', 'ground'], ['bar', 'ground']],
    [message('settings.link'), ['link', 'link']],
    [message('settings.link-hovered'), ['link', 'link', 'hover']],
    [message('settings.fill-hovered'), ['link', 'ground', 'hover']],
    [message('settings.current-page'), ['link', 'link', 'current']],
    [message('settings.fill-current-page'), ['link', 'ground', 'current']],
    [message('settings.line-below'), ['bar', 'line']],
  ]),
];
