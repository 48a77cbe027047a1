import { loadTranslations } from '@angular/localize';
import { MARKED, MARKS, speak } from '@upper-veneer/words';
import { chosenLanguage } from './chosen-language';

// Before anything is said: texts of modules are said once, when they are loaded.
const language = chosenLanguage();
speak(language);
document.documentElement.lang = language.tag;
if (language.screens) loadTranslations({ ...language.screens });
if (language.tag === MARKED) $localize.translate = (parts, expressions) => [markedParts(parts), expressions];

/** What stands in a text of a template between marks, and what is chosen from in it. */
function markedParts(parts: TemplateStringsArray): TemplateStringsArray {
  const [open, close] = MARKS;
  const own = parts.map((part) => {
    // A part begins with what Angular knows of it, between colons.
    const about = /^:[^:]*:/.exec(part)?.[0] ?? '';
    const said = part.slice(about.length);
    if (said.trim() === '') return part;
    return /^\s*\{/.test(said)
      ? about + said.replace(/(=\d+|other) \{([^{}]*)\}/g, `$1 {${open}$2${close}}`)
      : about + open + said + close;
  });
  return Object.assign(own, { raw: own });
}
