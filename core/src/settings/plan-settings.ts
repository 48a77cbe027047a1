import { message, type Message } from '../message/message.js';
import { deltaE2000 } from '../color/delta-e.js';
import { hexOf } from '../color/read-notation.js';
import type { Becomes, MatchChoices, MatchProposal } from '../match/proposal.js';
import { proposeRows } from '../match/propose-match.js';
import type { Color } from '../values/color.js';
import { colorOfValue } from '../veneer/override-value.js';
import { colorOfCss, paletteIn, type Palette } from '../veneer/palette.js';
import { settingConflicts, type SettingConflict } from './conflicts.js';
import { groundless } from './encounters.js';
import { colorFields, foundSettings } from './found-settings.js';
import { writtenLength, writtenSetting } from './notation.js';
import { isLengthJob, type SettingField, type SettingPreset, type SettingsSheet } from './settings-sheet.js';

/** How a planned value stands to what is over there: the same as there, still to be handed over, handed over, or handed over before it changed. */
export type HandOver = 'same' | 'open' | 'handed' | 'out-of-date';

/** A field with what it is to hold. */
export interface PlannedField {
  readonly field: SettingField;
  readonly becomes: Becomes;
  /** As it is typed over there; what stands there where it is left alone. */
  readonly text: string;
  /** Hex of that; `null` for a length, and where nobody knows. */
  readonly hex: string | null;
  readonly reason: Message;
  readonly isSettled: boolean;
  /** The preset taken, and how far it is from the colour that was meant; `null` for a field without presets. */
  readonly preset: { readonly name: string; readonly deltaE: number; readonly meant: string } | null;
  /** The hardest it meets: its worst ratio to what is asked; `null` where nothing is read or seen of it. */
  readonly worst: { readonly ratio: number; readonly wanted: number } | null;
  readonly handOver: HandOver;
}

/** What the fields of a sheet are to hold. */
export interface SettingsPlan {
  readonly fields: readonly PlannedField[];
  /** What could not be read or seen with these values. */
  readonly conflicts: readonly SettingConflict[];
  /** What cannot be with those that stand over there now. */
  readonly present: readonly SettingConflict[];
  /** Surfaces on which something stands, with nobody to say what fills them: not looked at. */
  readonly groundless: readonly string[];
}

/** Presets that are tried for a field, the nearest first. */
const PRESETS_TRIED = 6;

/** Fills a sheet from the palette's roles by the proposal of Match; a maker's presets are taken by the least ΔE2000 that leaves all readable. */
export function planSettings(sheet: SettingsSheet, whole: Palette): SettingsPlan {
  // A maker takes one value a field, so it is that of the site's own lighting.
  const palette: Palette = { ...paletteIn(whole, 'light'), second: null };
  const found = foundSettings(sheet, palette);
  const scope = { kind: 'parts', partIds: [sheet.partId] } as const;
  const choices: MatchChoices = { strategy: sheet.strategy, locked: sheet.settled, equal: sheet.equal };
  const propose = (locked: MatchChoices['locked']): MatchProposal =>
    proposeRows(palette, scope, found, { ...choices, locked }, () => new Set());
  let proposal = propose(sheet.settled);
  let locked = sheet.settled;
  const presets = new Map<string, NonNullable<PlannedField['preset']>>();
  for (const field of colorFields(sheet).filter(({ notation }) => notation === 'preset')) {
    const row = proposal.rows.find((entry) => entry.found.id === field.id);
    const meant = row && row.becomes.kind === 'value' ? colorOfValue(row.becomes.value, palette) : null;
    if (!meant) continue;
    const [nearest, ...others] = nearestPresets(field, meant);
    if (!nearest) continue;
    const held = (preset: SettingPreset): MatchChoices['locked'] => ({
      ...locked,
      [field.id]: { kind: 'value', value: { kind: 'literal', css: preset.css } },
    });
    const tried = [nearest, ...others].slice(0, PRESETS_TRIED).map(({ preset, deltaE }) => ({
      preset,
      deltaE,
      proposal: propose(held(preset)),
    }));
    const least = Math.min(...tried.map((entry) => entry.proposal.unmet.length));
    // What was set by hand is taken at its word, whatever it breaks.
    const taken = field.id in sheet.settled ? tried[0] : tried.find((entry) => entry.proposal.unmet.length === least);
    if (!taken) continue;
    presets.set(field.id, { name: taken.preset.name, deltaE: taken.deltaE, meant: hexOf(meant) });
    locked = held(taken.preset);
    ({ proposal } = taken);
  }
  const fields = sheet.fields.map((field): PlannedField => {
    const preset = presets.get(field.id) ?? null;
    const own =
      field.notation === 'px' ? plannedLength(field, sheet, palette) : plannedColor(field, proposal, preset, palette);
    const isSettled = field.id in sheet.settled;
    const becomes = isSettled ? sheet.settled[field.id] : own.becomes;
    return { field, ...own, becomes, preset, isSettled, worst: null, handOver: handOverOf(sheet, field, own.text) };
  });
  const textOf = new Map(fields.map(({ field, text }) => [field.id, text]));
  const worst = new Map(proposal.rows.map((row) => [row.found.id, row.worst]));
  return {
    fields: fields.map((entry) => {
      const met = worst.get(entry.field.id) ?? null;
      return { ...entry, worst: met && { ratio: met.ratio, wanted: met.wanted } };
    }),
    conflicts: settingConflicts(sheet, ({ id }) => textOf.get(id) ?? ''),
    present: settingConflicts(sheet, ({ present }) => present),
    groundless: groundless(sheet),
  };
}

