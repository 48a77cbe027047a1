import { placesOf } from '../site/places.js';
import { isSpecimen } from '../site/specimen-path.js';
import { isInPart, type SiteModel } from '../site/site-model.js';
import { rulesInVeneer } from '../resolve/rules-in-veneer.js';
import type { Override } from '../veneer/override.js';
import { selectorsIn } from '../selectors/selectors-in.js';

/** Which elements each override was made for. */
export class Reach {
  readonly #byRule = new Map<string, Override[]>();
  readonly #places = new Map<string, ReadonlySet<string> | null>();
  readonly #specimens: ReadonlySet<number>;
  /** Parts in whose sections own CSS stands, by rule; `null` is the section of no part. */
  readonly #ownByRule = new Map<string, (number | null)[]>();
  readonly #inPart = new Map<string, boolean>();

  constructor(readonly site: SiteModel) {
    this.#specimens = new Set(site.source.pages.filter(isSpecimen).map(({ id }) => id));
    for (const override of site.overrides) {
      const key = `${override.selector}|${override.property}`;
      const known = this.#byRule.get(key);
      if (known) known.push(override);
      else this.#byRule.set(key, [override]);
    }
    for (const { partId, css } of site.ownCss)
      for (const { selectorText, declarations } of rulesInVeneer(css))
        for (const { name } of declarations) {
          const key = `${selectorText}|${name}`;
          const known = this.#ownByRule.get(key);
          if (known) known.push(partId);
          else this.#ownByRule.set(key, [partId]);
        }
  }

  /** Parts in whose sections a rule of own CSS stands that sets a property; none where it is no rule of own CSS. */
  ownPartsOf(selector: string, property: string): readonly (number | null)[] {
    return this.#ownByRule.get(`${selector}|${property}`) ?? [];
  }

  /** Whether an element stands in the part in whose section a rule was written; one of no part may be for anything. */
  isInOwnPart(partId: number | null, pageId: number, element: number): boolean {
    if (partId === null || this.#specimens.has(pageId)) return true;
    const key = `${partId}:${pageId}:${element}`;
    let isIn = this.#inPart.get(key);
    if (isIn === undefined) {
      const page = this.site.pages.get(pageId);
      const node = page?.document.elements[element];
      isIn = page !== undefined && node !== undefined && isInPart(this.site, page, node, partId);
      this.#inPart.set(key, isIn);
    }
    return isIn;
  }

  overridesOf(selector: string, property: string): readonly Override[] {
    // Several selectors may stand in one rule.
    return (
      this.#byRule.get(`${selector}|${property}`) ??
      (selector.includes(',')
        ? selectorsIn(selector).flatMap((own) => this.#byRule.get(`${own}|${property}`) ?? [])
        : [])
    );
  }

  isMeant(override: Override, pageId: number, element: number): boolean {
    // The specimen shows copies of what is meant elsewhere, which no selector could tell from it.
    if (pageId !== override.pageId && this.#specimens.has(pageId)) return true;
    let places = this.#places.get(override.id);
    if (places === undefined) this.#places.set(override.id, (places = this.#placesOf(override)));
    return places === null || places.has(`${pageId}:${element}`);
  }

  /** `null` where whatever it matches is meant, or what it was made for is elsewhere. */
  #placesOf(override: Override): ReadonlySet<string> | null {
    if (override.isByHand || override.through) return null;
    const ids = new Map([...this.site.pages].map(([id, { document }]) => [document, id]));
    return new Set(
      placesOf(this.site, override).map(({ page, element }) => `${ids.get(page.document) ?? ''}:${element.number}`),
    );
  }
}
