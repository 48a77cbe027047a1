import type { ElementNode } from '@upper-veneer/core';
import type { BrowserContext, CDPSession, Page } from 'playwright-core';

/** Pseudo-classes that Chromium can be told to take for held. */
const FORCEABLE: ReadonlySet<string> = new Set([
  'hover',
  'active',
  'focus',
  'focus-visible',
  'focus-within',
  'user-invalid',
  'user-valid',
  'valid',
  'autofill',
]);

/** What is watched of every element: what paints, and what does not hang on where others stand. */
export const WATCHED = [
  'color',
  'background-color',
  'background-image',
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
  'border-top-style',
  'border-left-style',
  'border-top-width',
  'border-left-width',
  'border-top-left-radius',
  'border-bottom-right-radius',
  'outline-color',
  'outline-style',
  'outline-width',
  'text-decoration-line',
  'text-decoration-color',
  'text-decoration-style',
  'box-shadow',
  'text-shadow',
  'caret-color',
  'accent-color',
  'fill',
  'stroke',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'letter-spacing',
  'text-transform',
  'visibility',
  'display',
  'scrollbar-color',
] as const;

/** A page in Chromium on which a veneer is laid and elements are put into states. */
export class ProofPage {
  #loaded = '';
  #nodeIds: readonly number[] = [];
  #release: (() => Promise<void>)[] = [];

  private constructor(
    readonly page: Page,
    readonly session: CDPSession,
  ) {}

  static async open(context: BrowserContext): Promise<ProofPage> {
    const page = await context.newPage();
    return new ProofPage(page, await context.newCDPSession(page));
  }

  /** Loads a page; one that is there already stays. */
  async load(url: string): Promise<void> {
    if (this.#loaded === url) return;
    await this.page.goto(url);
    await this.page.evaluate(() => {
      const still = new CSSStyleSheet();
      still.replaceSync('*, ::before, ::after { transition: none !important; animation: none !important }');
      document.adoptedStyleSheets = [still];
      const style = document.createElement('style');
      style.setAttribute('data-proof', '');
      document.head.append(style);
    });
    await this.session.send('DOM.enable');
    await this.session.send('CSS.enable');
    const { root } = await this.session.send('DOM.getDocument', { depth: -1 });
    this.#nodeIds = (
      await this.session.send('DOM.querySelectorAll', { nodeId: root.nodeId, selector: '*:not([data-proof])' })
    ).nodeIds;
    this.#loaded = url;
    this.#release = [];
  }

  /** Width of the window in CSS px, and the lighting asked for. */
  async showAt(width: number, colorScheme: 'light' | 'dark'): Promise<void> {
    await this.page.setViewportSize({ width, height: 800 });
    await this.page.emulateMedia({ colorScheme });
  }

  /** Lays a veneer on at the end of the head. */
  async write(css: string): Promise<void> {
    await this.page.evaluate((text) => {
      const style = document.querySelector('[data-proof]');
      if (style) style.textContent = text;
    }, css);
  }

  /** Puts elements of the document tree into states as the core names them, `places` by their order in that tree. */
  async force(
    states: ReadonlyMap<ElementNode, ReadonlySet<string>>,
    places: ReadonlyMap<ElementNode, number>,
  ): Promise<void> {
    for (const [element, names] of states) {
      const place = places.get(element);
      if (place === undefined) continue;
      const forced = [...names].filter((name) => FORCEABLE.has(name));
      if (forced.length > 0) {
        const nodeId = this.#nodeIds[place];
        await this.session.send('CSS.forcePseudoState', { nodeId, forcedPseudoClasses: forced });
        this.#release.push(async () => {
          await this.session.send('CSS.forcePseudoState', { nodeId, forcedPseudoClasses: [] });
        });
      }
      const rest = [...names].filter((name) => !FORCEABLE.has(name));
      if (rest.length > 0) await this.#put(place, rest);
    }
  }

  async #put(place: number, names: readonly string[]): Promise<void> {
    const handle = await this.page.evaluateHandle(
      ([at, wanted]) => {
        const element = [...document.querySelectorAll('*:not([data-proof])')][at] as HTMLInputElement;
        const before = {
          html: [...element.attributes].map(({ name, value }) => [name, value] as const),
          value: element.value,
          checked: element.checked,
        };
        for (const name of wanted) {
          if (name === 'checked') element.checked = true;
          else if (name === '!checked') element.checked = false;
          else if (name === 'indeterminate') element.indeterminate = true;
          else if (name.startsWith('![')) element.removeAttribute(name.slice(2));
          else if (name.startsWith('!.')) element.classList.remove(name.slice(2));
          else if (name === 'invalid') element.setCustomValidity?.('refused');
          else if (name === '!placeholder-shown') element.value = /^(?:number|date)$/.test(element.type) ? '' : 'Wren';
          else if (name.startsWith('.')) element.classList.add(name.slice(1));
          else if (name.startsWith('['))
            element.setAttribute(name.slice(1, name.indexOf('=')), name.slice(name.indexOf('=') + 1));
        }
        return { element, before };
      },
      [place, names] as const,
    );
    this.#release.push(async () => {
      await handle.evaluate(({ element, before }) => {
        for (const { name } of [...element.attributes]) element.removeAttribute(name);
        for (const [name, value] of before.html) element.setAttribute(name, value);
        if ('value' in element && element.localName === 'input' && element.type !== 'file')
          element.value = before.value;
        if ('checked' in element) element.checked = before.checked;
        if ('indeterminate' in element) element.indeterminate = false;
        if ('setCustomValidity' in element) element.setCustomValidity('');
      });
      await handle.dispose();
    });
  }

  /** Places of the elements that a selector matches as the page stands. */
  async matching(selector: string): Promise<number[]> {
    return this.page.evaluate(
      (text) =>
        [...document.querySelectorAll('*:not([data-proof])')].flatMap((element, at) =>
          element.matches(text) ? [at] : [],
        ),
      selector,
    );
  }

  async release(): Promise<void> {
    for (const release of this.#release.splice(0).reverse()) await release();
  }

  /** Values of properties on every element of the document tree, in its order, as Chromium computes them. */
  async valuesOf(properties: readonly string[], pseudo = ''): Promise<string[][]> {
    return this.page.evaluate(
      ([names, part]) =>
        [...document.querySelectorAll('*')]
          .filter((element) => !element.hasAttribute('data-proof'))
          .map((element) => {
            const style = getComputedStyle(element, part === '' ? null : `::${part}`);
            return names.map((name) => style.getPropertyValue(name));
          }),
      [properties, pseudo] as const,
    );
  }
}
