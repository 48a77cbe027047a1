import type { SeenElement } from '@upper-veneer/core';

export type EyeQuestion =
  | { readonly kind: 'find'; readonly selector: string; readonly words: string }
  | { readonly kind: 'map'; readonly most: number };

/** Either one element, or all that stands in the window. */
export interface EyeAnswer {
  readonly element: Element | null;
  /** How many would do; the first that shows is the one. */
  readonly count: number;
  readonly isShown: boolean;
  readonly map: readonly SeenElement[];
}

/**
 * Looks at the page it runs in: finds what a step is done to, or says what stands where, past the window too, and by what it would be
 * found again. Runs in the page, by itself, so that it can use nothing from outside. Names of elements follow accessible names where they are plain (accname §4.3.2).
 */
export function lookAtPage(question: EyeQuestion): EyeAnswer {
  const roots: (Document | ShadowRoot)[] = [document];
  for (const root of roots)
    for (const element of root.querySelectorAll('*')) if (element.shadowRoot) roots.push(element.shadowRoot);
  const squeeze = (text: string): string => text.replaceAll(/\s+/g, ' ').trim();
  /** Asked of the same elements over and over, while nothing changes. */
  const once = <K, V>(ask: (key: K) => V): ((key: K) => V) => {
    const known = new Map<K, V>();
    return (key) => {
      let answer = known.get(key);
      if (answer === undefined) known.set(key, (answer = ask(key)));
      return answer;
    };
  };
  const wordsOf = once((element: Element): string => {
    const label = element.getAttribute('aria-label');
    if (label !== null && squeeze(label) !== '') return squeeze(label);
    if (element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement) {
      if (['submit', 'button', 'reset'].includes(element.type)) return squeeze(element.value);
      return squeeze(element.labels?.[0]?.textContent ?? element.placeholder);
    }
    if (element instanceof HTMLSelectElement) return squeeze(element.labels[0]?.textContent ?? '');
    if (element instanceof HTMLImageElement) return squeeze(element.alt);
    const text = (element as HTMLElement).innerText ?? element.textContent ?? '';
    return text.length > 2000 ? '' : squeeze(text) || squeeze(element.getAttribute('title') ?? '');
  });
  const isShown = once((element: Element): boolean => {
    const { width, height } = element.getBoundingClientRect();
    return width > 0 && height > 0 && element.checkVisibility({ visibilityProperty: true });
  });
  const matched = once((selector: string): Element[] =>
    roots.flatMap((root) => [...root.querySelectorAll(selector === '' ? '*' : selector)]),
  );
  const matchedByWords = once((selector: string): Map<string, Element[]> => {
    const byWords = new Map<string, Element[]>();
    for (const element of matched(selector)) {
      const words = wordsOf(element);
      const same = byWords.get(words);
      if (same) same.push(element);
      else byWords.set(words, [element]);
    }
    return byWords;
  });
  const matching = (selector: string, words: string): Element[] => {
    if (words === '') return matched(selector);
    const same = matchedByWords(selector).get(words) ?? [];
    // By words alone: the innermost that says them, not all around it.
    return selector === ''
      ? same.filter((element) => !same.some((other) => other !== element && element.contains(other)))
      : same;
  };
  if (question.kind === 'find') {
    const all = matching(question.selector, question.words);
    const shown = all.filter(isShown);
    const element = shown[0] ?? all[0] ?? null;
    return { element, count: shown.length || all.length, isShown: shown.length > 0, map: [] };
  }

  /** Names that builds make up, which are others after the next one. */
  const isMadeUp = (name: string): boolean =>
    /^(?:css|sc|jsx|emotion|styled)-/.test(name) ||
    (/\d/.test(name) && /^[a-z0-9_-]{5,}$/i.test(name) && !/^[a-z]+(?:[-_]{1,2}[a-z]+)*[-_]?\d{1,3}$/i.test(name));
  const quoted = (text: string): string => `"${text.replaceAll(/["\\]/g, '\\$&')}"`;
  const isOne = (selector: string, words: string): boolean => {
    const all = matching(selector, words);
    if (all.length === 1) return true;
    let shown = 0;
    for (const element of all) if (isShown(element) && (shown += 1) > 1) return false;
    return shown === 1;
  };
  const PRESSED =
    'button, a[href], input, select, textarea, summary, label, [role="button"], [role="link"], [role="tab"], [role="menuitem"], [role="checkbox"], [role="switch"], [onclick], [tabindex], [contenteditable]';
  const NAMED = 'dialog, [popover], [role="dialog"], iframe, form, h1, h2, h3, img, video, nav, aside, section, [id]';
  /** What holds others is not called by all that they say. */
  const ownWords = (element: Element): string => {
    if (element.matches(`${PRESSED}, h1, h2, h3`) || element.childElementCount === 0) return wordsOf(element);
    return squeeze(element.getAttribute('aria-label') ?? '');
  };
  const findableBy = (element: Element): { selector: string; words: string } => {
    const tag = CSS.escape(element.localName);
    const role = element.getAttribute('role');
    const words = ownWords(element);
    const named = ['name', 'data-name', 'type', 'href'].flatMap((name) => {
      const value = element.getAttribute(name);
      return value !== null && value !== '' && value.length <= 80 ? [`${tag}[${name}=${quoted(value)}]`] : [];
    });
    const classes = [...element.classList].filter((name) => !isMadeUp(name)).map((name) => `.${CSS.escape(name)}`);
    const wanted: { selector: string; words: string }[] = [];
    if (element.id !== '' && !isMadeUp(element.id)) wanted.push({ selector: `#${CSS.escape(element.id)}`, words: '' });
    if (words !== '' && words.length <= 60 && !(element instanceof HTMLIFrameElement))
      wanted.push({ selector: role ? `[role=${quoted(role)}]` : tag, words });
    for (const selector of named) wanted.push({ selector, words: '' });
    for (const name of classes) wanted.push({ selector: `${tag}${name}`, words: '' });
    if (classes.length > 1) wanted.push({ selector: `${tag}${classes.join('')}`, words: '' });
    wanted.push({ selector: tag, words: '' });
    const one = wanted.find(({ selector, words: said }) => isOne(selector, said));
    if (one) return one;
    // By its place, from the nearest that can be told.
    let path = '';
    for (let node: Element | null = element; node !== null; node = node.parentElement) {
      const { localName, parentElement } = node;
      const alike = [...(parentElement?.children ?? [])].filter((other) => other.localName === localName);
      const place = alike.length > 1 ? `:nth-of-type(${alike.indexOf(node) + 1})` : '';
      path = `${CSS.escape(localName)}${place}${path === '' ? '' : ` > ${path}`}`;
      if (isOne(path, '')) break;
      if (node.id !== '' && !isMadeUp(node.id)) {
        path = path.replace(/^[^ >]+/, `#${CSS.escape(node.id)}`);
        break;
      }
    }
    return { selector: path, words: '' };
  };
  const map: SeenElement[] = [];
  const mappedAlready = new Set<Element>();
  const mapped = (selector: string): void => {
    for (const root of roots)
      for (const element of root.querySelectorAll(selector)) {
        if (map.length >= question.most) return;
        const { x, y, width, height } = element.getBoundingClientRect();
        if (width < 4 || height < 4) continue;
        const isInWindow = x < innerWidth && y < innerHeight && x + width > 0 && y + height > 0;
        if (mappedAlready.has(element) || !isShown(element)) continue;
        if (root === document && map.length > 0 && element.matches('html, body, main')) continue;
        // A label stands for its field, unless a maker draws that by the label alone.
        if (element instanceof HTMLLabelElement && element.control && isShown(element.control)) continue;
        // What is covered where its middle is cannot be pointed at.
        const [midX, midY] = [
          Math.min(innerWidth - 1, Math.max(0, x + width / 2)),
          Math.min(innerHeight - 1, Math.max(0, y + height / 2)),
        ];
        const top = isInWindow ? root.elementFromPoint(midX, midY) : null;
        if (top && top !== element && !element.contains(top) && !top.contains(element) && !element.shadowRoot) continue;
        mappedAlready.add(element);
        const isList = element instanceof HTMLSelectElement;
        const isTicked = element instanceof HTMLInputElement && ['checkbox', 'radio'].includes(element.type);
        const isTyped =
          element instanceof HTMLTextAreaElement ||
          (element instanceof HTMLElement && element.isContentEditable) ||
          (element instanceof HTMLInputElement &&
            !isTicked &&
            !['submit', 'button', 'reset', 'image', 'range', 'color', 'file'].includes(element.type));
        const act = isList ? 'choose' : isTyped ? 'type' : element.matches(PRESSED) ? 'press' : 'wait';
        const mark = element.id !== '' ? `#${element.id}` : element.classList[0] ? `.${element.classList[0]}` : '';
        const title = element.getAttribute('title') ?? '';
        const name = (ownWords(element) || title || `${element.localName}${mark}`).slice(0, 60);
        map.push({
          box: { x, y, width, height },
          ...findableBy(element),
          name,
          act,
          choices: isList ? [...element.options].slice(0, 60).map(({ label }) => squeeze(label)) : [],
        });
      }
  };
  mapped(PRESSED);
  mapped(NAMED);
  return { element: null, count: 0, isShown: false, map };
}
