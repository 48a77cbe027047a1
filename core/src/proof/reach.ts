import { placesOf } from '../site/places.js';
import { isSpecimen } from '../site/specimen-path.js';
import type { SiteModel } from '../site/site-model.js';
import type { Override } from '../veneer/override.js';
import { selectorsIn } from '../selectors/selectors-in.js';

/** Which elements each override was made for. */
export class Reach {
  readonly #byRule = new Map<string, Override[]>();
  readonly #places = new Map<string, ReadonlySet<string> | null>();
  readonly #specimens: ReadonlySet<number>;

  constructor(readonly site: SiteModel) {
    this.#specimens = new Set(site.source.pages.filter(isSpecimen).map(({ id }) => id));
    for (const override of site.overrides) {
      const key = `${override.selector}|${override.property}`;
      const known = this.#byRule.get(key);
      if (known) known.push(override);
      else this.#byRule.set(key, [override]);
    }
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
