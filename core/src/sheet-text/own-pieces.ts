import type { DeclarationNode } from '../syntax/nodes.js';
import type { OwnCss } from '../veneer/own-css.js';
import type { SheetItem } from './sheet-items.js';

/** What of a rule is kept as it is written: all of it, or some of its declarations. */
export type OwnPiece = 'whole' | readonly DeclarationNode[];

/**
 * What of an edited sheet is kept as it is written, a section each. What stands together keeps every character between; of what stands
 * under conditions with rules that are not kept, the conditions are written again around it.
 */
export function ownCssIn(text: string, items: readonly SheetItem[], own: ReadonlyMap<SheetItem, OwnPiece>): OwnCss[] {
  const bySection = new Map<number | null, string>();
  const add = (section: number | null, css: string): void => {
    const before = bySection.get(section);
    bySection.set(section, before === undefined ? css : `${before}\n${css}`);
  };
  const isWhole = (item: SheetItem): boolean => own.get(item) === 'whole';
  const tops = topRules(items);
  for (let i = 0; i < tops.length; i += 1) {
    const top = tops[i];
    const section = top[0].section ?? null;
    if (!top.every(isWhole)) {
      for (const item of top) {
        const piece = own.get(item);
        if (piece) add(section, inConditions(text, item, piece));
      }
      continue;
    }
    let last = i;
    while (tops[last + 1]?.[0].section === top[0].section && tops[last + 1].every(isWhole)) last += 1;
    add(section, text.slice(top[0].top.start, tops[last][0].top.end));
    i = last;
  }
  return [...bySection].map(([partId, css]) => ({ partId, css }));
}

/** Rules by the top-level rule they stand in, in order. */
function topRules(items: readonly SheetItem[]): [SheetItem, ...SheetItem[]][] {
  const tops: [SheetItem, ...SheetItem[]][] = [];
  for (const item of items) {
    const last = tops.at(-1);
    if (last?.[0].top.start === item.top.start) last.push(item);
    else tops.push([item]);
  }
  return tops;
}

function inConditions(text: string, { within, selector, start, end }: SheetItem, piece: OwnPiece): string {
  const css =
    piece === 'whole'
      ? text.slice(start, end)
      : `${selector} {\n${piece.map((own) => `  ${text.slice(own.start, own.end).trimEnd()};`).join('\n')}\n}`;
  return within.reduceRight((inner, condition) => `${condition} {\n${inner}\n}`, css);
}
