import { parse, serialize, type DefaultTreeAdapterTypes as P5 } from 'parse5';
import { random } from './random.js';

/** A page after a theme's update, with what each of its elements was before: by running number, `null` for what is new. */
export interface UpdatedPage {
  readonly html: string;
  readonly was: readonly (number | null)[];
}

/** A site's texts after an update, and what was done. */
export interface ThemeUpdate {
  readonly pages: ReadonlyMap<number, UpdatedPage>;
  readonly stylesheets: Readonly<Record<string, string>>;
  readonly done: readonly string[];
}

interface Texts {
  readonly pages: readonly { readonly id: number; readonly html: string }[];
  readonly stylesheets: Readonly<Record<string, string>>;
}

type Numbered = P5.Element & { was?: number | null };

/** One change of a theme, over all its pages and sheets. @returns what it did; `null` where there is nothing for it. */
type Change = (theme: Theme, draw: () => number) => string | null;

/** A theme being changed: its pages as trees whose elements know what they were. */
class Theme {
  readonly trees = new Map<number, P5.Document>();
  sheets: Record<string, string>;

  constructor({ pages, stylesheets }: Texts) {
    for (const { id, html } of pages) {
      const tree = parse(html, { scriptingEnabled: false });
      elementsIn(tree).forEach((element, i) => (element.was = i));
      this.trees.set(id, tree);
    }
    this.sheets = { ...stylesheets };
  }

  all(): Numbered[] {
    return [...this.trees.values()].flatMap(elementsIn);
  }

  /** Names that elements have by an attribute, each once. */
  names(attribute: 'class' | 'id'): string[] {
    return [
      ...new Set(this.all().flatMap((element) => (attributeOf(element, attribute) ?? '').split(/\s+/).filter(Boolean))),
    ];
  }

  /** Puts another name for a class or id, in markup and sheets alike. */
  rename(attribute: 'class' | 'id', from: string, to: string): void {
    for (const element of this.all()) {
      const own = attributeOf(element, attribute);
      if (own?.split(/\s+/).includes(from))
        setAttribute(
          element,
          attribute,
          own
            .split(/\s+/)
            .map((name) => (name === from ? to : name))
            .join(' '),
        );
      for (const pointing of ['for', 'aria-labelledby', 'aria-controls'])
        if (attribute === 'id' && attributeOf(element, pointing) === from) setAttribute(element, pointing, to);
    }
    const sign = attribute === 'class' ? '\\.' : '#';
    const pattern = new RegExp(`${sign}${from.replace(/[^\w-]/g, '\\$&')}(?![\\w-])`, 'g');
    this.inSheets((css) => css.replace(pattern, `${attribute === 'class' ? '.' : '#'}${to}`));
  }

  /** Changes every stylesheet and `<style>`. */
  inSheets(change: (css: string) => string): void {
    this.sheets = Object.fromEntries(Object.entries(this.sheets).map(([path, css]) => [path, change(css)]));
    for (const element of this.all())
      if (element.tagName === 'style')
        for (const child of element.childNodes) if ('value' in child) child.value = change(child.value);
  }
}

/** Class names by what they might become at a theme's next release. */
const NEW_NAMES: readonly ((name: string) => string)[] = [
  (name) => `${name}-v2`,
  (name) => `x${name}`,
  (name) => name.replace(/^[a-z]+-/, 'nu-'),
  (name) => name.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase()),
  (name) => `${name}__root`,
  // Nothing of the old name is left.
  (name) => `k${name.length}-${WORDS[name.length % WORDS.length]}`,
];
const WORDS = ['plait', 'strake', 'thwart', 'gunnel', 'withy'];

