/** A colour scheme as a visitor prefers it. */
export type Scheme = 'light' | 'dark';

/** `(prefers-color-scheme)` in a serialised media query. Source: CSSOM §4.2. */
const PREFERENCE = /\(prefers-color-scheme(?:: (light|dark))?\)/gi;
const ALWAYS = '(min-width: 0px)';
const NEVER = '(max-width: -1px)';

/** What a sheet asks about the scheme, and how it is written over. */
interface Asked {
  readonly text: string;
  write(text: string): void;
}

/**
 * Shows a page as to a visitor who prefers a scheme, whatever this machine prefers: frames take the machine's, so media
 * conditions, and `color-scheme` where the page leaves the choice, are written over in the frame's own sheets.
 */
export class FrameScheme {
  readonly #document: Document;
  #asked: readonly Asked[] | null = null;
  /** The same of sheets that were written since. */
  readonly #anew = new Map<HTMLStyleElement, readonly Asked[]>();
  #wanted: Scheme = 'light';
  /** What the sheets were written over for; `null` while they are as they came. */
  #shown: Scheme | null = null;
  readonly #dark: MediaQueryList | undefined;

  constructor(document: Document) {
    this.#document = document;
    this.#dark = document.defaultView?.matchMedia('(prefers-color-scheme: dark)');
    this.#dark?.addEventListener('change', () => this.show(this.#wanted));
  }

  show(scheme: Scheme): void {
    this.#wanted = scheme;
    // What this machine prefers is shown as it is: large sheets are looked through only where they are to be written over.
    if (scheme === this.#shown || (this.#shown === null && scheme === this.#preferred())) return;
    this.#shown = scheme;
    this.#asked ??= askedIn(this.#document);
    this.#write([...this.#asked, ...[...this.#anew.values()].flat()]);
  }

  /** Takes in a sheet that was written anew. */
  again(style: HTMLStyleElement): void {
    const asked = style.sheet ? askedOf(style.sheet) : [];
    this.#anew.set(style, asked);
    this.#write(asked);
  }

  #preferred(): Scheme {
    return this.#dark?.matches ? 'dark' : 'light';
  }

  #write(asked: readonly Asked[]): void {
    const scheme = this.#shown;
    if (scheme !== null) for (const { text, write } of asked) write(asPreferred(text, scheme));
  }
}

/** A condition, or a list of schemes, as it comes out for a preference. */
function asPreferred(text: string, scheme: Scheme): string {
  if (/^[\s\w-]+$/.test(text) && !text.includes('prefers')) return scheme;
  return text.replace(PREFERENCE, (_, wanted?: string) =>
    wanted === undefined || wanted.toLowerCase() === scheme ? ALWAYS : NEVER,
  );
}

function askedIn(document: Document): Asked[] {
  const trees: (Document | ShadowRoot)[] = [document];
  for (const tree of trees)
    for (const element of tree.querySelectorAll('*')) if (element.shadowRoot) trees.push(element.shadowRoot);
  const meta = [...document.querySelectorAll<HTMLMetaElement>('meta[name="color-scheme" i]')];
  return [
    ...trees.flatMap((tree) => [...tree.styleSheets, ...tree.adoptedStyleSheets].flatMap(askedOf)),
    ...meta.flatMap((element) => choiceIn(element.content, (text) => (element.content = text))),
    ...[...document.querySelectorAll<HTMLSourceElement>('source[media]')].flatMap((element) =>
      conditionIn(element.media, (text) => (element.media = text)),
    ),
  ];
}

function askedOf(sheet: CSSStyleSheet): Asked[] {
  return [
    ...conditionIn(sheet.media.mediaText, (text) => (sheet.media.mediaText = text)),
    ...askedOfRules(sheet.cssRules),
  ];
}

function askedOfRules(rules: CSSRuleList): Asked[] {
  return [...rules].flatMap((rule): Asked[] => {
    const inner = 'cssRules' in rule ? askedOfRules(rule.cssRules as CSSRuleList) : [];
    if ('media' in rule) {
      const { media } = rule as CSSMediaRule;
      const own = conditionIn(media.mediaText, (text) => (media.mediaText = text));
      const sheet = 'styleSheet' in rule ? (rule.styleSheet as CSSStyleSheet | null) : null;
      return [...own, ...inner, ...(sheet ? askedOfRules(sheet.cssRules) : [])];
    }
    if ('style' in rule) {
      const { style } = rule as CSSStyleRule;
      const priority = style.getPropertyPriority('color-scheme');
      return [
        ...choiceIn(style.getPropertyValue('color-scheme'), (text) =>
          style.setProperty('color-scheme', text, priority),
        ),
        ...inner,
      ];
    }
    return inner;
  });
}

function conditionIn(text: string, write: (text: string) => void): Asked[] {
  return text.includes('prefers-color-scheme') ? [{ text, write }] : [];
}

/** A list of schemes that leaves the choice to the visitor. */
function choiceIn(text: string, write: (text: string) => void): Asked[] {
  return /\blight\b/.test(text) && /\bdark\b/.test(text) ? [{ text, write }] : [];
}
