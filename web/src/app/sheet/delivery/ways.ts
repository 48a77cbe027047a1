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
    name: 'A file, linked last in the head',
    note: 'its name carries its hash, so no cache keeps an old one',
    steps: [
      'Download the file and put it at the site’s root, beside the first page.',
      'Put the link as the last thing before </head> on every page, in place of the one before.',
      'Load a page and look whether the file comes with status 200.',
    ],
    wrong: [
      'A link before the theme’s own sheets: what ties with the theme loses.',
      'The file in another folder: pictures it names are looked for from there.',
      'A page cache that keeps the old page, and with it the old link: purge it.',
    ],
  },
  {
    way: 'head',
    name: 'Code for the head',
    note: 'with style tags, for a field that takes code',
    steps: [
      'Paste it whole into the field for code in the head, after all that is there.',
      'Save, and load a page anew.',
    ],
    wrong: [
      'A field for CSS instead of code: there the tags themselves break the first rule.',
      'A field whose code comes before the theme’s sheets: ask for the end of the head.',
    ],
  },
  {
    way: 'box',
    name: 'A box for added CSS',
    note: 'without tags',
    steps: ['Take the veneer before out of the box, with all of it.', 'Paste this one at its end, and save.'],
    wrong: [
      'Custom properties stripped on saving: colours fall back to the theme’s. Switch plain values on.',
      'A box that takes so many characters: look at its end after saving.',
      'A box that loads before the theme: rules that tie lose.',
    ],
  },
  {
    way: 'end',
    name: 'The end of an existing file',
    note: 'between markers, replaced there next time',
    steps: [
      'Choose the file as it is now: the sheet is put at its end, or where it was before.',
      'Put the file back in its place.',
    ],
    wrong: [
      'An @import below other rules is passed over by browsers; the veneer has none.',
      'The theme’s update brings the file anew: put the veneer in once more.',
    ],
  },
  {
    way: 'embed',
    name: 'An embed’s own CSS field',
    note: 'the rules of that part alone, colours plain',
    steps: ['Choose the part.', 'Paste it into the maker’s field for CSS, and save there.'],
    wrong: [
      'The embed stands in a frame of another origin and its maker has no such field: only its settings reach it.',
      'Selectors that name what is around the embed find nothing inside its frame.',
    ],
  },
  {
    way: 'child',
    name: 'A sheet that updates leave alone',
    note: 'beside the theme, loaded after it',
    steps: [
      'Put the file where the system keeps what is yours, apart from the theme.',
      'See that it is loaded after the theme’s own sheet.',
    ],
    wrong: [
      'It replaces the theme’s sheet instead of following it: load both.',
      'Loaded before it: rules that tie lose.',
    ],
  },
];
