import { colorOfSetting } from './notation.js';
import { hexOf } from '../color/read-notation.js';
import { serializeColor } from '../values/serialize-color.js';
import { wholenessProblem } from '../syntax/whole-text.js';
import { selectorProblem } from '../selectors/selector-problem.js';
import {
  isLengthJob,
  type SettingField,
  type SettingJob,
  type SettingPlace,
  type SettingsSheet,
  type SettingState,
} from './settings-sheet.js';

/** Properties that paint a job. */
const PROPERTIES: Readonly<Record<SettingJob, readonly string[]>> = {
  ground: ['background'],
  action: ['background'],
  field: ['background'],
  text: ['color'],
  heading: ['color'],
  link: ['color'],
  label: ['color'],
  entry: ['color'],
  placeholder: ['color'],
  icon: ['color', 'fill'],
  line: ['border-color'],
  frame: ['border-color'],
  ring: ['outline-color'],
  // Where it falls and how soft it is nobody says, so that a colour alone shows nothing.
  shadow: [],
  corner: ['border-radius'],
  'edge-width': ['border-width'],
};

const PSEUDO_CLASSES: Readonly<Record<SettingState, string>> = {
  rest: '',
  visited: ':visited',
  hover: ':hover',
  focus: ':focus-visible',
  active: ':active',
  current: '[aria-current]',
  checked: ':checked',
  disabled: ':disabled',
};

/**
 * CSS that shows values of the fields in the part's captured document, for the preview alone: the maker's own code is not there.
 * Rules for rest come first; they outrank whatever the document brings.
 * @param valueOf what is typed into a field; empty where it stays as captured.
 */
export function settingsCss(sheet: Pick<SettingsSheet, 'fields'>, valueOf: (field: SettingField) => string): string {
  const rules = sheet.fields.flatMap((field) => {
    const value = valueOf(field);
    const color = colorOfSetting(field, value);
    const css = color ? serializeColor(color) : field.notation === 'px' && value !== '' ? pixels(value) : null;
    if (css === null) return [];
    return field.places.flatMap((place) => {
      const rule = ruleOf(place, css, color === null);
      return rule === null ? [] : [{ rule, isRest: place.state === 'rest' }];
    });
  });
  return [...rules.filter(({ isRest }) => isRest), ...rules.filter(({ isRest }) => !isRest)]
    .map(({ rule }) => rule)
    .join('\n');
}

/** Places that cannot be shown, since nobody said where they are in the captured document, or not so that a browser reads it. */
export function unshown({
  fields,
}: Pick<SettingsSheet, 'fields'>): readonly { readonly field: SettingField; readonly place: SettingPlace }[] {
  return fields.flatMap((field) =>
    field.places
      .filter((place) => !isShown(place.selector) || propertiesOf(place).length === 0)
      .map((place) => ({ field, place })),
  );
}

function propertiesOf({ property, job }: SettingPlace): readonly string[] {
  if (property === '') return PROPERTIES[job];
  return SETTING_PROPERTY.test(property) ? [property] : [];
}

/** Names of properties that a place can give, custom ones too. */
export const SETTING_PROPERTY = /^(?:-?[a-z][a-z-]{1,39}|--[\w-]{1,80})$/;

function ruleOf(place: SettingPlace, css: string, isLength: boolean): string | null {
  const { selector, job, state } = place;
  const properties = propertiesOf(place);
  if (!isShown(selector) || properties.length === 0 || isLength !== isLengthJob(job)) return null;
  // A pseudo-element cannot stand in :is().
  const target = selector.includes('::')
    ? selector
    : `:is(${selector})${PSEUDO_CLASSES[state]}${job === 'placeholder' ? '::placeholder' : ''}`;
  return `${target} { ${properties.map((property) => `${property}: ${css} !important;`).join(' ')} }`;
}

function isShown(selector: string): boolean {
  return selector.trim() !== '' && wholenessProblem(selector) === null && selectorProblem(selector) === null;
}

function pixels(text: string): string {
  return `${text.trim().replace(/ ?px$/i, '')}px`;
}

/** Hex of what a field holds; `null` for a length and for nothing. */
export function hexOfSetting(field: SettingField, text: string): string | null {
  const color = colorOfSetting(field, text);
  return color && hexOf(color);
}
