import type { Language } from './language.js';
import { EN } from './languages/en.js';

/** The languages there are; a new one is one more row, and a file beside that of English. */
export const LANGUAGES: readonly Language[] = [{ tag: 'en', words: EN }];

/** No language: English between marks that do not show, by which a script tells what goes by a code from what is said as it stands. */
export const MARKED = 'en-XA';
/** A zero-width space and a soft hyphen: what looks for a text on a screen passes over both. */
export const MARKS = ['\u200b', '\u00ad'] as const;

/** The first of the languages asked for that there is, by its tag or the language of its tag (RFC 4647, lookup); else English. */
export function languageFor(tags: readonly string[]): Language {
  for (const tag of tags) {
    if (tag === MARKED) return { tag, words: marked(EN) };
    const own =
      LANGUAGES.find((language) => language.tag === tag) ?? LANGUAGES.find(({ tag: one }) => one === base(tag));
    if (own) return own;
  }
  return LANGUAGES[0];
}

function base(tag: string): string {
  return tag.split('-')[0].toLowerCase();
}

function marked<Words extends Readonly<Record<string, string>>>(words: Words): Words {
  return Object.fromEntries(
    Object.entries(words).map(([code, text]) => [code, `${MARKS[0]}${text}${MARKS[1]}`]),
  ) as unknown as Words;
}
