import { setsLonghand } from '../cascade/block.js';
import { DESKTOP, type MediaEnvironment, type Setting } from '../conditions/environment.js';
import { evaluateMedia } from '../conditions/evaluate-media.js';
import type { ElementNode } from '../dom/tree.js';
import { PAINTED } from '../match/proof-settings.js';
import type { Page } from '../resolve/page.js';
import { hangsOnViewport } from '../resolve/style-share.js';
import type { StyleRule } from '../rules/style-rule.js';
import { touchedOn } from '../selectors/touched.js';

/** What tells on whether and how something is read or seen, besides the colours that are painted. */
const TOLD = [
  ...PAINTED,
  'display',
  'visibility',
  'opacity',
  'filter',
  'font-size',
  'font-weight',
  'background-clip',
  'background-size',
  'border-collapse',
  'appearance',
  'text-transform',
];

/**
 * Elements of a page that may be painted otherwise in one setting than in another: those that a rule matches which holds in one of the
 * two alone, or whose values hang on the viewport, and all inside them. Only where the others lie may differ.
 */
export function toldApart(page: Page, a: Setting, b: Setting): ReadonlySet<ElementNode> {
  const [one, other] = [a, b].map((setting) => ({ ...DESKTOP, ...page.environment, ...setting }));
  const rules = [...page.base.rules, ...page.veneerRules].filter(
    (rule) =>
      isTelling(rule) &&
      (holdsIn(rule, one) !== holdsIn(rule, other) ||
        rule.declarations.some(({ name, value }) => tells(name) && hangsOnViewport(value))),
  );
  const selectors = [...new Set(rules.map(({ selectorText }) => selectorText))];
  const inline = page.document.elements.filter(({ attributes }) => hangsOnViewport(attributes.get('style') ?? ''));
  if (one.colorScheme !== other.colorScheme) return new Set(page.document.elements);
  // A rule behind a shadow root names elements that its selector alone does not find.
  if (rules.some(({ sheet }) => sheet.tree.kind !== 'document')) return new Set(page.document.elements);
  return new Set(selectors.length + inline.length === 0 ? [] : touchedOn(page, selectors, inline).touched);
}

function isTelling({ declarations }: StyleRule): boolean {
  return declarations.some(({ name }) => tells(name));
}

function holdsIn({ conditions }: StyleRule, environment: MediaEnvironment): boolean {
  return conditions.every((condition) => condition.kind !== 'media' || evaluateMedia(condition.text, environment));
}

const known = new Map<string, boolean>();

/** Whether a property has a say in what is painted; what custom properties feed is not followed. */
function tells(name: string): boolean {
  if (name.startsWith('--')) return true;
  let answer = known.get(name);
  if (answer === undefined) {
    answer = TOLD.some((longhand) => setsLonghand(name, longhand));
    known.set(name, answer);
  }
  return answer;
}
