import type { Message } from '../message/message.js';
import { setsLonghand } from '../cascade/block.js';
import type { ElementNode } from '../dom/tree.js';
import { statesTogether } from '../reach/threshold.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { VENEER_SHEET_NAME, type Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { NO_STATES } from '../selectors/match-context.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import { matchesOf } from '../site/matches.js';
import { dressSite, type SiteModel } from '../site/site-model.js';
import { settingsThatMatter } from '../site/environments.js';
import type { Override } from '../veneer/override.js';
import { sectionOf } from '../veneer/compile-veneer.js';
import type { OwnCss } from '../veneer/own-css.js';
import type { Hiding } from './hidden.js';

/** What takes a box out of sight and leaves it to be read out and focused. Source: common practice. */
const OUT_OF_SIGHT: readonly (readonly [property: string, value: string])[] = [
  ['position', 'absolute'],
  ['width', '1px'],
  ['height', '1px'],
  ['margin', '-1px'],
  ['padding', '0'],
  ['border', '0'],
  ['overflow', 'hidden'],
  ['clip-path', 'inset(50%)'],
  ['white-space', 'nowrap'],
];

/**
 * A rule that takes elements out of sight for sight alone: they come into sight while they hold the focus (WCAG 2.2, 2.4.7).
 * @param selector one or several.
 * @param media condition it is to hold under; `null` for none.
 * @param important properties that only win so.
 */
export function outOfSight(selector: string, media: string | null, important: ReadonlySet<string> = new Set()): string {
  const lines = OUT_OF_SIGHT.map(
    ([property, value]) => `  ${property}: ${value}${important.has(property) ? ' !important' : ''};`,
  );
  const rule = `${outOfSightSelector(selector)} {\n${lines.join('\n')}\n}`;
  return media === null ? rule : `@media ${media} {\n${rule}\n}`;
}

function outOfSightSelector(selector: string): string {
  const isOne = parseSelectorList(selector).length === 1;
  return `${isOne ? selector : `:is(${selector})`}:not(:focus, :focus-within)`;
}

/** A rule that hides taken over by one that takes out of sight alone. */
export interface Softened {
  /** All own CSS of the site with it. */
  readonly ownCss: readonly OwnCss[];
  /** Elements on all pages that are still not out of sight somewhere: what sets them cannot be beaten by a rule. */
  readonly missed: number;
  /** Conditions that rules hang on and that were not looked at, in words. */
  readonly unseen: readonly Message[];
}

/** Takes what an override hides out of sight alone, proved on every page, at rest and hovered, in each setting that has a say, in the lighting looked at. */
export function softened(
  site: SiteModel,
  { selector, media }: Pick<Hiding, 'selector' | 'media'>,
  override: Override,
): Softened {
  const own = site.ownCss.map((other) => ({ ...other, partId: sectionOf(other.partId, site.source) }));
  const partId = sectionOf(override.partId, site.source);
  const before = own.filter((other) => other.partId === partId).map(({ css }) => css);
  const others = site.overrides.filter(({ id }) => id !== override.id);
  const laid = (
    important: ReadonlySet<string>,
  ): { readonly ownCss: readonly OwnCss[]; readonly dressed: SiteModel } => {
    const css = [...before, outOfSight(selector, media, important)].join('\n');
    const ownCss = [...own.filter((other) => other.partId !== partId), { partId, css }];
    return { ownCss, dressed: dressSite(site, others, site.palette, { ownCss }) };
  };
  const plain = laid(new Set());
  const beaten = beatenIn(plain.dressed, selector);
  if (beaten.properties.size === 0) return { ownCss: plain.ownCss, missed: 0, unseen: beaten.unseen };
  const firm = laid(beaten.properties);
  return { ownCss: firm.ownCss, missed: beatenIn(firm.dressed, selector).elements, unseen: beaten.unseen };
}

/** Properties of the rule that something else decides where it matches, on how many elements, and what was not looked at. */
function beatenIn(site: SiteModel, selector: string): Beaten {
  const properties = new Set<string>();
  const beaten = new Set<ElementNode>();
  const { settings, unseen } = settingsThatMatter(site, LONGHANDS_ASKED);
  const own = outOfSightSelector(selector);
  const byPage = new Map<Page, ElementNode[]>();
  for (const { page, element } of matchesOf(site, selector)) byPage.set(page, [...(byPage.get(page) ?? []), element]);
  for (const [page, elements] of byPage) {
    const hovered = statesTogether(
      elements.map((element) => ({ page, element })),
      'hover',
    );
    for (const environment of settings)
      for (const states of [NO_STATES, hovered]) {
        const view = new StyleView(page, { environment, states });
        for (const element of elements)
          for (const property of beatenOn(view.style(element), own)) {
            properties.add(property);
            beaten.add(element);
          }
      }
  }
  return { properties, elements: beaten.size, unseen };
}

interface Beaten {
  readonly properties: ReadonlySet<string>;
  readonly elements: number;
  readonly unseen: readonly Message[];
}

function beatenOn(style: ElementStyle, own: string): string[] {
  const rule = style.blocks.find(
    (block) => block.rule?.sheet.name === VENEER_SHEET_NAME && block.rule.selectorText === own,
  )?.rule;
  if (!rule) return [];
  return LONGHANDS_ASKED.filter((longhand) => style.ranked(longhand)[0]?.block.rule !== rule).flatMap(
    (longhand) => OUT_OF_SIGHT.find(([name]) => setsLonghand(name, longhand))?.[0] ?? [],
  );
}

const LONGHANDS_ASKED: readonly string[] = [
  'position',
  'width',
  'height',
  'margin-top',
  'margin-right',
  'margin-bottom',
  'margin-left',
  'padding-top',
  'padding-right',
  'padding-bottom',
  'padding-left',
  'border-top-width',
  'border-right-width',
  'border-bottom-width',
  'border-left-width',
  'overflow-x',
  'overflow-y',
  'clip-path',
  'white-space',
];
