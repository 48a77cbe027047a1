import { IntlMessageFormat } from 'intl-messageformat';
import type { Language } from './language.js';
import { LANGUAGES } from './languages.js';
import type { Message, MessageValue } from './message.js';

/** How much of a moment is written. */
export type Moment = keyof typeof MOMENTS;

const MOMENTS = {
  day: { day: 'numeric', month: 'short', timeZone: 'UTC' },
  'day and time': { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' },
  short: { dateStyle: 'medium', timeStyle: 'short' },
  long: { dateStyle: 'long', timeStyle: 'short' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>;

/** Says messages in one language. Each text is parsed once, when it is first said. */
export class Speaker {
  readonly #formats = new Map<string, IntlMessageFormat>();
  /** Made when they are first asked for: a browser reads tables of the language for each. */
  #list: Intl.ListFormat | null = null;
  #numbers: Intl.NumberFormat | null = null;

  constructor(readonly language: Language) {}

  /** @throws FormatError where a value that its words need is missing. */
  say(message: Message): string {
    const said = this.#said(message);
    return message.isInner ? said.charAt(0).toLocaleLowerCase(this.language.tag) + said.slice(1) : said;
  }

  /** A number with its places parted as the language does. */
  figure(number: number): string {
    this.#numbers ??= new Intl.NumberFormat(this.language.tag);
    return this.#numbers.format(number);
  }

  /** A moment as it is read; a day alone is one of UTC. @throws RangeError where it is no moment. */
  moment(at: Date, shape: Moment): string {
    return new Intl.DateTimeFormat(this.language.dates ?? this.language.tag, MOMENTS[shape]).format(at);
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
    if (isList(value)) return this.#listed(value.map((own) => String(this.#plain(own))));
    return this.say(value);
  }

  #listed(texts: readonly string[]): string {
    this.#list ??= new Intl.ListFormat(this.language.tag, { type: 'unit', style: 'short' });
    return this.#list.format(texts);
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

let speaker = new Speaker(LANGUAGES[0]);

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

/** A number with its places parted, in the language that is spoken. */
export function figure(number: number): string {
  return speaker.figure(number);
}

/** A moment as it is read, in the language that is spoken. @param at a moment, or text that `Date` reads. @throws RangeError where it is none. */
export function moment(at: Date | string, shape: Moment): string {
  return speaker.moment(new Date(at), shape);
}