const CHANGES: Readonly<Record<string, Change>> = {
  'renames a class': (theme, draw) => {
    const name = pick(theme.names('class'), draw);
    if (name === undefined) return null;
    const to = pick(NEW_NAMES, draw)?.(name) ?? name;
    if (to === name || theme.names('class').includes(to)) return null;
    theme.rename('class', name, to);
    return `${name} to ${to}`;
  },
  'renames an id': (theme, draw) => {
    const name = pick(theme.names('id'), draw);
    if (name === undefined) return null;
    theme.rename('id', name, `${name}-main`);
    return name;
  },
  'renames all of a maker’s classes': (theme, draw) => {
    const prefix = pick([...new Set(theme.names('class').flatMap((name) => /^[a-z]+-/.exec(name)?.[0] ?? []))], draw);
    if (prefix === undefined) return null;
    for (const name of theme.names('class').filter((own) => own.startsWith(prefix)))
      theme.rename('class', name, `n${name}`);
    return prefix;
  },
  'moves a class to a new element around': (theme, draw) => {
    const name = pick(theme.names('class'), draw);
    const around = theme.all().filter((element) => hasClass(element, name ?? '') && mayBeWrapped(element));
    for (const element of around) {
      const wrapper = wrap(element);
      setAttribute(wrapper, 'class', `${name ?? ''}-wrap`);
    }
    return around.length === 0 ? null : (name ?? null);
  },
  'takes a class off': (theme, draw) => {
    const name = pick(theme.names('class'), draw);
    const own = theme.all().filter((element) => hasClass(element, name ?? ''));
    for (const element of own)
      setAttribute(
        element,
        'class',
        (attributeOf(element, 'class') ?? '')
          .split(/\s+/)
          .filter((other) => other !== name)
          .join(' '),
      );
    return own.length === 0 ? null : (name ?? null);
  },
  'changes a tag': (theme, draw) => {
    const [from, to] = pick(TAGS, draw) ?? TAGS[0];
    const own = theme.all().filter(({ tagName }) => tagName === from);
    for (const element of own) element.tagName = element.nodeName = to;
    const pattern = new RegExp(`(^|[\\s,>+~{}])${from}(?=[\\s,.:#\\[>+~{])`, 'g');
    theme.inSheets((css) => css.replace(pattern, `$1${to}`));
    return own.length === 0 ? null : `${from} to ${to}`;
  },
  'sets an element before others': (theme, draw) => {
    const name = pick(theme.names('class'), draw);
    const own = theme.all().filter((element) => hasClass(element, name ?? '') && mayBeWrapped(element));
    for (const element of own) {
      const siblings = element.parentNode?.childNodes ?? [];
      const first = siblings.findIndex((node) => 'tagName' in node);
      siblings.splice(siblings.indexOf(element), 1);
      siblings.splice(first, 0, element);
    }
    return own.length === 0 ? null : (name ?? null);
  },
  'loads its sheets in another order': (theme) => {
    let count = 0;
    for (const tree of theme.trees.values()) {
      const links = elementsIn(tree).filter(
        (element) => element.tagName === 'link' && attributeOf(element, 'rel') === 'stylesheet',
      );
      const addresses = links.map((element) => attributeOf(element, 'href') ?? '').reverse();
      links.forEach((element, i) => setAttribute(element, 'href', addresses[i]));
      count += links.length;
    }
    return count < 2 ? null : 'reversed';
  },
  'says a rule more strongly': (theme, draw) => {
    const name = pick(theme.names('class'), draw);
    if (name === undefined) return null;
    const pattern = new RegExp(`\\.${name.replace(/[^\w-]/g, '\\$&')}(?![\\w-])`, 'g');
    theme.inSheets((css) => css.replace(pattern, `.${name}.${name}.${name}`));
    return name;
  },
  'sets new elements in': (theme, draw) => {
    const name = pick(theme.names('class'), draw);
    const own = theme.all().filter((element) => hasClass(element, name ?? '') && mayBeWrapped(element));
    for (const element of own.slice(0, 3)) {
      const copy: Numbered = {
        ...element,
        was: null,
        childNodes: [],
        attrs: element.attrs.map((attr) => ({ ...attr })),
      };
      copy.attrs = copy.attrs.filter((attr) => attr.name !== 'id');
      element.parentNode?.childNodes.push(copy);
    }
    return own.length === 0 ? null : (name ?? null);
  },
};

const TAGS = [
  ['section', 'div'],
  ['h3', 'h4'],
  ['article', 'div'],
  ['strong', 'b'],
  ['header', 'div'],
] as const;

/** A seeded update of a theme: one to three changes. @throws when none of them can be made, which does not happen on pages with classes. */
export function themeUpdate(texts: Texts, seed: number): ThemeUpdate {
  const draw = random(seed);
  const theme = new Theme(texts);
  const done: string[] = [];
  const wanted = 1 + Math.floor(draw() * 3);
  for (let tries = 0; done.length < wanted && tries < 60; tries += 1) {
    const [words, change] = pick(Object.entries(CHANGES), draw) ?? ['', () => null];
    const what = change(theme, draw);
    if (what !== null) done.push(`${words} (${what})`);
  }
  if (done.length === 0) throw new Error('Nothing of the theme could be changed');
  const pages = new Map(
    [...theme.trees].map(([id, tree]): [number, UpdatedPage] => {
      const was = elementsIn(tree).map((element) => element.was ?? null);
      return [id, { html: serialize(tree), was }];
    }),
  );
  return { pages, stylesheets: theme.sheets, done };
}

/** Elements in the order of their running numbers: those of shadow trees after all others. */
function elementsIn(tree: P5.Document): Numbered[] {
  const own: Numbered[] = [];
  const shadows: P5.Template[] = [];
  const visit = (node: P5.ParentNode): void => {
    for (const child of node.childNodes) {
      if (!('tagName' in child)) continue;
      if ('content' in child && attributeOf(child, 'shadowrootmode') !== undefined) {
        shadows.push(child as P5.Template);
        continue;
      }
      own.push(child);
      visit(child);
    }
  };
  visit(tree);
  for (const { content } of shadows) visit(content);
  return own;
}

const LOOSE = new Set(['div', 'section', 'article', 'main', 'body', 'form', 'header', 'footer', 'aside', 'nav']);

/** Whether an element may stand in a block of its own, or elsewhere in its parent, and be parsed so. */
function mayBeWrapped({ tagName, parentNode }: Numbered): boolean {
  return (
    parentNode !== null &&
    'tagName' in parentNode &&
    LOOSE.has(parentNode.tagName) &&
    !['body', 'html', 'style', 'link', 'script', 'template'].includes(tagName)
  );
}

function wrap(element: Numbered): Numbered {
  const parent = element.parentNode as P5.Element;
  const wrapper = {
    nodeName: 'div',
    tagName: 'div',
    attrs: [],
    namespaceURI: parent.namespaceURI,
    childNodes: [element],
    parentNode: parent,
    was: null,
  } as unknown as Numbered;
  parent.childNodes[parent.childNodes.indexOf(element)] = wrapper;
  element.parentNode = wrapper;
  return wrapper;
}

function attributeOf({ attrs }: P5.Element, name: string): string | undefined {
  return attrs.find((attr) => attr.name === name)?.value;
}

function setAttribute(element: P5.Element, name: string, value: string): void {
  const own = element.attrs.find((attr) => attr.name === name);
  if (own) own.value = value;
  else element.attrs.push({ name, value });
}

function hasClass(element: P5.Element, name: string): boolean {
  return (attributeOf(element, 'class') ?? '').split(/\s+/).includes(name);
}

function pick<T>(list: readonly T[], draw: () => number): T | undefined {
  return list[Math.floor(draw() * list.length)];
}
