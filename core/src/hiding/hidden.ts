import type { ElementNode } from '../dom/tree.js';
import { isFocusable } from '../selectors/element-states.js';
import { rulesInVeneer } from '../resolve/rules-in-veneer.js';
import { matchedInAnyState } from '../selectors/touched.js';
import type { SiteModel } from '../site/site-model.js';
import { mediaOf } from '../veneer/media.js';
import type { Override } from '../veneer/override.js';

/** What is lost where a rule hides something, over all pages. */
export interface Lost {
  /** Elements that are hidden. */
  readonly elements: number;
  readonly links: number;
  /** Fields, buttons and whatever else takes the focus. */
  readonly controls: number;
  readonly headings: number;
  /** Pictures that say something: those with a text of their own. */
  readonly pictures: number;
  /** Whether there is text in it. */
  readonly hasText: boolean;
}

/** A rule of the sheet that hides something from everyone, screen readers and the keyboard among them. */
export interface Hiding {
  readonly selector: string;
  /** Media condition it holds under; `null` for none. */
  readonly media: string | null;
  /** Override it is; `null` where it is own CSS. */
  readonly override: Override | null;
  readonly lost: Lost;
}

/** Whether a declaration hides what it is for from everyone. Source: CSS Display 4 §2.5 and §4, what neither is read out nor focused. */
export function hides(property: string, css: string): boolean {
  return (
    (property === 'display' && css.trim().toLowerCase() === 'none') ||
    (property === 'visibility' && ['hidden', 'collapse'].includes(css.trim().toLowerCase()))
  );
}

/** Everything the sheet of a site hides, by overrides and by own CSS, with what is lost by it. */
export function hiddenBy(site: SiteModel): Hiding[] {
  const byOverrides = site.overrides.flatMap((override): Hiding[] => {
    const { property, value, pseudo, selector } = override;
    if (pseudo !== '' || value.kind !== 'literal' || !hides(property, value.css)) return [];
    const media = mediaOf(override, site.source.hoverOnly ?? false);
    return [{ selector, media, override, lost: lostBy(site, selector) }];
  });
  const byHand = site.ownCss
    .flatMap(({ css }) => rulesInVeneer(css))
    .filter(({ declarations }) => declarations.some(({ name, value }) => hides(name, value)))
    .map(({ selectorText, conditions }): Hiding => {
      const media = conditions.flatMap((own) => (own.kind === 'media' ? [own.text] : [])).join(' and ') || null;
      return { selector: selectorText, media, override: null, lost: lostBy(site, selectorText) };
    });
  return [...byOverrides, ...byHand].filter(({ lost }) => lost.elements > 0);
}

/** What is lost where a selector's elements are hidden. */
export function lostBy(site: SiteModel, selector: string): Lost {
  const lost = { elements: 0, links: 0, controls: 0, headings: 0, pictures: 0, hasText: false };
  for (const page of site.closed.values()) {
    const seen = new Set<ElementNode>();
    const roots = matchedInAnyState(page, selector);
    lost.elements += roots.length;
    const waiting = [...roots];
    for (let element = waiting.pop(); element; element = waiting.pop()) {
      if (seen.has(element)) continue;
      seen.add(element);
      if (element.localName === 'a' && element.attributes.has('href')) lost.links += 1;
      else if (isFocusable(element)) lost.controls += 1;
      if (/^h[1-6]$/.test(element.localName)) lost.headings += 1;
      if (element.localName === 'img' && (element.attributes.get('alt') ?? '') !== '') lost.pictures += 1;
      if (element.ownText.trim() !== '') lost.hasText = true;
      waiting.push(...element.children);
    }
  }
  return lost;
}

/** What is lost, in words: `2 links, 1 control and its text`. */
export function lostWords({ links, controls, headings, pictures, hasText }: Lost): string {
  const counted = (count: number, one: string): string =>
    count === 0 ? '' : `${count} ${one}${count === 1 ? '' : 's'}`;
  const things = [
    counted(links, 'link'),
    counted(controls, 'control'),
    counted(headings, 'heading'),
    counted(pictures, 'picture'),
  ].filter((words) => words !== '');
  if (hasText) things.push('its text');
  if (things.length === 0) return 'nothing that is read out or used';
  return things.length === 1 ? things[0] : `${things.slice(0, -1).join(', ')} and ${things[things.length - 1]}`;
}
