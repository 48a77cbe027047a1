import type { Painting } from '../census/paintings.js';
import type { Setting } from '../conditions/environment.js';
import type { ElementNode } from '../dom/tree.js';
import { brandStandingOf, type BrandStanding } from '../palette/brand-standing.js';
import type { RoleName } from '../veneer/palette.js';
import { plainValuesIn, type OverrideValue } from '../veneer/override-value.js';
import { colorOfCss } from '../veneer/palette.js';
import { deltaE2000 } from '../color/delta-e.js';
import { hexOf } from '../color/read-notation.js';
import { VENEER_SHEET_NAME, type Page } from '../resolve/page.js';
import type { StyleView } from '../resolve/style-view.js';
import { isExcepted } from '../site/exceptions.js';
import { partOf, type SiteModel } from '../site/site-model.js';
import type { Color } from '../values/color.js';
import type { Lighting } from '../veneer/lighting.js';
import type { Readings } from '../verdict/legibility.js';
import type { Causes } from './causes.js';
import type { Reach } from './reach.js';
import type { ProofPlace } from './proof-finding.js';
import type { ProofState } from './proof-state.js';

/** One element of a page in one state, setting and lighting, as the checks look at it. */
export interface Looked {
  readonly on: PageLook;
  readonly element: ElementNode;
  readonly state: ProofState;
  readonly view: StyleView;
  readonly readings: Readings;
  readonly into: Causes;
}

/** What the checks ask about one page in one setting and lighting. */
export interface PageLook {
  readonly site: SiteModel;
  readonly pageId: number;
  readonly page: Page;
  readonly setting: Setting;
  readonly lighting: Lighting;
  /** Whether it is the setting in which all of the page is looked at. */
  readonly isFirst: boolean;
  readonly rest: StyleView;
  /** Pseudo-elements that the veneer has rules for. */
  readonly dressedPseudos: ReadonlySet<string>;
  readonly known: SiteKnowledge;
  partIdOf(element: ElementNode): number | null;
  /** The page without the veneer in a state. */
  bareIn(state: ProofState): StyleView;
  paintingsIn(view: StyleView, element: ElementNode): readonly Painting[];
  /** Whether an element shows nothing as the page stands. */
  isHidden(view: StyleView, element: ElementNode): boolean;
}

/** ΔE2000 up to which a colour is taken for one of a family: a shade or a tint of it, not another colour (common practice). */
const OF_THE_FAMILY = 10;

/** Answers that hold for a whole site in one lighting, kept from page to page. */
export class SiteKnowledge {
  readonly #former: readonly { readonly css: string; readonly color: Color }[];
  readonly #standings = new Map<string, BrandStanding>();
  readonly hasPalette: boolean;

  constructor(
    readonly site: SiteModel,
    readonly reach: Reach,
  ) {
    this.hasPalette = site.palette.swatches.length > 0;
    this.#former = (site.palette.former ?? []).flatMap((css) => {
      const color = colorOfCss(css);
      return color ? [{ css, color }] : [];
    });
  }

  /** Whether the veneer paints it by a role, a swatch, or a shade of one; of a sheet without overrides, by a custom property of its own. */
  isBound(painting: Painting): boolean {
    if (!isOfVeneer(painting) || !painting.decided) return false;
    const { block, entry } = painting.decided;
    const overrides = this.reach.overridesOf(block.rule?.selectorText ?? '', entry.declaration.name);
    if (overrides.length === 0)
      return (
        (this.site.overrides.length === 0 || this.site.ownCss.length > 0) && entry.declaration.value.includes('var(--')
      );
    return overrides.some(({ value }) => {
      const parts = plainValuesIn(value);
      return (parts[value.kind === 'composite' ? painting.index : 0]?.kind ?? 'literal') !== 'literal';
    });
  }

  /** The nearest brand colour, alpha left aside. */
  standingOf(color: Color): BrandStanding {
    const hex = hexOf(color).slice(0, '#rrggbb'.length);
    let standing = this.#standings.get(hex);
    if (!standing) this.#standings.set(hex, (standing = brandStandingOf(color, this.site.palette)));
    return standing;
  }

  /** The colour of the older brand that a colour is left of, and how far it is from it; `null` where it is of none. */
  formerOf(color: Color): { readonly css: string; readonly deltaE: number } | null {
    const opaque = { ...color, alpha: 1 };
    let nearest: { readonly css: string; readonly deltaE: number } | null = null;
    for (const { css, color: former } of this.#former) {
      const deltaE = deltaE2000(former, opaque);
      if (deltaE <= OF_THE_FAMILY && deltaE < (nearest?.deltaE ?? Number.POSITIVE_INFINITY)) nearest = { css, deltaE };
    }
    return nearest;
  }

  isBrand(color: Color): boolean {
    return this.standingOf(color).kind === 'brand';
  }

  /** Whether a colour is the brand's, or left alone where it is. */
  isOurs(page: Page, element: ElementNode, color: Color): boolean {
    return this.isBrand(color) || isExcepted(this.site.exceptions, page.document, element, color);
  }
}

/** The place of what is looked at. */
export function placeAt({ on, element, state }: Looked, pseudo: string, property: string, index = 0): ProofPlace {
  return {
    pageId: on.pageId,
    element: element.number,
    pseudo,
    property,
    index,
    state,
    setting: on.setting,
    lighting: on.lighting,
    partId: on.partIdOf(element),
  };
}

/** A role where the palette fills it, else what stands in for it. */
export function roleOr(site: SiteModel, role: RoleName, css: string): OverrideValue {
  return site.palette.roles.some((fill) => fill.role === role)
    ? { kind: 'role', role, shade: 0 }
    : { kind: 'literal', css };
}

/** Where a declaration stands, to tell causes apart. */
export function homeKey({ decided, style, property }: Pick<Painting, 'decided' | 'style' | 'property'>): string {
  if (!decided) return `initial ${property}`;
  const { rule } = decided.block;
  return rule
    ? `${rule.sheet.name}:${rule.sheet.name === VENEER_SHEET_NAME ? rule.selectorText : rule.start}:${property}`
    : `${style.element.localName} attribute:${property}`;
}

/** Whether the veneer decides a painting. */
export function isOfVeneer({ decided }: Painting): boolean {
  return decided?.block.rule?.sheet.name === VENEER_SHEET_NAME;
}

/** Whether the browser's own sheet decides a painting, or nothing does. */
export function isOfBrowser({ decided }: Painting): boolean {
  return decided === null || decided.block.origin === 'user-agent';
}

/** The same painting among others: of the same pseudo-element, property and place in its value. */
export function sameIn(paintings: readonly Painting[], { pseudo, property, index }: Painting): Painting | null {
  return (
    paintings.find((other) => other.pseudo === pseudo && other.property === property && other.index === index) ?? null
  );
}

/** Part an element stands in, remembered for a page. */
export function partsOn(site: SiteModel, page: Page): (element: ElementNode) => number | null {
  const known = new Map<ElementNode, number | null>();
  return (element) => {
    let id = known.get(element);
    if (id === undefined) known.set(element, (id = partOf(site, page, element)?.id ?? null));
    return id;
  };
}
