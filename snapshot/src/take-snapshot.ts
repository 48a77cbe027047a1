import type { Message } from '@upper-veneer/words';

/** A page as it stands in a browser, as one HTML text that needs no script to look so. */
export interface Snapshot {
  readonly html: string;
  readonly title: string;
  /** Address it was taken at. */
  readonly address: string;
  /** Address that what it refers to is found from. */
  readonly base: string;
  /** What an HTML text cannot hold. */
  readonly lost: readonly Message[];
}

export interface SnapshotOptions {
  /** Whether linked sheets are written into the page too, as for a file that stands by itself. */
  readonly isWhole: boolean;
  /** Whether scripts run there: where none can, none has changed a sheet, and nothing is waited for. */
  readonly isScripted: boolean;
  /** Addresses under which the documents of its frames are kept; of others it is said that they are not. */
  readonly frames: readonly { readonly element: unknown; readonly address: string }[];
}

/**
 * Takes the page it runs in as HTML: sheets that scripts made or changed, open shadow trees (declarative), the state of fields, canvases
 * as pictures, addresses made absolute, what stands in the top layer marked (`data-top-layer`). Runs in the page, by itself: whoever runs it hands its source over, so that it can use nothing
 * from outside. Sources: HTML §13.3 for serialising, CSSOM §6.6 for what a sheet says, HTML §4.12.3 for declarative shadow roots.
 */
