import { say, type Spoken, wordsOf } from '@upper-veneer/words';
import { colorOfValue, shadeTold, type Palette, type PlannedField, type SettingNotation } from '@upper-veneer/core';
import { roleWords } from '../../shared/site/role-words';

export const NOTATION_WORDS: Readonly<Record<SettingNotation, string>> = {
  hex: wordsOf('match.hex-with'),
  'bare-hex': wordsOf('match.hex-without'),
  'three-numbers': wordsOf('match.three-numbers'),
  preset: wordsOf('match.preset'),
  px: 'px',
};

/** What a field's value is, in words: `accent, 8 darker`. */
export function valueWordsOf(
  { becomes, preset, field, reason, isSettled }: Spoken<PlannedField>,
  palette: Palette,
): string {
  if (becomes.kind === 'leave') return isSettled ? wordsOf('match.left-alone') : reason;
  if (field.notation === 'px') return reason;
  if (preset)
    return preset.deltaE < 0.05
      ? 'preset, exactly'
      : wordsOf('match.preset-e-away', { deltaE: preset.deltaE.toFixed(1) });
  const { value } = becomes;
  if (value.kind === 'literal') return wordsOf('match.colour-its-own');
  const name =
    value.kind === 'role'
      ? roleWords(value.role)
      : (palette.swatches.find(({ id }) => id === value.swatchId)?.name ?? 'a swatch');
  return value.shade === 0
    ? name
    : `${name}, ${say(shadeTold(value.shade, colorOfValue({ ...value, shade: 0 }, palette)))}`;
}
