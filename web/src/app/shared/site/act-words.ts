import { wordsOf } from '@upper-veneer/words';
import type { OPENER_ACTS } from '@upper-veneer/contract';

/** What happens to an element's attributes, in words. */
export const ACT_WORDS: Readonly<Record<(typeof OPENER_ACTS)[number], string>> = {
  'add-class': wordsOf('screen.gets-class'),
  'drop-class': wordsOf('screen.loses-class'),
  'set-attribute': wordsOf('screen.gets-attribute'),
  'drop-attribute': wordsOf('screen.loses-attribute'),
};
