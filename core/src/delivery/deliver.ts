import { withCssAddresses } from '../syntax/css-addresses.js';
import type { BodyNode, DeclarationNode } from '../syntax/nodes.js';
import { parseStylesheet } from '../syntax/parse-stylesheet.js';
import { sectionOf, writeRules, type CompileOptions } from '../veneer/compile-veneer.js';
import { colorsInOneLighting } from '../veneer/own-css.js';
import type { VeneerRule } from '../veneer/veneer-rule.js';
import { contentHash } from './content-hash.js';
import { betweenMarkers } from './markers.js';

/** Where a sheet goes. */
export const DELIVERY_WAYS = ['file', 'head', 'box', 'end', 'embed', 'child'] as const;
export type DeliveryWay = (typeof DELIVERY_WAYS)[number];

/** What a sheet is delivered from. */
export interface DeliveryFacts {
  /** The tidied rules, in order. */
  readonly rules: readonly VeneerRule[];
  readonly options: CompileOptions;
  readonly site: string;
  /** Number of the revision; `null` for a draft that equals none. */
  readonly revision: number | null;
  /** Day it was written, as `2026-05-04`. */
  readonly date: string;
  /** Version of whatever it was made for, as the designer says it; empty for none. */
  readonly target: string;
  /** Address of the site's root, with its slash, from which files lead where the text stands inside a page: `/`. */
  readonly root: string;
  /** Part whose section an embed takes; `null` for what is in none. */
  readonly partId: number | null;
  /** Whether a box strips custom properties. */
  readonly isPlain: boolean;
  /** The file it is put at the end of. */
  readonly existing: string;
}

/** A sheet made ready for one way. */
export interface Delivered {
  readonly way: DeliveryWay;
  readonly text: string;
  /** Name of the file it is; `null` where it is pasted. */
  readonly fileName: string | null;
  /** The element that loads it; `null` where none does. */
  readonly link: string | null;
  readonly bytes: number;
  readonly rules: number;
  /** Declarations that are important. */
  readonly important: number;
  /** Colours in own CSS that stay as they are when the site's lighting turns, since they are written as values. */
  readonly inOneLighting: number;
}

/** The text of a sheet for the place it goes to. The same facts give the same bytes. */
export function deliver(way: DeliveryWay, facts: DeliveryFacts): Delivered {
  const { partId, root, isPlain, existing } = facts;
  const isIn = (own: { readonly partId: number | null }): boolean =>
    way !== 'embed' || sectionOf(own.partId, facts.options) === partId;
  const rules = facts.rules.filter(isIn);
  const ownCss = (facts.options.ownCss ?? []).filter(isIn);
  // An embed's field styles a document of its own, which knows of no properties defined elsewhere; boxes may strip them.
  const asValues = way === 'embed' || (way === 'box' && isPlain) || facts.options.asValues;
  const sheet = writeRules(rules, { ...facts.options, ownCss, asValues });
  const css = sheet === '' ? '' : `${headerOf(facts)}\n${sheet}`;
  const inPage = (): string => withCssAddresses(css, ({ address }) => fromRoot(address, root));
  const own = parseStylesheet(ownCss.map(({ css }) => css).join('\n')).rules.flatMap(styleRulesIn);
  const summary = {
    way,
    rules: rules.length + own.length,
    important: [...rules, ...own].reduce(
      (sum, { declarations }) => sum + declarations.filter(({ important }) => important).length,
      0,
    ),
    inOneLighting: ownCss.reduce(
      (sum, { css }) => sum + colorsInOneLighting(css, facts.options.palette, { ...facts.options, asValues }),
      0,
    ),
  };
  const made = (text: string, fileName: string | null = null, link: string | null = null): Delivered => ({
    ...summary,
    text,
    fileName,
    link,
    bytes: new TextEncoder().encode(text).length,
  });
  switch (way) {
    case 'file': {
      const name = `veneer.${contentHash(css)}.css`;
      return made(css, name, `<link rel="stylesheet" href="${root}${name}">`);
    }
    case 'head':
      return made(css === '' ? '' : `<style>\n${inPage()}</style>\n`);
    case 'box':
    case 'embed':
      return made(inPage());
    case 'end':
      return made(betweenMarkers(existing, inPage()));
    case 'child':
      return made(inPage(), 'style.css', `<link rel="stylesheet" href="style.css">`);
  }
}

/** Style rules of what was written by hand, those inside conditions and other rules among them. */
function styleRulesIn(rule: BodyNode): { readonly declarations: readonly DeclarationNode[] }[] {
  if (rule.kind === 'declaration' || rule.body === null) return [];
  const declarations = rule.body.filter((node) => node.kind === 'declaration');
  return [...(rule.kind === 'qualified' ? [{ declarations }] : []), ...rule.body.flatMap(styleRulesIn)];
}

/** What it is, of when and for what: no licence is claimed of anybody's work. */
function headerOf({ site, revision, date, target }: DeliveryFacts): string {
  const words = [
    site,
    revision === null ? 'draft' : `revision ${revision}`,
    date,
    target === '' ? '' : `for ${target}`,
  ];
  return `/* ${words
    .filter((word) => word !== '')
    .map(safe)
    .join(', ')} */`;
}

/** Foreign words that end no comment, and stand on one line. */
function safe(words: string): string {
  return words.replaceAll('*/', '* /').replaceAll('</', '< /').replaceAll(/\s/g, ' ');
}

function fromRoot(address: string, root: string): string | null {
  const isElsewhere = address.startsWith('/') || address.startsWith('#') || /^[a-z][a-z0-9+.-]*:/i.test(address);
  return isElsewhere ? null : root + address;
}
