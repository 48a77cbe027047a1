import { IntlMessageFormat } from 'intl-messageformat';
import type { Language } from './language.js';
import { EN } from './languages/en.js';
import type { Message, MessageValue } from './message.js';

/** Says messages in one language. Each text is parsed once, when it is first said. */
export class Speaker {
  readonly #formats = new Map<string, IntlMessageFormat>();
  readonly #list: Intl.ListFormat;

  constructor(readonly language: Language) {
    this.#list = new Intl.ListFormat(language.tag, { type: 'unit', style: 'short' });
  }

  /** @throws FormatError where a value that its words need is missing. */
  say(message: Message): string {
    const said = this.#said(message);
    return message.isInner ? said.charAt(0).toLocaleLowerCase(this.language.tag) + said.slice(1) : said;
  }

  #said(message: Message): string {
    const text = this.language.words[message.code];
    // Neither a value nor a quote in it: its words are what is said (ICU MessageFormat, literal text).
    if (!/[{}']/.test(text)) return text;
    const values = message.values
      ? Object.entries(message.values).map(([name, value]) => [name, this.#plain(value)])
      : [];
    return String(this.#formatOf(message.code).format(Object.fromEntries(values)));
  }

  #plain(value: MessageValue): string | number {
    if (typeof value === 'string' || typeof value === 'number') return value;
    if (isList(value)) return this.#list.format(value.map((own) => String(this.#plain(own))));
    return this.say(value);
  }

  #formatOf(code: Message['code']): IntlMessageFormat {
    let format = this.#formats.get(code);
    if (!format) {
      format = new IntlMessageFormat(this.language.words[code], this.language.tag, undefined, { ignoreTag: true });
      this.#formats.set(code, format);
    }
    return format;
  }
}

function isList(value: MessageValue): value is readonly (string | Message)[] {
  return Array.isArray(value);
}

let speaker = new Speaker({ tag: 'en', words: EN });

/** Chooses the language of this process or page, before anything is said. */
export function speak(language: Language): void {
  speaker = new Speaker(language);
}

/** The words of a message, in the language that is spoken; a text that is words already stays as it is. */
export function say(told: Message | string): string {
  return typeof told === 'string' ? told : speaker.say(told);
}

/** The words of a code with its data: what a screen says itself. */
export function wordsOf(code: Message['code'], values?: Message['values']): string {
  return speaker.say(values ? { code, values } : { code });
}
