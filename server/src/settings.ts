import type { FieldError, SettingsSheetBody } from '@upper-veneer/contract';
import {
  addressProblem,
  colorOfCss,
  selectorProblem,
  settingProblem,
  type Becomes,
  type SettingPlace,
} from '@upper-veneer/core';
import { spoken } from '@upper-veneer/words';
import type { SheetRow } from './db/settings-sheets.js';

/** A sheet as it is stored. */
export function sheetRow(body: SettingsSheetBody): SheetRow {
  const place = ({ surface, job, state, selector, property }: SettingPlace): SettingPlace => ({
    surface,
    job,
    state,
    selector,
    property,
  });
  return {
    partId: body.partId,
    fields: body.fields.map(({ id, name, notation, presets, present, places }) => ({
      id,
      name,
      notation,
      presets: presets.map((preset) => ({ name: preset.name, css: preset.css })),
      present,
      places: places.map(place),
    })),
    fixed: body.fixed.map((own) => ({ ...place(own), css: own.css })),
    document: body.document,
    address: body.address,
    strategy: body.strategy,
    ...settledOf(body),
  };
}

/** What is settled, as it is stored. */
export function settledOf({
  settled,
  equal,
}: Pick<SettingsSheetBody, 'settled' | 'equal'>): Pick<SheetRow, 'settled' | 'equal'> {
  return {
    settled: Object.fromEntries(
      settled.map(({ field, value }): [string, Becomes] => [
        field,
        value ? { kind: 'value', value } : { kind: 'leave' },
      ]),
    ),
    equal: equal.map(({ fields }) => [...fields]),
  };
}

/** A stored sheet as it goes over the wire. */
export function sheetBody({ settled, equal, ...sheet }: SheetRow): SettingsSheetBody {
  return {
    ...sheet,
    settled: Object.entries(settled).map(([field, becomes]) =>
      becomes.kind === 'value' ? { field, value: becomes.value } : { field },
    ),
    equal: equal.map((fields) => ({ fields })),
  };
}

/** What class rules cannot see of a sheet: fields told apart, values in their notation, selectors that parse. */
export function checkSheet({ fields, fixed, address, settled, equal }: SettingsSheetBody): FieldError[] {
  const errors: FieldError[] = [];
  const add = (field: string, reason: string | null): void => {
    if (reason !== null) errors.push({ field: `sheet.${field}`, reason });
  };
  const ids = new Set<string>();
  const names = new Set<string>();
  fields.forEach((field, i) => {
    add(`fields.${i}.id`, ids.has(field.id) ? `"${field.id}" is another field's` : null);
    add(
      `fields.${i}.name`,
      names.has(field.name.toLowerCase()) ? `"${field.name}" is the name of another field` : null,
    );
    ids.add(field.id);
    names.add(field.name.toLowerCase());
    if (field.present !== '') {
      const problem = spoken(settingProblem(field, field.present));
      add(`fields.${i}.present`, problem && `${field.name}: "${field.present.slice(0, 40)}" ${problem}`);
    }
    field.presets.forEach(({ name, css }, k) =>
      add(`fields.${i}.presets.${k}`, colorOfCss(css) ? null : `${name}: "${css.slice(0, 40)}" is no colour`),
    );
    field.places.forEach(({ selector }, k) => {
      if (selector !== '') add(`fields.${i}.places.${k}.selector`, spoken(selectorProblem(selector)));
    });
  });
  fixed.forEach(({ selector, css }, i) => {
    if (selector !== '') add(`fixed.${i}.selector`, spoken(selectorProblem(selector)));
    if (css !== '' && !colorOfCss(css)) add(`fixed.${i}.css`, `"${css.slice(0, 40)}" is no colour`);
  });
  if (address !== '') add('address', spoken(addressProblem(address)));
  for (const [i, { field, value }] of settled.entries())
    add(
      `settled.${i}`,
      !ids.has(field)
        ? `"${field}" is no field`
        : value?.kind === 'literal' && !isValue(value.css)
          ? 'is no value'
          : null,
    );
  equal.forEach(({ fields: list }, i) => add(`equal.${i}`, list.every((id) => ids.has(id)) ? null : 'names no field'));
  return errors;
}

function isValue(css: string): boolean {
  return colorOfCss(css) !== null || /^(?:0|\d{1,3}(?:\.\d{1,3})?px)$/.test(css);
}