function plannedColor(
  field: SettingField,
  proposal: MatchProposal,
  preset: PlannedField['preset'],
  palette: Palette,
): Pick<PlannedField, 'becomes' | 'text' | 'hex' | 'reason'> {
  const row = proposal.rows.find((entry) => entry.found.id === field.id);
  const color = row && row.becomes.kind === 'value' ? colorOfValue(row.becomes.value, palette) : null;
  if (!row || !color) {
    const left = row && field.present !== '' ? row.found.hex : null;
    return {
      becomes: { kind: 'leave' },
      text: field.present,
      hex: left,
      reason: row?.reason ?? message('settings.affects-nothing-yet'),
    };
  }
  const text = preset ? preset.name : writtenSetting(field, color);
  return {
    becomes: row.becomes,
    text,
    hex: hexOf(color),
    reason: preset
      ? message('settings.nearest-preset-e-from', { deltaE: preset.deltaE.toFixed(1), meant: preset.meant })
      : // What a preset holds fast is no choice of the designer's.
        row.reason,
  };
}

function plannedLength(
  field: SettingField,
  { settled }: SettingsSheet,
  { shape }: Palette,
): Pick<PlannedField, 'becomes' | 'text' | 'hex' | 'reason'> {
  const own = settled[field.id] as Becomes | undefined;
  const literal = own?.kind === 'value' && own.value.kind === 'literal' ? own.value.css : null;
  const job = field.places.find((place) => isLengthJob(place.job))?.job;
  const house = job === 'corner' ? shape?.corner : job === 'edge-width' ? shape?.edge : undefined;
  const css = own === undefined ? house : literal;
  if (css == null) {
    const reason = message(own === undefined ? 'settings.no-house-shape' : 'match.set-hand');
    return { becomes: { kind: 'leave' }, text: field.present, hex: null, reason };
  }
  return {
    becomes: { kind: 'value', value: { kind: 'literal', css } },
    text: writtenLength(field, css),
    hex: null,
    reason: message(own === undefined ? 'settings.house-shape' : 'match.set-hand'),
  };
}

/** A field's presets, the nearest to a colour first. */
export function nearestPresets(
  { presets }: Pick<SettingField, 'presets'>,
  color: Color,
): readonly { readonly preset: SettingPreset; readonly deltaE: number }[] {
  return presets
    .flatMap((preset) => {
      const own = colorOfCss(preset.css);
      return own ? [{ preset, deltaE: deltaE2000(own, color) }] : [];
    })
    .sort((a, b) => a.deltaE - b.deltaE);
}

function handOverOf({ handed }: SettingsSheet, { id, present }: SettingField, text: string): HandOver {
  const last = handed[id]?.text as string | undefined;
  if (last !== undefined) return last === text ? 'handed' : 'out-of-date';
  return present.trim().toLowerCase() === text.trim().toLowerCase() ? 'same' : 'open';
}
