import { TYPE, parse, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import type { Language } from './language.js';
import { EN } from './languages/en.js';

/** The languages there are; a new one is one more row, and a file beside that of English. */
export const LANGUAGES: readonly Language[] = [{ tag: 'en', dates: 'en-GB', words: EN }];

/** No language: English between marks that do not show, by which a script tells what goes by a code from what is said as it stands. */
export const MARKED = 'en-XA';
/** A zero-width space and a soft hyphen: what looks for a text on a screen passes over both. */
export const MARKS = ['\u200b', '\u00ad'] as const;

/** The first of the languages asked for that there is, by its tag or the language of its tag (RFC 4647, lookup); else English. */
export function languageFor(tags: readonly string[]): Language {
  for (const tag of tags) {
    // Days in figures alone, so that one written the English way shows.
    if (tag === MARKED) return { tag, dates: 'ja', words: marked(EN) };
    const own =
      LANGUAGES.find((language) => language.tag === tag) ?? LANGUAGES.find(({ tag: one }) => one === base(tag));
    if (own) return own;
  }
  return LANGUAGES[0];
}

function base(tag: string): string {
  return tag.split('-')[0].toLowerCase();
}

/** Marks around what is said as it stands; what is handed over stays outside of them. */
function marked<Words extends Readonly<Record<string, string>>>(words: Words): Words {
  const [open, close] = MARKS;
  return Object.fromEntries(
    Object.entries(words).map(([code, text]) => {
      let own = text;
      for (const at of argumentsIn(parse(text, { ignoreTag: true, captureLocation: true })).reverse())
        own = `${own.slice(0, at.start)}${close}${own.slice(at.start, at.end)}${open}${own.slice(at.end)}`;
      return [code, `${open}${own}${close}`];
    }),
  ) as unknown as Words;
}

/** Where the values of a message stand in it, in order. */
function argumentsIn(elements: readonly MessageFormatElement[]): { readonly start: number; readonly end: number }[] {
  return elements.flatMap((element) => {
    if (element.type === TYPE.argument && element.location)
      return [{ start: element.location.start.offset, end: element.location.end.offset }];
    return 'options' in element ? Object.values(element.options).flatMap(({ value }) => argumentsIn(value)) : [];
  });
}
