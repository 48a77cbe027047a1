import { message, type Message } from '../message/message.js';
import { contrastRatio, RATIOS } from '../color/contrast.js';
import { hexOf } from '../color/read-notation.js';
import type { Color } from '../values/color.js';
import { colorOfCss } from '../veneer/palette.js';
import { encounters, type EncounterSide } from './encounters.js';
import { colorOfSetting } from './notation.js';
import type { SettingField, SettingsSheet, SettingState } from './settings-sheet.js';

/** Two values that cannot be read or seen together, as they would be typed. */
export interface SettingConflict {
  /** Ids of the fields on either side; a fixed place has none. */
  readonly fields: readonly string[];
  readonly surface: string;
  readonly state: SettingState;
  readonly ratio: number;
  readonly wanted: number;
  readonly ink: string;
  readonly ground: string;
  readonly words: Message;
}

/**
 * What cannot be read or seen with given values, the worst first. Every surface in every state is looked at, what no field reaches
 * included; ratios are those of WCAG 2.2, 1.4.3 and 1.4.11, of the text as it is typed, for text that is not large.
 * @param valueOf what is typed into a field; empty where nobody knows.
 */
export function settingConflicts(
  sheet: Pick<SettingsSheet, 'fields' | 'fixed'>,
  valueOf: (field: SettingField) => string,
): readonly SettingConflict[] {
  const byId = new Map(sheet.fields.map((field) => [field.id, field]));
  const colorOf = ({ field, css }: EncounterSide): Color | null => {
    if (field === null) return colorOfCss(css);
    const own = byId.get(field);
    return own ? colorOfSetting(own, valueOf(own)) : null;
  };
  const nameOf = ({ field, place }: EncounterSide): string | Message =>
    (field === null ? undefined : byId.get(field)?.name) ?? message('settings.what-brings', { surface: place.surface });
  const found = encounters(sheet).flatMap(({ ink, ground, state, isRead }): SettingConflict[] => {
    const [a, b] = [colorOf(ink), colorOf(ground)];
    const wanted = isRead ? RATIOS.text : RATIOS.nonText;
    if (!a || !b || (ink.field === null && ground.field === null)) return [];
    const ratio = contrastRatio(a, b);
    if (ratio >= wanted) return [];
    // Rounded down: 4.49 must not read as 4.5.
    const shown = (Math.floor(ratio * 10) / 10).toFixed(1);
    const where = message('settings.where', { surface: ground.place.surface, state });
    return [
      {
        fields: [...new Set([ink.field, ground.field])].filter((id) => id !== null),
        surface: ground.place.surface,
        state,
        ratio,
        wanted,
        ink: hexOf(a),
        ground: hexOf(b),
        words:
          ink.field !== null && ink.field === ground.field
            ? message('settings.is-both', { where, name: nameOf(ink), sense: isRead ? 'read' : 'seen' })
            : message('settings.meets', { where, ink: nameOf(ink), ground: nameOf(ground), ratio: shown, wanted }),
      },
    ];
  });
  return found.sort((a, b) => a.ratio / a.wanted - b.ratio / b.wanted);
}
