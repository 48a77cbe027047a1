import type { Refusal } from './http/refusal.js';
import type { SettingsSheetBody } from '@upper-veneer/contract';
import {
  addressProblem,
  colorOfCss,
  selectorProblem,
  settingProblem,
  type Becomes,
  type SettingPlace,
  message,
  type Message,
} from '@upper-veneer/core';
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
export function checkSheet({ fields, fixed, address, settled, equal }: SettingsSheetBody): Refusal[] {
  const errors: Refusal[] = [];
  const add = (field: string, reason: Message | null): void => {
    if (reason !== null) errors.push({ field: `sheet.${field}`, reason });
  };
  const ids = new Set<string>();
  const names = new Set<string>();
  fields.forEach((field, i) => {
    add(`fields.${i}.id`, ids.has(field.id) ? message('wrong.id-of-field', { id: field.id }) : null);
    add(
      `fields.${i}.name`,
      names.has(field.name.toLowerCase()) ? message('wrong.name-of-field', { name: field.name }) : null,
    );
    ids.add(field.id);
    names.add(field.name.toLowerCase());
    if (field.present !== '') {
      const wrong = settingProblem(field, field.present);
      add(
        `fields.${i}.present`,
        wrong && message('refusal.field-value', { name: field.name, text: field.present.slice(0, 40), wrong }),
      );
    }
    field.presets.forEach(({ name, css }, k) =>
      add(
        `fields.${i}.presets.${k}`,
        colorOfCss(css) ? null : message('wrong.preset-no-color', { name, css: css.slice(0, 40) }),
      ),
    );
    field.places.forEach(({ selector }, k) => {
      if (selector !== '') add(`fields.${i}.places.${k}.selector`, selectorProblem(selector));
    });
  });
  fixed.forEach(({ selector, css }, i) => {
    if (selector !== '') add(`fixed.${i}.selector`, selectorProblem(selector));
    if (css !== '' && !colorOfCss(css)) add(`fixed.${i}.css`, message('wrong.no-color', { css: css.slice(0, 40) }));
  });
  if (address !== '') add('address', addressProblem(address));
  for (const [i, { field, value }] of settled.entries())
    add(
      `settled.${i}`,
      !ids.has(field)
        ? message('wrong.no-field', { field })
        : value?.kind === 'literal' && !isValue(value.css)
          ? message('wrong.no-value')
          : null,
    );
  equal.forEach(({ fields: list }, i) =>
    add(`equal.${i}`, list.every((id) => ids.has(id)) ? null : message('wrong.names-no-field')),
  );
  return errors;
}

function isValue(css: string): boolean {
  return colorOfCss(css) !== null || /^(?:0|\d{1,3}(?:\.\d{1,3})?px)$/.test(css);
}
