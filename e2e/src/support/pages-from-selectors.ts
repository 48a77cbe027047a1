import { parsePage } from '@upper-veneer/core';

type ComplexSelector = ReturnType<typeof parsePage>['base']['rules'][number]['selectors'][number];
type Compound = ComplexSelector['compounds'][number];

/** An element to be written. */
interface Draft {
  tag: string;
  id: string;
  readonly classes: Set<string>;
  readonly attributes: Map<string, string>;
  readonly children: Draft[];
}

const VOID: ReadonlySet<string> = new Set([
  'input',
  'img',
  'br',
  'hr',
  'col',
  'meta',
  'link',
  'area',
  'base',
  'embed',
  'source',
  'track',
  'wbr',
]);
/** Elements that stand in a page already, or that a parser would move. */
const LEFT_OUT: ReadonlySet<string> = new Set([
  'html',
  'body',
  'head',
  'script',
  'style',
  'template',
  'title',
  'iframe',
  'object',
  'video',
  'audio',
  'canvas',
  'svg',
  'frame',
  'frameset',
  'noscript',
  'plaintext',
  'textarea',
  'select',
]);
const TABLE_PARTS: Readonly<Record<string, string>> = {
  thead: 'table',
  tbody: 'table',
  tfoot: 'table',
  caption: 'table',
  tr: 'tbody',
  td: 'tr',
  th: 'tr',
};
const NAME = /^[a-zA-Z][\w:.-]*$/;

/** What a pseudo-class asks of an element so that it can hold without anyone's doing. */
const ASKED: Readonly<Record<string, readonly [tag: string, attribute: string, value: string]>> = {
  checked: ['input', 'checked', ''],
  disabled: ['button', 'disabled', ''],
  required: ['input', 'required', ''],
  'placeholder-shown': ['input', 'placeholder', 'x'],
  open: ['details', 'open', ''],
  'read-only': ['input', 'readonly', ''],
  link: ['a', 'href', '#'],
  'any-link': ['a', 'href', '#'],
};

