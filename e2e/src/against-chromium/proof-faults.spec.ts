import { say, spoken } from '@upper-veneer/words';
import {
  ProofMemo,
  StyleView,
  dressSite,
  matchingElements,
  openSite,
  pageOf,
  pathSelector,
  proveSite,
  toEnd,
  type ElementNode,
  type Override,
  type Proof,
  type ProofFinding,
  type ProofKind,
  type SiteModel,
  type SiteSource,
} from '@upper-veneer/core';
import { demoSource, matched, matchedDemo } from '../support/matched-demo.js';
import { namedPages } from '../support/named-pages.js';
import { random } from '../support/random.js';
import { isWhole } from '../support/whole-run.js';

/** Faults put in, one at a time. */
const FAULTS = isWhole ? 300 : 24;
const PACKAGE_FAULTS = isWhole ? 80 : 4;

/** Controls that are drawn for one whose focus can be hidden. */
const MOST_DRAWN = 12;

/** A fault put into a clean site, and where it is to be found. */
interface Fault {
  readonly words: string;
  readonly site: SiteModel;
  readonly kinds: readonly ProofKind[];
  /** Part in which; `undefined` where any will do. */
  readonly partId?: number | null;
}

/** An element, and a selector that finds it. */
interface Spot {
  readonly selector: string;
  readonly partId: number;
  readonly pageId: number;
  readonly element: number;
}

type Draw = <T>(list: readonly T[]) => T;

/** Pages of packages, each matched to the demo's palette. */
function packageSites(): { readonly name: string; readonly site: SiteModel }[] {
  const { palette } = demoSource();
  return namedPages()
    .filter(({ name }) => name !== 'vanilla-cookieconsent')
    .map(({ name, html }) => {
      const [, css = ''] = /<style>([\s\S]*?)<\/style>/.exec(html) ?? [];
      const source: SiteSource = {
        pages: [
          {
            id: 1,
            name,
            path: 'index.html',
            html: html.replace(/<style>[\s\S]*?<\/style>/, '<link rel="stylesheet" href="theme.css">'),
          },
        ],
        stylesheets: { 'theme.css': css },
        parts: [{ id: 1, name: 'All of it', kind: 'theme', selector: 'body', openers: [] }],
        veneerPlace: 'head-end',
        prefix: 'brand',
      };
      return { name, site: matched(source, palette) };
    });
}

describe('the proof, of pages of packages that are matched', () => {
  // Source: the faults are put in here; the sheets are their makers'.
  it(`finds each of ${PACKAGE_FAULTS} faults put into each of four`, () => {
    const missed: string[] = [];
    for (const { name, site } of packageSites()) {
      const memo = new ProofMemo();
      const proof = toEnd(proveSite(site, { memo }));
      const fails = proof.findings.filter(({ level }) => level === 'fails').length;
      process.stdout.write(`\n${name}, matched: ${fails} fail, ${proof.findings.length - fails} to look at.`);
      missed.push(...missedIn(site, proof, memo, PACKAGE_FAULTS).map((words) => `${name}: ${words}`));
    }
    expect(missed.length).withContext(missed.join('\n')).toBe(0);
  }, 600_000);
});

describe('the proof, of a site that is matched', () => {
  let clean: SiteModel;
  let proof: Proof;
  let memo: ProofMemo;
  beforeAll(() => {
    clean = matchedDemo();
    memo = new ProofMemo();
    proof = toEnd(proveSite(clean, { memo }));
  }, 120_000);

  it('finds nothing that fails', () => {
    expect(spoken(proof.findings.filter(({ level }) => level === 'fails').map(({ title }) => title))).toEqual([]);
    expect(proof.looks).toBeGreaterThan(5_000);
  });

  // Source: the faults are put in here, so what is to be found is known.
  it(`finds each of ${FAULTS} faults put in, in its group and its part`, () => {
    const missed = missedIn(clean, proof, memo, FAULTS);
    expect(missed.length).withContext(missed.join('\n')).toBe(0);
  }, 600_000);
});

