import type { OPENER_ACTS } from '@upper-veneer/contract';

/** What happens to an element's attributes, in words. */
export const ACT_WORDS: Readonly<Record<(typeof OPENER_ACTS)[number], string>> = {
  'add-class': 'gets the class',
  'drop-class': 'loses the class',
  'set-attribute': 'gets the attribute',
  'drop-attribute': 'loses the attribute',
};