export async function takeSnapshot({ isWhole, isScripted, frames }: SnapshotOptions): Promise<Snapshot> {
  const frameAt = new Map(frames.map(({ element, address }) => [element, address]));
  const VOID = new Set(
    'area base br col embed hr img input link meta source track wbr basefont bgsound frame keygen param'.split(' '),
  );
  const RAW = new Set(['style', 'script', 'xmp', 'iframe', 'noembed', 'noframes', 'plaintext', 'noscript']);
  const ADDRESSES: Readonly<Record<string, readonly string[]>> = {
    link: ['href'],
    img: ['src'],
    source: ['src'],
    video: ['src', 'poster'],
    audio: ['src'],
    input: ['src'],
    iframe: ['src'],
    image: ['href', 'xlink:href'],
    use: ['href', 'xlink:href'],
  };
  const lost = new Map<string, Message>();
  const lose = (code: Message['code'], values: Readonly<Record<string, string>> = {}): void => {
    lost.set(JSON.stringify([code, values]), { code, values });
  };
  const inText = (text: string): string =>
    text.replaceAll('&', '&amp;').replaceAll('\u00a0', '&nbsp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
  const inAttribute = (text: string): string =>
    text.replaceAll('&', '&amp;').replaceAll('\u00a0', '&nbsp;').replaceAll('"', '&quot;');

  /** A sheet's rules as the browser has them by now; `null` where another origin keeps them from being read. */
  const textOf = (sheet: CSSStyleSheet): string | null => {
    let rules: CSSRuleList;
    try {
      rules = sheet.cssRules;
    } catch {
      return null;
    }
    const base = sheet.href ?? document.baseURI;
    const text = [...rules].map(({ cssText }) => cssText).join('\n');
    // The browser writes addresses in double quotes; they lead from the sheet, and stand in the page now.
    return text
      .replaceAll(/url\("((?:[^"\\]|\\.)*)"\)/g, (whole, address: string) => {
        if (/^(?:data:|#)/i.test(address) || !URL.canParse(address, base)) return whole;
        return `url("${new URL(address, base).href}")`;
      })
      .replaceAll(/<\/style/gi, '<\\/style');
  };
  const asStyle = (sheet: CSSStyleSheet, attributes = ''): string => {
    const media = sheet.disabled ? 'not all' : sheet.media.mediaText;
    return `<style${attributes}${media === '' ? '' : ` media="${inAttribute(media)}"`}>${textOf(sheet) ?? ''}</style>`;
  };
  /** Whether a linked file still says what the page has of it. */
  const isUnchanged = async (sheet: CSSStyleSheet): Promise<boolean> => {
    if (!sheet.href || sheet.disabled) return !sheet.disabled;
    const now = textOf(sheet);
    if (now === null) return true;
    try {
      const answer = await fetch(sheet.href, { cache: 'force-cache' });
      const parsed = new CSSStyleSheet({ baseURL: sheet.href });
      const text = await answer.text();
      // What an imported sheet brings is not read here, and no script inserts into it.
      if (/@import/i.test(text)) return true;
      parsed.replaceSync(text);
      return (
        [...parsed.cssRules].map(({ cssText }) => cssText).join() ===
        [...sheet.cssRules].map(({ cssText }) => cssText).join()
      );
    } catch {
      return true;
    }
  };
  /** Whether a style element's text still says what the page has of it. */
  const isAsWritten = (sheet: CSSStyleSheet, text: string): boolean => {
    if (/@import/i.test(text)) return true;
    const parsed = new CSSStyleSheet();
    parsed.replaceSync(text);
    return (
      [...parsed.cssRules].map(({ cssText }) => cssText).join() ===
      [...sheet.cssRules].map(({ cssText }) => cssText).join()
    );
  };
  const changed = new Set<CSSStyleSheet>();
  const linked = (root: Document | ShadowRoot): CSSStyleSheet[] => [...root.styleSheets];
  const roots: (Document | ShadowRoot)[] = [document];
  for (const root of roots) {
    for (const element of root.querySelectorAll('*')) if (element.shadowRoot) roots.push(element.shadowRoot);
    for (const sheet of linked(root))
      if (sheet.ownerNode instanceof HTMLLinkElement) {
        if (isWhole && textOf(sheet) === null) lose('lost.stylesheet', { address: sheet.href ?? '' });
        else if (isWhole || sheet.href?.startsWith('blob:') || (isScripted && !(await isUnchanged(sheet))))
          changed.add(sheet);
      }
  }

  /** Pictures that the page made up for itself have no address outside of it. */
  const own = new Map<string, string>();
  for (const root of roots)
    for (const image of root.querySelectorAll<HTMLImageElement>('img'))
      if (isScripted && image.currentSrc.startsWith('blob:'))
        try {
          const body = await (await fetch(image.currentSrc)).blob();
          own.set(
            image.currentSrc,
            await new Promise<string>((done) => {
              const reader = new FileReader();
              reader.onload = () => done(String(reader.result));
              reader.onerror = () => done('');
              reader.readAsDataURL(body);
            }),
          );
        } catch {
          lose('lost.picture');
        }

  const absolute = (value: string): string => {
    const address = value.trim();
    if (address === '' || /^(?:#|data:|javascript:|about:)/i.test(address)) return value;
    return URL.canParse(address, document.baseURI) ? new URL(address, document.baseURI).href : value;
  };
  /** Attributes as they are to stand, with the state a script or a visitor put the element into. */
  const attributesOf = (element: Element): Map<string, string> => {
    const attributes = new Map([...element.attributes].map(({ name, value }) => [name, value]));
    for (const name of ADDRESSES[element.localName] ?? [])
      if (attributes.has(name)) attributes.set(name, absolute(attributes.get(name) ?? ''));
    const toggle = (name: string, isOn: boolean): void => {
      if (isOn) attributes.set(name, '');
      else attributes.delete(name);
    };
    if ('sheet' in element && element.sheet instanceof CSSStyleSheet && element.sheet.disabled)
      attributes.delete('media');
    if (element instanceof HTMLImageElement) {
      if (element.currentSrc !== '') attributes.set('src', own.get(element.currentSrc) ?? element.currentSrc);
      attributes.delete('srcset');
      attributes.delete('loading');
    } else if (element instanceof HTMLInputElement) {
      if (['checkbox', 'radio'].includes(element.type)) toggle('checked', element.checked);
      else if (
        element.type !== 'file' &&
        element.type !== 'password' &&
        element.value !== (attributes.get('value') ?? '')
      )
        attributes.set('value', element.value);
      if (element.indeterminate) lose('lost.half-ticked');
    } else if (element instanceof HTMLOptionElement) toggle('selected', element.selected);
    else if (element instanceof HTMLCanvasElement) {
      try {
        const style = attributes.get('style') ?? '';
        attributes.set('style', `${style}; background: url("${element.toDataURL()}") 0 0 / 100% 100% no-repeat`);
      } catch {
        lose('lost.canvas');
      }
    }
    attributes.delete('data-top-layer');
    if (element instanceof HTMLDialogElement && element.matches(':modal')) attributes.set('data-top-layer', 'modal');
    else if (element.hasAttribute('popover') && element.matches(':popover-open'))
      attributes.set('data-top-layer', 'popover');
    if (element instanceof HTMLIFrameElement) {
      const kept = frameAt.get(element);
      if (kept !== undefined) {
        attributes.set('src', kept);
        attributes.delete('srcdoc');
        attributes.delete('loading');
      } else if (isWhole || element.hasAttribute('srcdoc')) {
        const frame = element.title || element.name || element.src;
        if (frame === '') lose('lost.frame-unnamed');
        else lose('lost.frame', { frame });
      }
    }
    return attributes;
  };

  const isInBody = linked(document).some(
    ({ ownerNode }) => ownerNode instanceof Node && document.body.contains(ownerNode),
  );
  const adopting = isInBody ? document.body : document.head;
  const styleAt = (root: Document | ShadowRoot): string =>
    root.adoptedStyleSheets.map((sheet) => asStyle(sheet)).join('');
  /** Without recursion: pages nest deeply. */
  const written = (start: Node): string => {
    const out: string[] = [];
    const open: (Node | string)[] = [start];
    for (let next = open.pop(); next !== undefined; next = open.pop()) {
      if (typeof next === 'string') {
        out.push(next);
        continue;
      }
      if (next instanceof Text) {
        const parent = next.parentElement?.localName ?? '';
        out.push(RAW.has(parent) ? next.data : inText(next.data));
        continue;
      }
      if (next instanceof Comment) {
        out.push(`<!--${next.data}-->`);
        continue;
      }
      if (!(next instanceof Element)) continue;
      const element = next;
      const name = element.localName;
      const sheet = 'sheet' in element && element.sheet instanceof CSSStyleSheet ? element.sheet : null;
      if (sheet && name === 'link' && changed.has(sheet)) {
        // It stands where the link stood, under the same names.
        const names = ['id', 'class'].flatMap((own) =>
          element.hasAttribute(own) ? [` ${own}="${inAttribute(element.getAttribute(own) ?? '')}"`] : [],
        );
        out.push(asStyle(sheet, names.join('')));
        continue;
      }
      const attributes = [...attributesOf(element)].map(([own, value]) => ` ${own}="${inAttribute(value)}"`).join('');
      // A sheet that a script switched off says so by its medium.
      const isOff = sheet?.disabled === true && !element.hasAttribute('disabled');
      out.push(`<${name}${attributes}${isOff ? ' media="not all"' : ''}>`);
      if (VOID.has(name)) continue;
      const end = `</${name}>`;
      if (name === 'script' || name === 'iframe') {
        out.push(end);
        continue;
      }
      if (name === 'style' && sheet) {
        const text = element.textContent ?? '';
        out.push(isAsWritten(sheet, text) ? text : (textOf(sheet) ?? text), end);
        continue;
      }
      if (element instanceof HTMLTextAreaElement) {
        out.push(`\n${inText(element.value)}`, end);
        continue;
      }
      const content = element instanceof HTMLTemplateElement ? element.content : element;
      open.push(end);
      // Adopted sheets come after those of the tree, in which they stand last then.
      if (element === adopting) open.push(styleAt(document));
      for (const child of [...content.childNodes].reverse()) open.push(child);
      const root = element.shadowRoot;
      if (root) {
        const options = `${root.delegatesFocus ? ' shadowrootdelegatesfocus' : ''}`;
        open.push(`${styleAt(root)}</template>`);
        for (const child of [...root.childNodes].reverse()) open.push(child);
        open.push(`<template shadowrootmode="open"${options}>`);
      } else if (name.includes('-') && element.childNodes.length === 0) lose('lost.closed-tree', { name });
    }
    return out.join('');
  };
  const { doctype } = document;
  const html = `${doctype ? `<!DOCTYPE ${doctype.name}${doctype.publicId === '' ? '' : ` PUBLIC "${doctype.publicId}" "${doctype.systemId}"`}>` : ''}${written(document.documentElement)}`;
  // What the parser would build otherwise than the script did, such as a block in a paragraph.
  const parsed = new DOMParser().parseFromString(html, 'text/html');
  const count = (root: Document): number => root.querySelectorAll('*').length;
  const made = document.querySelectorAll('*').length + document.adoptedStyleSheets.length;
  if (parsed.querySelectorAll('template[shadowrootmode]').length === 0 && count(parsed) !== made) lose('lost.nested');
  return { html, title: document.title, address: location.href, base: document.baseURI, lost: [...lost.values()] };
}