/** Faults put into a clean site that are not found in their group and their part. */
function missedIn(clean: SiteModel, proof: Proof, memo: ProofMemo, count: number): string[] {
  const next = random(90_417);
  const draw: Draw = (list) => list[Math.floor(next() * list.length)];
  const missed: string[] = [];
  const known = new Set(proof.findings.map(keyOf));
  for (let i = 0; i < count; i += 1) {
    const fault = FAULT_KINDS[i % FAULT_KINDS.length](clean, draw);
    const { findings } = toEnd(proveSite(fault.site, { memo: memo.fork() }));
    const fresh = findings.filter((finding) => !known.has(keyOf(finding)));
    const isFound = fresh.some(
      ({ kind, places }) =>
        fault.kinds.includes(kind) &&
        (fault.partId === undefined || places.some(({ partId }) => partId === fault.partId)),
    );
    if (!isFound)
      missed.push(
        `${fault.words}: ${fresh.map(({ kind, title }) => `${kind} ${say(title)}`).join('; ') || 'nothing new'}`,
      );
  }
  return missed;
}

/** A finding with how many places it has: a fault may add to one that is there. */
function keyOf({ id, level, places }: ProofFinding): string {
  return `${id} ${level} ${places.length}`;
}

const FAULT_KINDS: readonly ((site: SiteModel, draw: Draw) => Fault)[] = [
  removedRule,
  strongerHover,
  strayColor,
  unreadable,
  renamedClass,
  noFocus,
  spill,
  idle,
];

/** Overrides whose colour nothing else of ours would stand in for. */
function plainFills({ overrides }: SiteModel): Override[] {
  return overrides.filter(
    ({ property, state, pseudo }) => property === 'background-color' && state === 'rest' && pseudo === '',
  );
}

function removedRule(site: SiteModel, draw: Draw): Fault {
  const gone = draw(plainFills(site));
  return {
    words: `${gone.selector} { ${gone.property} } removed`,
    site: dressSite(
      site,
      site.overrides.filter(({ id }) => id !== gone.id),
      site.palette,
    ),
    kinds: ['ours', 'reads', 'answers', 'seen'],
    partId: gone.partId,
  };
}

function strongerHover(site: SiteModel, draw: Draw): Fault {
  for (;;) {
    const { selector, partId, pageId, element } = controlOf(site, draw);
    const faulty = withTheme(site, `${selector}:hover { background-color: #7a2bd6 !important }`);
    const page = pageOf(faulty, pageId);
    const node = page.document.elements[element];
    const view = new StyleView(page, { states: new Map([[node, new Set(['hover'])]]) });
    // A widget whose own rules are stronger still has no fault by it.
    if (view.style(node).resolved('background-color') !== 'rgb(122, 43, 214)') continue;
    return {
      words: `${selector}:hover with the theme’s violet`,
      site: faulty,
      kinds: ['answers', 'ours'],
      partId,
    };
  }
}

function strayColor(site: SiteModel, draw: Draw): Fault {
  const one = draw(plainFills(site));
  const other: Override = { ...one, value: { kind: 'literal', css: '#7a2bd6' } };
  return {
    words: `${one.selector} { ${one.property}: #7a2bd6 }`,
    site: dressSite(
      site,
      site.overrides.map((own) => (own === one ? other : own)),
      site.palette,
    ),
    kinds: ['ours'],
    partId: one.partId,
  };
}

function unreadable(site: SiteModel, draw: Draw): Fault {
  const { selector, partId } = elementOf(site, draw, ({ localName }) =>
    /^(?:p|h2|h3|button|label|td)$/.test(localName),
  );
  return {
    words: `${selector} in the colour of its ground`,
    site: withTheme(site, `${selector} { color: #8a8a8a !important; background: #909090 !important }`),
    kinds: ['reads'],
    partId,
  };
}

/** A theme update gives a class another name: what leant on it matches nothing, or its colours come back. */
function renamedClass(site: SiteModel, draw: Draw): Fault {
  const names = [
    ...new Set(plainFills(site).flatMap(({ selector }) => /^\.([a-z][\w-]+)$/i.exec(selector)?.[1] ?? [])),
  ];
  const name = draw(names);
  const renamed = new RegExp(`(class="(?:[^"]*\\s)?)${name}((?:\\s[^"]*)?")`, 'g');
  const source: SiteSource = {
    ...site.source,
    pages: site.source.pages.map((page) => ({ ...page, html: page.html.replace(renamed, `$1${name}-v2$2`) })),
  };
  return { words: `class ${name} renamed`, site: reopened(site, source), kinds: ['holds'] };
}

