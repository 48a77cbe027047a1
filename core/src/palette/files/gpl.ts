import { message, type Message } from '../../message/message.js';
import { hexOf } from '../../color/read-notation.js';
import { rgb8 } from '../../values/color.js';
import { channelsIn } from '../../values/convert-color.js';
import { colorOfCss, type Palette } from '../../veneer/palette.js';
import { withDistinctNames, type NamedColor, type PaletteFile } from './named-color.js';

const HEAD = 'GIMP Palette';

/** Reads a GIMP palette: a head line, then `red green blue name` in 8 bits a channel. */
export function readGpl(text: string): PaletteFile {
  const lines = text.replace(/^\ufeff/, '').split(/\r\n|[\r\n]/);
  if (lines[0].trim() !== HEAD)
    return {
      colors: [],
      problems: [
        { where: message('file.line', { line: 1 }), reason: message('file.gimp-palette-begins-with', { head: HEAD }) },
      ],
    };
  const colors: NamedColor[] = [];
  const problems: { where: Message | string; reason: Message }[] = [];
  lines.slice(1).forEach((line, i) => {
    if (/^\s*(?:#|$)/.test(line) || /^(?:Name|Columns|Channels)\s*:/i.test(line)) return;
    const found = /^(\d{1,3})\s+(\d{1,3})\s+(\d{1,3})(?:\s+(\S.*))?$/.exec(line.trim());
    const channels = found?.slice(1, 4).map(Number) ?? [];
    if (!found || channels.some((channel) => channel > 255)) {
      problems.push({
        where: message('file.line', { line: i + 2 }),
        reason: message('file.no-colour-three-numbers', { line: line.trim().slice(0, 40) }),
      });
      return;
    }
    const css = hexOf(rgb8(channels[0], channels[1], channels[2]));
    const name = found[4] && found[4] !== 'Untitled' ? found[4] : css;
    colors.push({ name, css });
  });
  return { colors: withDistinctNames(colors), problems };
}

/** Writes the swatches as a GIMP palette; it holds no alpha, which is left out. */
export function writeGpl(palette: Palette, title: string): string {
  const rows = palette.swatches.flatMap(({ name, css }) => {
    const color = colorOfCss(css);
    if (!color) return [];
    const channels = channelsIn(color, 'srgb').map((channel) => Math.round(Math.min(1, Math.max(0, channel)) * 255));
    return [`${channels.map((channel) => String(channel).padStart(3)).join(' ')}\t${name.replace(/\s+/g, ' ')}`];
  });
  return [HEAD, `Name: ${title.replace(/\s+/g, ' ')}`, 'Columns: 0', '#', ...rows, ''].join('\n');
}
