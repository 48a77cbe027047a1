import type { Message } from '../../message/message.js';
/** A colour out of a palette file. */
export interface NamedColor {
  readonly name: string;
  /** CSS. */
  readonly css: string;
}

/** What a palette file gave: its colours, and what in it could not be read, with where. */
export interface PaletteFile {
  readonly colors: readonly NamedColor[];
  readonly problems: readonly { readonly where: Message | string; readonly reason: Message }[];
}

/** Names made different where two are the same, by a number behind the later ones. */
export function withDistinctNames(colors: readonly NamedColor[]): NamedColor[] {
  const taken = new Set<string>();
  return colors.map(({ name, css }) => {
    let own = name;
    for (let number = 2; taken.has(own.toLowerCase()); number += 1) own = `${name} ${number}`;
    taken.add(own.toLowerCase());
    return { name: own, css };
  });
}
