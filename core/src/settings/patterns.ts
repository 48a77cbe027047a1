import type { SettingField, SettingJob, SettingState } from './settings-sheet.js';

/** A set of fields to start from, worded by what they do. */
export interface SettingPattern {
  readonly id: string;
  readonly words: string;
  readonly fields: readonly SettingField[];
}

type Row = readonly [
  name: string,
  ...places: readonly (readonly [surface: string, job: SettingJob, state?: SettingState])[],
];

function pattern(id: string, words: string, rows: readonly Row[]): SettingPattern {
  const fields = rows.map(([name, ...places], i): SettingField => ({
    id: `f${i + 1}`,
    name,
    notation: 'hex',
    presets: [],
    present: '',
    places: places.map(([surface, job, state = 'rest']) => ({ surface, job, state, selector: '', property: '' })),
  }));
  return { id, words, fields };
}

/** What makers commonly let one set, from the fewest fields to the most (common practice). */
export const SETTING_PATTERNS: readonly SettingPattern[] = [
  pattern('two', 'Two: a fill, and what stands on it', [
    ['Colour', ['button', 'action']],
    ['Text colour', ['button', 'label']],
  ]),
  pattern('three', 'Three: a ground, its text, and one colour for links and buttons', [
    ['Background', ['panel', 'ground']],
    ['Text', ['panel', 'text']],
    ['Main colour', ['panel', 'link'], ['button', 'action']],
  ]),
  pattern('four', 'Four: a form with its ground, text, button and the text on that', [
    ['Background', ['form', 'ground']],
    ['Text', ['form', 'text'], ['form', 'heading']],
    ['Button', ['button', 'action']],
    ['Button text', ['button', 'label']],
  ]),
  pattern('seven', 'Seven: a bar with links at rest, hovered and for the current page, each with its fill', [
    ['Bar', ['link', 'ground'], ['bar', 'ground']],
    ['Link', ['link', 'link']],
    ['Link hovered', ['link', 'link', 'hover']],
    ['Fill hovered', ['link', 'ground', 'hover']],
    ['Current page', ['link', 'link', 'current']],
    ['Fill of the current page', ['link', 'ground', 'current']],
    ['Line below', ['bar', 'line']],
  ]),
];
