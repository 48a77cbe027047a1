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
