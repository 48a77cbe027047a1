import type { PART_KINDS } from '@upper-veneer/contract';
import { wordsOf } from '@upper-veneer/words';

/** What a part is, for people. */
export const PART_KIND_WORDS: Readonly<Record<(typeof PART_KINDS)[number], string>> = {
  theme: wordsOf('part-kind.theme'),
  'embedded widget': wordsOf('part-kind.widget'),
  form: wordsOf('part-kind.form'),
  'pop-up': wordsOf('part-kind.pop-up'),
  framed: wordsOf('part-kind.framed'),
  shadow: wordsOf('part-kind.shadow'),
  other: wordsOf('part-kind.other'),
};

/** The same of a part as the server has it. */
export function partKindWords(kind: string): string {
  return kind in PART_KIND_WORDS ? PART_KIND_WORDS[kind as keyof typeof PART_KIND_WORDS] : kind;
}
