import { wordsOf } from '@upper-veneer/words';
import type { DeliveryWay } from '@upper-veneer/core';

/** A way to the visitors, in words: what it is, how it is done, and what usually goes wrong there. */
export interface Way {
  readonly way: DeliveryWay;
  readonly name: string;
  readonly note: string;
  readonly steps: readonly string[];
  readonly wrong: readonly string[];
}

/** In the order they are to be thought of: the first that can be had is the best. */
export const WAYS: readonly Way[] = [
  {
    way: 'file',
    name: wordsOf('sheet.file-linked-last-head'),
    note: wordsOf('sheet.its-name-carries-its'),
    steps: [
      wordsOf('sheet.download-file-put-site'),
      wordsOf('sheet.put-link-as-last'),
      wordsOf('sheet.load-page-look-whether'),
    ],
    wrong: [
      wordsOf('sheet.link-before-theme-own'),
      wordsOf('sheet.file-another-folder-pictures'),
      wordsOf('sheet.page-cache-keeps-old'),
    ],
  },
  {
    way: 'head',
    name: wordsOf('sheet.code-for-head'),
    note: wordsOf('sheet.with-style-tags-for'),
    steps: [wordsOf('sheet.paste-whole-into-field'), wordsOf('sheet.save-load-page-anew')],
    wrong: [wordsOf('sheet.field-for-css-instead'), wordsOf('sheet.field-whose-code-comes')],
  },
  {
    way: 'box',
    name: wordsOf('sheet.box-for-added-css'),
    note: wordsOf('sheet.without-tags'),
    steps: [wordsOf('sheet.take-veneer-before-out'), wordsOf('sheet.paste-this-its-end')],
    wrong: [
      wordsOf('sheet.custom-properties-stripped-saving'),
      wordsOf('sheet.box-takes-so-many'),
      wordsOf('sheet.box-loads-before-theme'),
    ],
  },
  {
    way: 'end',
    name: wordsOf('sheet.end-existing-file'),
    note: wordsOf('sheet.between-markers-replaced-there'),
    steps: [wordsOf('sheet.choose-file-as-now'), wordsOf('sheet.put-file-back-its')],
    wrong: [wordsOf('sheet.import-below-rules-passed'), wordsOf('sheet.theme-update-brings-file')],
  },
  {
    way: 'embed',
    name: wordsOf('sheet.embed-own-css-field'),
    note: wordsOf('sheet.rules-part-alone-colours'),
    steps: [wordsOf('sheet.choose-part'), wordsOf('sheet.paste-into-maker-field')],
    wrong: [wordsOf('sheet.embed-stands-frame-another'), wordsOf('sheet.selectors-name-what-around')],
  },
  {
    way: 'child',
    name: wordsOf('sheet.sheet-updates-leave-alone'),
    note: wordsOf('sheet.beside-theme-loaded-after'),
    steps: [wordsOf('sheet.put-file-where-system'), wordsOf('sheet.see-loaded-after-theme')],
    wrong: [wordsOf('sheet.replaces-theme-sheet-instead'), wordsOf('sheet.loaded-before-rules-tie')],
  },
];