/** A page on which the selectors of a stylesheet have something to match: for each its elements, in their relations, up to `most` selectors. @param from how many selectors to pass over. */
export function pageFromSelectors(css: string, sheet: string, most: number, from = 0): string {
  const written = new Set<string>();
  const selectors = parsePage('<!doctype html><style></style>', { veneer: css }).veneerRules.flatMap(
    (rule) => rule.selectors,
  );
  const pieces: string[] = [];
  let taken = 0;
  for (const selector of selectors) {
    const html = pieceFor(selector);
    if (html === '' || written.has(html)) continue;
    written.add(html);
    if (taken++ < from) continue;
    if (pieces.length >= most) break;
    pieces.push(html);
  }
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>t</title><link rel="stylesheet" href="css/${sheet}"></head><body>\n${PLAIN}\n${pieces.join('\n')}\n</body></html>`;
}

/** One of each plain element, for sheets that name no class. */
const PLAIN = `<header><h1>Reeds</h1><nav><ul><li><a href="#a">One</a></li><li><a href="#b" aria-current="page">Two</a></li></ul></nav></header><main><section><h2>Willow</h2><p>Text with <mark>mark</mark>, <code>code</code>, <kbd>k</kbd>, <a href="#">link</a>, <abbr title=x>abbr</abbr>, <del>d</del> <ins>i</ins> <small>s</small> <strong>b</strong> <em>e</em>.</p><button>Button</button><button type=submit>Go</button><button type=reset disabled>No</button>
<form><fieldset><legend>L</legend><label>N <input placeholder="p" required></label><input type=checkbox checked><input type=checkbox role=switch><input type=radio checked><input type=range><input type=file><input type=submit value=s><input type=search><input disabled value=d><input readonly value=r><select><option>o</option></select><textarea></textarea><progress></progress></fieldset></form><table><caption>c</caption><thead><tr><th>a</th></tr></thead><tbody><tr><td>1</td></tr><tr><td>2</td></tr></tbody><tfoot><tr><td>f</td></tr></tfoot></table>
<details open><summary>s</summary>d</details><dialog open>d</dialog><blockquote>q</blockquote><pre><code>x</code></pre><figure><figcaption>c</figcaption></figure><hr><dl><dt>t<dd>d</dl></section><aside>a</aside><article>b</article></main><footer><a href="#">f</a></footer>`;

function pieceFor({ compounds, combinators, pseudoElements }: ComplexSelector): string {
  const top: Draft = draft('div');
  let parent = top;
  let last: Draft | null = null;
  for (let i = 0; i < compounds.length; i += 1) {
    const element = elementFor(compounds[i], i === compounds.length - 1 ? (pseudoElements[0]?.name ?? '') : '');
    if (element === null) {
      if (LEFT_OUT.has(compounds[i].type ?? '') && (compounds[i].type === 'html' || compounds[i].type === 'body'))
        continue;
      return '';
    }
    if (last !== null && (combinators[i] === ' ' || combinators[i] === '>')) parent = last;
    if (VOID.has(parent.tag)) return '';
    let holder = parent;
    for (const around of partsAround(element.tag, holder.tag)) {
      const wrap = draft(around);
      holder.children.push(wrap);
      holder = wrap;
    }
    holder.children.push(element);
    last = element;
  }
  return last === null ? '' : top.children.map(write).join('');
}

/** The table parts that a parser wants between an element and its parent. */
function partsAround(tag: string, parent: string): string[] {
  const around: string[] = [];
  for (let at = TABLE_PARTS[tag]; at && at !== parent; at = TABLE_PARTS[at]) around.unshift(at);
  return around;
}

function elementFor({ type, ids, classes, attributes, pseudoClasses }: Compound, pseudo: string): Draft | null {
  const element = draft(type ?? '');
  if (LEFT_OUT.has(element.tag) || element.tag.includes('|')) return null;
  if (ids.length > 0) element.id = ids[0];
  for (const name of classes) element.classes.add(name);
  for (const { name, operator, value } of attributes)
    if (operator !== '' || !element.attributes.has(name)) element.attributes.set(name, value);
  for (const test of pseudoClasses) {
    if (test.kind === 'is' && test.list.length > 0) {
      const own = test.list[0].compounds.at(-1);
      const inner = own ? elementFor(own, '') : null;
      if (inner === null) return null;
      element.tag ||= inner.tag === 'div' ? '' : inner.tag;
      inner.classes.forEach((name) => element.classes.add(name));
      inner.attributes.forEach((value, name) => element.attributes.set(name, value));
    } else if (test.kind === 'named' && ASKED[test.name]) {
      const [tag, attribute, value] = ASKED[test.name];
      element.tag ||= tag;
      element.attributes.set(attribute, value);
      if (test.name === 'checked' && !element.attributes.has('type')) element.attributes.set('type', 'checkbox');
    } else if (test.kind === 'named' && test.name === 'root') return null;
    else if (test.kind === 'host') return null;
  }
  if (pseudo === 'placeholder') element.tag ||= 'input';
  element.tag ||= element.attributes.has('href') ? 'a' : element.attributes.has('type') ? 'input' : 'div';
  return NAME.test(element.tag) &&
    !LEFT_OUT.has(element.tag) &&
    [...element.attributes.keys()].every((name) => NAME.test(name))
    ? element
    : null;
}

function draft(tag: string): Draft {
  return { tag: tag.toLowerCase(), id: '', classes: new Set(), attributes: new Map(), children: [] };
}

function write({ tag, id, classes, attributes, children }: Draft): string {
  const quote = (text: string): string => text.replace(/&/g, '&amp;').replace(/"/g, '&quot;');
  const names = `${id === '' ? '' : ` id="${quote(id)}"`}${classes.size === 0 ? '' : ` class="${quote([...classes].join(' '))}"`}${[
    ...attributes,
  ]
    .filter(([name]) => name !== 'class' && name !== 'id' && name !== 'style')
    .map(([name, value]) => ` ${name}="${quote(value)}"`)
    .join('')}`;
  return VOID.has(tag)
    ? `<${tag}${names}>`
    : `<${tag}${names}>${children.length === 0 ? 'x' : children.map(write).join('')}</${tag}>`;
}
