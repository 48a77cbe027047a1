import { message, type Message } from '../message/message.js';
import type { Setting } from '../conditions/environment.js';
import { EDGE_SIDES } from '../properties/edges.js';
import { USUAL_WIDTHS, settingsTold, settingsThatMatter } from '../site/environments.js';
import type { SiteModel } from '../site/site-model.js';

/** What decides the colour of a place, or whether it is painted. */
export const PAINTED = [
  'color',
  'background-color',
  'background-image',
  'box-shadow',
  'text-shadow',
  'text-decoration-color',
  'text-decoration-line',
  'outline-color',
  'outline-style',
  'outline-width',
  'fill',
  'stroke',
  'caret-color',
  'accent-color',
  'scrollbar-color',
  'content',
  'list-style-type',
  ...EDGE_SIDES.flatMap(({ color, style, width }) => [color, style, width]),
];
/** Each is a resolution of the whole site in eight states. */
const MOST_SETTINGS = 12;

/** Where a proof looks at the site. */
export interface ProofSettings {
  /** The first is that at which the scope was looked through. */
  readonly settings: readonly Setting[];
  /** What rules hang on and is not looked at. */
  readonly unseen: readonly Message[];
}

/**
 * The usual widths, and a width between each two breakpoints of rules that have a say in what is painted, with every other condition
 * that such rules ask for: pointer, preference, height.
 */
export function proofSettings(site: SiteModel): ProofSettings {
  const { settings: asked, unseen } = settingsThatMatter(site, PAINTED);
  const usual = USUAL_WIDTHS.map((width): Setting => ({ width }));
  const keyOf = (setting: Setting): string => JSON.stringify(setting);
  const known = new Set(usual.map(keyOf));
  const others = asked.filter((setting) => !known.has(keyOf(setting)));
  const room = MOST_SETTINGS - usual.length;
  // Those left out are spread over the range.
  const kept = others.filter(
    (_, i) =>
      others.length <= room || Math.floor((i * room) / others.length) !== Math.floor(((i - 1) * room) / others.length),
  );
  const left = others.length - kept.length;
  return {
    settings: [...usual, ...kept],
    unseen: [...unseen, ...(left > 0 ? [message('match.settings', { left, all: usual.length + others.length })] : [])],
  };
}

/** Where a proof looked, in words: `at 1280, 820, 390 px; also without hover; not looked at: @container`. */
export function proofSettingMessage({
  settings,
  unseen,
}: {
  readonly settings: readonly Setting[];
  readonly unseen: readonly (Message | string)[];
}): Message {
  return message('match.looked-at', { where: settingsTold(settings), count: unseen.length, unseen });
}
