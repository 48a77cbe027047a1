import { codeFolding, foldGutter, foldService } from '@codemirror/language';
import type { Extension } from '@codemirror/state';

/** A comment alone on its line heads a section, which ends before the next. */
const isHead = (line: string): boolean => line.startsWith('/* ') && line.endsWith(' */');

/** Sections of a sheet fold by their heads. */
export const foldSections: Extension = [
  codeFolding(),
  foldGutter({ openText: '▾', closedText: '▸' }),
  foldService.of(({ doc }, start) => {
    const head = doc.lineAt(start);
    if (!isHead(head.text)) return null;
    let last = head.number;
    while (last < doc.lines && !isHead(doc.line(last + 1).text)) last += 1;
    const end = doc.line(last).to;
    return end > head.to ? { from: head.to, to: end } : null;
  }),
];
