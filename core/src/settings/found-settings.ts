import { message } from '../message/message.js';
import { contrastRatio, RATIOS } from '../color/contrast.js';
import { shade } from '../color/shade.js';
import { hexOf } from '../color/read-notation.js';
import type { FoundColor, FoundColors, Meeting } from '../match/found-color.js';
import { jobMessage, type Job } from '../match/job.js';
import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import { colorOfValue } from '../veneer/override-value.js';
import { colorOfCss, type Palette, type RoleName } from '../veneer/palette.js';
import { encounters, type Encounter } from './encounters.js';
import { colorOfSetting } from './notation.js';
import { isLengthJob, type SettingField, type SettingsSheet } from './settings-sheet.js';

/** What a colour is taken for where nobody knows it, by its job, so that light stays light. */
const UNKNOWN: Readonly<Partial<Record<Job, string>>> = {
  ground: '#ffffff',
  field: '#ffffff',
  label: '#ffffff',
  line: '#cccccc',
};
const UNKNOWN_INK = '#333333';

/** Fields that hold a colour. */
export function colorFields({ fields }: Pick<SettingsSheet, 'fields'>): readonly SettingField[] {
  return fields.filter(({ notation, places }) => notation !== 'px' && places.some(({ job }) => !isLengthJob(job)));
}

/** The fields of a sheet as Match finds colours on pages: one row a field, and what meets on each surface in each state. */
export function foundSettings(sheet: SettingsSheet, palette: Palette): FoundColors {
  const fields = colorFields(sheet);
  const rows = fields.map((field) => rowOf(field, fields));
  const taken = sheet.strategy === 'blend' ? blended(rows, palette) : rows;
  const colors = new Map(rows.map(({ id, hex }) => [id, colorOfCss(hex)]));
  const meetings = encounters(sheet).flatMap((encounter) => meetingsOf(encounter, colors));
  return { rows: taken, meetings, measuredPages: 1, pages: 1, unread: [], mains: [] };
}

/** What stands on the page's own ground, by job. */
const PAGE_ROLES: Readonly<Partial<Record<Job, RoleName>>> = {
  ground: 'ground',
  text: 'ink',
  heading: 'ink',
  link: 'link',
};

/** Blending in, what a maker fills its areas and writes on them with says nothing of what they are to be: both are looked for near the page's, and what a state does to them is kept. */
function blended(rows: readonly FoundColor[], palette: Palette): readonly FoundColor[] {
  return rows.map((row): FoundColor => {
    const role = PAGE_ROLES[row.job];
    const page = role && colorOfValue({ kind: 'role', role, shade: 0 }, palette);
    if (!page) return row;
    const rest = rows.find(({ id }) => id === row.atRest);
    const [own, under] = [row, rest ?? row].map(({ hex }) => colorOfCss(hex));
    const step = own && under ? 100 * (channelsIn(own, 'oklch')[0] - channelsIn(under, 'oklch')[0]) : 0;
    const hex = hexOf(shade(page, Math.round(step)));
    return { ...row, hex, hexes: [hex] };
  });
}

function rowOf(field: SettingField, fields: readonly SettingField[]): FoundColor {
  const places = field.places.filter(({ job }) => !isLengthJob(job));
  const lead = places[0];
  const job = lead.job as Job;
  const present = colorOfSetting(field, field.present);
  const hex = present ? hexOf(present) : (UNKNOWN[job] ?? UNKNOWN_INK);
  const isAtRest = places.some(({ state }) => state === 'rest');
  const rest = isAtRest
    ? null
    : (fields.find((other) =>
        other.places.some((own) => own.state === 'rest' && own.surface === lead.surface && own.job === lead.job),
      )?.id ?? null);
  return {
    id: field.id,
    hex,
    hexes: [hex],
    job,
    isOnDark: false,
    places: [],
    states: isAtRest ? ['rest'] : ['hover'],
    area: 0,
    elements: places.length,
    homes: [],
    paints: message('settings.job-of', { job: jobMessage(job), surface: lead.surface }),
    // What is typed as a value does not follow: even a colour of the brand is to be bound to its role.
    isBrand: false,
    isExcepted: false,
    isWarning: false,
    atRest: rest,
  };
}

function meetingsOf({ ink, ground, isRead }: Encounter, colors: ReadonlyMap<string, Color | null>): Meeting[] {
  // What no field changes on either side is settled already.
  if (ink.field === null && ground.field === null) return [];
  const kind = isRead ? 'read' : 'seen';
  const wanted = isRead ? RATIOS.text : RATIOS.nonText;
  const [a, b] = [ink, ground].map(({ field, css }) =>
    field === null ? colorOfCss(css) : (colors.get(field) ?? null),
  );
  if (!a || !b) return [];
  const before = contrastRatio(a, b);
  const none = { veil: null, wanted, before, places: 1 };
  // Contrast is the same either way round: what stays as it is can be the ground of what changes.
  if (ink.field === null) return [{ kind, ink: ground.field ?? '', ground: null, outside: ink.css, ...none }];
  return [{ kind, ink: ink.field, ground: ground.field, outside: ground.field === null ? ground.css : '', ...none }];
}
