import { languageFor, type Language } from '@upper-veneer/words';

/** Where a browser keeps the tag of a language that was chosen over its own. */
export const LANGUAGE_KEY = 'language';

/** The language of the interface: the one chosen in this browser, else the first that the browser asks for and there is. */
export function chosenLanguage(): Language {
  const chosen = globalThis.localStorage?.getItem(LANGUAGE_KEY);
  return languageFor([...(chosen ? [chosen] : []), ...navigator.languages]);
}
