import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import type { StyleRule } from '../rules/style-rule.js';
import { touchedOn } from '../selectors/touched.js';
import { openParts, pageOf, type SiteModel } from '../site/site-model.js';
import { partsOn } from './looked.js';

/** What is shown of a page: as it is captured, or with its hidden parts opened. */
export type LookedStep = 'shown' | 'opened';

/** A part on a page as it looks now. */
export interface PartLook {
  /** `null` for what stands in no part. */
  readonly partId: number | null;
  readonly pageId: number;
  readonly step: LookedStep;
  /** The same as long as nothing that its look hangs on changes. */
  readonly look: string;
  /** Its first element, by running number. */
  readonly element: number;
}

/**
 * Every part on every page, hidden ones opened, with a fingerprint of what its look hangs on: its markup, the page's stylesheets, and
 * the rules of the veneer that touch it, their custom properties replaced by what they stand for.
 * A generator: it yields after each page.
 */
export function* partLooks(site: SiteModel): Generator<number, PartLook[]> {
  const openable = site.source.parts.filter(({ openers }) => openers.length > 0).map(({ id }) => id);
  const opened = openable.length > 0 ? openParts(site, openable) : null;
  const looks: PartLook[] = [];
  for (const pageId of site.pages.keys()) {
    const page = pageOf(site, pageId);
    looks.push(...looksOn(site, pageId, page, 'shown'));
    const other = opened && pageOf(opened, pageId);
    if (other && other.document !== page.document)
      looks.push(
        ...looksOn(site, pageId, other, 'opened').filter(({ partId }) => partId !== null && openable.includes(partId)),
      );
    yield pageId;
  }
  // What is opened on a page is no step of what is closed there.
  const steps = new Set(
    looks.filter(({ step }) => step === 'opened').map(({ pageId, partId }) => `${pageId}:${partId}`),
  );
  return looks.filter(({ step, pageId, partId }) => step === 'opened' || !steps.has(`${pageId}:${partId}`));
}

function looksOn(site: SiteModel, pageId: number, page: Page, step: LookedStep): PartLook[] {
  const partIdOf = partsOn(site, page);
  const sheets = page.sheets.map(({ text }) => text).join('\n');
  const values = valuesOf(page.veneerRules);
  const rules = new Map<number | null, string[]>();
  for (const rule of page.veneerRules) {
    const text = textOfRule(rule, values);
    if (text === '') continue;
    const parts = new Set(touchedOn(page, [rule.selectorText]).touched.map(partIdOf));
    for (const partId of parts) {
      const own = rules.get(partId);
      if (own) own.push(text);
      else rules.set(partId, [text]);
    }
  }
  const elements = new Map<number | null, ElementNode[]>();
  for (const element of page.document.elements) {
    if (!mayShow(element)) continue;
    const partId = partIdOf(element);
    const own = elements.get(partId);
    if (own) own.push(element);
    else elements.set(partId, [element]);
  }
  return [...elements].map(([partId, own]) => ({
    partId,
    pageId,
    step,
    element: own[0].number,
    look: fingerprint([sheets, ...own.map(textOfElement), ...(rules.get(partId) ?? [])]),
  }));
}

const NEVER_SHOWN = new Set(['html', 'head', 'body', 'meta', 'title', 'link', 'style', 'script', 'template', 'base']);

function mayShow({ localName, parent }: ElementNode): boolean {
  return !NEVER_SHOWN.has(localName) && parent?.localName !== 'head';
}

function textOfElement({ localName, attributes, ownText }: ElementNode): string {
  return `${localName} ${[...attributes].map(([name, value]) => `${name}=${value}`).join(' ')} ${ownText}`;
}

/** Values of the veneer's own custom properties, in whichever lighting. */
function valuesOf(rules: readonly StyleRule[]): ReadonlyMap<string, string> {
  const values = new Map<string, string>();
  for (const { declarations } of rules)
    for (const { name, value } of declarations)
      if (name.startsWith('--')) values.set(name, `${values.get(name) ?? ''}${value};`);
  return values;
}

/** What a rule says of its elements; empty for one that only names values, which are told where they are used. */
function textOfRule(
  { selectorText, conditions, declarations }: StyleRule,
  values: ReadonlyMap<string, string>,
): string {
  const own = declarations.filter(({ name }) => !name.startsWith('--'));
  if (own.length === 0) return '';
  const said = own.map(
    ({ name, value, important }) =>
      `${name}:${value}${important ? '!' : ''}${[...values].flatMap(([variable, text]) => (value.includes(variable) ? [text] : [])).join('')}`,
  );
  return `${conditions.map(({ text }) => text).join(' ')} ${selectorText} {${said.join(';')}}`;
}

/** Source: FNV-1a, http://www.isthe.com/chongo/tech/comp/fnv/, in two halves of 32 bits with different offsets. */
function fingerprint(texts: readonly string[]): string {
  let [a, b] = [0x811c9dc5, 0x01000193];
  for (const text of texts) {
    for (let i = 0; i < text.length; i += 1) {
      const unit = text.charCodeAt(i);
      a = Math.imul(a ^ unit, 0x01000193);
      b = Math.imul(b ^ unit, 0x01000193) + i;
    }
    a = Math.imul(a ^ 0xffff, 0x01000193);
    b = Math.imul(b ^ 0xffff, 0x01000193);
  }
  return (a >>> 0).toString(36) + (b >>> 0).toString(36);
}
