import { loadTranslations } from '@angular/localize';
import { MARKED, MARKS, speak } from '@upper-veneer/words';
import { chosenLanguage } from './chosen-language';

// Before anything is said: texts of modules are said once, when they are loaded.
const language = chosenLanguage();
speak(language);
document.documentElement.lang = language.tag;
if (language.screens) loadTranslations({ ...language.screens });
if (language.tag === MARKED) $localize.translate = (parts, expressions) => [markedParts(parts), expressions];

/** A text of a template between marks; one that begins with a choice is part of another and stays as it is. */
function markedParts(parts: TemplateStringsArray): TemplateStringsArray {
  // A part begins with what Angular knows of it, between colons.
  const about = /^:[^:]*:/.exec(parts[0])?.[0] ?? '';
  const first = parts[0].slice(about.length);
  if (/^\s*\{/.test(first)) return parts;
  const own = [...parts];
  own[0] = `${about}${MARKS[0]}${first}`;
  own[own.length - 1] += MARKS[1];
  return Object.assign(own, { raw: own });
}