function noFocus(site: SiteModel, draw: Draw): Fault {
  const hidden =
    'outline: none !important; box-shadow: none !important; border-color: transparent !important; text-decoration: none !important';
  for (let tries = 0; tries < MOST_DRAWN; tries += 1) {
    const { selector, partId, pageId, element } = controlOf(site, draw);
    const faulty = withTheme(
      site,
      `${selector}:focus, ${selector}:focus-visible { ${hidden} } ${selector} { ${hidden}; transition: none }`,
    );
    const page = pageOf(faulty, pageId);
    const node = page.document.elements[element];
    const focused = new StyleView(page, { states: new Map([[node, new Set(['focus', 'focus-visible'])]]) }).style(node);
    const rest = new StyleView(page).style(node);
    // A theme that tells the focus by text or fill as well has no fault by it.
    if (['color', 'background-color', 'background-image'].some((own) => focused.resolved(own) !== rest.resolved(own)))
      continue;
    return { words: `${selector} without a sign of its focus`, site: faulty, kinds: ['seen'], partId };
  }
  return unreadable(site, draw);
}

function spill(site: SiteModel, draw: Draw): Fault {
  const one = draw(plainFills(site).filter(({ selector }) => /^[.#][\w-]+$/.test(selector)));
  const wide: Override = {
    ...one,
    id: 'wide',
    reach: 'one',
    selector: 'main p',
    property: 'color',
    value: { kind: 'role', role: 'accent', shade: 0 },
  };
  return {
    words: `a rule for one place that matches main p`,
    site: dressSite(site, [...site.overrides, wide], site.palette),
    kinds: ['inside'],
  };
}

function idle(site: SiteModel, draw: Draw): Fault {
  const one = draw(plainFills(site));
  const gone: Override = { ...one, id: 'gone', selector: draw(['.dropped-by-theme', '#old-banner a', '.v1 .cta']) };
  return {
    words: `${gone.selector} matches nothing`,
    site: dressSite(site, [...site.overrides, gone], site.palette),
    kinds: ['holds'],
    partId: one.partId,
  };
}

/** An element of a drawn page that stands in a part and is in view, by a selector of its own. */
function elementOf(site: SiteModel, draw: Draw, isWanted: (element: ElementNode) => boolean): Spot {
  for (;;) {
    const [pageId, page] = draw([...site.pages]);
    const body = page.document.elements.filter((element) => isWanted(element) && isPlain(element));
    if (body.length === 0) continue;
    const element = draw(body);
    const part = partOf(site, pageId, element);
    if (part !== null) return { selector: pathSelector(element), partId: part, pageId, element: element.number };
  }
}

function controlOf(site: SiteModel, draw: Draw): Spot {
  return elementOf(
    site,
    draw,
    ({ localName, attributes }) => (localName === 'a' && attributes.has('href')) || localName === 'button',
  );
}

/** In the document itself, with a text of its own, not hidden by an ancestor. */
function isPlain(element: ElementNode): boolean {
  if (element.root.host || element.ownText.trim() === '' || element.attributes.has('disabled')) return false;
  for (let node: ElementNode | null = element; node; node = node.parent)
    if (
      node.attributes.has('hidden') ||
      node.localName === 'template' ||
      /^(?:ck-two|bk-drawer|nl-veil)$/.test(node.classes[0] ?? '')
    )
      return false;
  return true;
}

/** The part an element stands in: that of the nearest ancestor that is one. */
function partOf(site: SiteModel, pageId: number, element: ElementNode): number | null {
  const page = pageOf(site, pageId);
  for (let node: ElementNode | null = element; node; node = node.flatParent)
    for (const { part, selectors } of site.parts) if (matchingElements(page, selectors).includes(node)) return part.id;
  return null;
}

/** The site with rules added at the end of its theme's sheet. */
function withTheme(site: SiteModel, css: string): SiteModel {
  const theme = Object.keys(site.source.stylesheets).find((name) => name.endsWith('theme.css')) ?? '';
  return reopened(site, {
    ...site.source,
    stylesheets: { ...site.source.stylesheets, [theme]: `${site.source.stylesheets[theme]}\n${css}` },
  });
}

function reopened(site: SiteModel, source: SiteSource): SiteModel {
  return dressSite(openSite(source), site.overrides, site.palette);
}
