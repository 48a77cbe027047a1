import { wordsOf } from '@upper-veneer/words';
import type { JudgedColor } from '../shared/census/census-store';

/** What the table of colours is narrowed to. */
export interface ColorFilter {
  readonly text: string;
  readonly use: string | null;
  readonly standing: string | null;
  readonly isGrouped: boolean;
}

/** A row of the table: a colour, and its near-duplicates when they are grouped. */
export interface ColorRow extends JudgedColor {
  readonly members: readonly JudgedColor[];
  /** Share of all measured area, 0–1. */
  readonly share: number;
  readonly useWords: string;
  readonly standingWords: string;
  readonly standingRank: number;
}

/** Rows for the table, most area first; with groups, near-duplicates are counted into the colour that stands for them. */
export function colorRows(colors: readonly JudgedColor[], filter: ColorFilter): ColorRow[] {
  const total = colors.reduce((sum, { area }) => sum + area, 0) || 1;
  const wanted = colors.filter((color) => matches(color, filter));
  const rowOf = (color: JudgedColor, members: readonly JudgedColor[]): ColorRow => {
    const all = [color, ...members];
    const area = all.reduce((sum, member) => sum + member.area, 0);
    return {
      ...color,
      members,
      area,
      elements: all.reduce((sum, { elements }) => sum + elements, 0),
      share: area / total,
      useWords: color.uses
        .map(({ use, elements }) => wordsOf('survey.use-count', { use: wordsOf(`use.${use}`), elements }))
        .join(', '),
      standingWords: standingWords(color),
      standingRank: color.exception ? 3 : { stray: 0, near: 1, brand: 2 }[color.standing.kind],
    };
  };
  if (!filter.isGrouped) return wanted.map((color) => rowOf(color, []));
  const groups = new Map<string, JudgedColor[]>();
  for (const color of wanted) groups.set(color.group, [...(groups.get(color.group) ?? []), color]);
  return [...groups.values()]
    .map(([first, ...rest]) => rowOf(first, rest))
    .sort((a, b) => b.area - a.area || b.elements - a.elements);
}

function matches(color: JudgedColor, { text, use, standing }: ColorFilter): boolean {
  if (use !== null && !color.uses.some((entry) => entry.use === use)) return false;
  if (standing !== null && (color.exception ? 'exception' : color.standing.kind) !== standing) return false;
  const sought = text.trim().toLowerCase();
  return (
    sought === '' ||
    color.hex.includes(sought) ||
    color.standing.nearest.toLowerCase().includes(sought) ||
    color.declarations.some(({ selector, declaration, sheet }) =>
      `${selector} ${declaration} ${sheet}`.toLowerCase().includes(sought),
    )
  );
}

export function standingWords({ standing, exception }: JudgedColor): string {
  if (exception) return wordsOf('survey.exception-why', { exception });
  if (standing.nearest === '') return wordsOf('survey.no-palette-yet');
  if (standing.kind === 'brand') return standing.nearest;
  if (standing.kind === 'near')
    return wordsOf('survey.near-e', { nearest: standing.nearest, deltaE: standing.deltaE.toFixed(1) });
  return wordsOf('survey.stray');
}
